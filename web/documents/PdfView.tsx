import 'pdfjs-dist/web/pdf_viewer.css';
import './pdf.css';
import { ChevronDown, ChevronLeft, ChevronRight, ChevronUp, Minus, Plus } from 'lucide-react';
import { useContext, useEffect, useId, useRef, useState } from 'react';
import type { PdfNode } from '../../core/documents/document';
import { Files } from '../media/fileSource';
import { Fills } from '../media/fills';
import { Button } from '../ui/Button';
import type { NodeProps } from './nodeProps';
import { openPdf, type PdfState, type ShownPdf } from './openPdf';
import { t } from './words';

type Opened =
  | { readonly is: 'opening' }
  | { readonly is: 'here'; readonly pdf: ShownPdf }
  | { readonly is: 'trouble'; readonly missing: boolean };

/** Opens the document in its place, and closes it when that goes. */
function usePdf(file: string): {
  readonly place: React.RefObject<HTMLDivElement | null>;
  readonly opened: Opened;
  readonly state: PdfState;
} {
  const place = useRef<HTMLDivElement>(null);
  const files = useContext(Files);
  const [opened, setOpened] = useState<Opened>({ is: 'opening' });
  const [state, setState] = useState<PdfState>({ page: 1, pages: 0, found: null });
  useEffect(() => {
    let current = true;
    let pdf: ShownPdf | null = null;
    const open = async () => {
      const bytes = await files.bytes(file);
      if (!current) return;
      if (bytes === null) {
        setOpened({ is: 'trouble', missing: true });
        return;
      }
      pdf = await openPdf(place.current!, bytes, (change) =>
        setState((before) => ({ ...before, ...change })),
      );
      if (current) setOpened({ is: 'here', pdf });
      else pdf.close();
    };
    open().catch(() => current && setOpened({ is: 'trouble', missing: false }));
    return () => {
      current = false;
      pdf?.close();
    };
  }, [files, file]);
  return { place, opened, state };
}

/** At an end its button stays where it is, and in focus: whoever works by keys would be thrown out of the panel. */
function PageBar({
  pdf,
  page,
  pages,
}: {
  readonly pdf: ShownPdf;
  readonly page: number;
  readonly pages: number;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <div className="flex items-center gap-1">
      <Button
        look="quiet"
        className="px-2!"
        aria-label={t('previousPage')}
        aria-disabled={page <= 1}
        onClick={() => page > 1 && pdf.goTo(page - 1)}
      >
        <ChevronLeft aria-hidden className="size-5" />
      </Button>
      <label className="flex items-center gap-1.5 text-[0.88rem] whitespace-nowrap">
        {t('page')}
        <input
          inputMode="numeric"
          value={typed ?? String(page)}
          onChange={(event) => {
            setTyped(event.target.value);
            const wanted = Number(event.target.value);
            if (Number.isInteger(wanted) && wanted >= 1 && wanted <= pages) pdf.goTo(wanted);
          }}
          onBlur={() => setTyped(null)}
          className="min-h-9 w-11 rounded-control border border-edge bg-card px-2 text-center"
        />
        {t('pageOf', { all: pages })}
      </label>
      <Button
        look="quiet"
        className="px-2!"
        aria-label={t('nextPage')}
        aria-disabled={page >= pages}
        onClick={() => page < pages && pdf.goTo(page + 1)}
      >
        <ChevronRight aria-hidden className="size-5" />
      </Button>
    </div>
  );
}

function SearchBar({ pdf, found }: { readonly pdf: ShownPdf; readonly found: PdfState['found'] }) {
  const [query, setQuery] = useState('');
  const statusId = useId();
  return (
    <div className="flex min-w-52 flex-1 items-center gap-1">
      <input
        type="search"
        value={query}
        placeholder={t('search')}
        aria-label={t('search')}
        aria-describedby={statusId}
        onChange={(event) => {
          setQuery(event.target.value);
          pdf.search(event.target.value, 'first');
        }}
        onKeyDown={(event) =>
          event.key === 'Enter' && pdf.search(query, event.shiftKey ? 'previous' : 'next')
        }
        className="min-h-9 min-w-0 flex-1 basis-28 rounded-control border border-edge bg-card px-2.5 text-[0.9rem]"
      />
      <Button
        look="quiet"
        className="px-2!"
        aria-label={t('searchPrevious')}
        onClick={() => pdf.search(query, 'previous')}
      >
        <ChevronUp aria-hidden className="size-5" />
      </Button>
      <Button
        look="quiet"
        className="px-2!"
        aria-label={t('searchNext')}
        onClick={() => pdf.search(query, 'next')}
      >
        <ChevronDown aria-hidden className="size-5" />
      </Button>
      <span id={statusId} role="status" className="text-[0.85rem] text-soft">
        {query !== '' &&
          found &&
          (found.count === 0 ? t('notFound') : t('found', { at: found.at, count: found.count }))}
      </span>
    </div>
  );
}

/** A PDF document in the page: its text can be read aloud, chosen and searched. */
export function PdfView({ node }: Pick<NodeProps<Pick<PdfNode, 'file' | 'title'>>, 'node'>) {
  const { place, opened, state } = usePdf(node.file);
  const fills = useContext(Fills);
  const pdf = opened.is === 'here' ? opened.pdf : null;
  return (
    <section
      aria-label={`${t('pdf')}: ${node.title}`}
      className={`font-sans ${fills ? 'flex h-full flex-col' : 'mb-3 last:mb-0'}`}
    >
      <h3 className={fills ? 'sr-only' : 'mb-1 font-semibold'}>{node.title}</h3>
      {pdf && (
        <div className="mb-1.5 flex flex-wrap items-center gap-x-2 gap-y-1">
          <PageBar pdf={pdf} page={state.page} pages={state.pages} />
          <div className="flex items-center">
            <Button look="quiet" className="px-2!" aria-label={t('zoomOut')} onClick={() => pdf.zoom(0.8)}>
              <Minus aria-hidden className="size-5" />
            </Button>
            <Button look="quiet" className="px-2!" aria-label={t('zoomIn')} onClick={() => pdf.zoom(1.25)}>
              <Plus aria-hidden className="size-5" />
            </Button>
            <Button look="quiet" className="px-2!" onClick={() => pdf.fit()}>
              {t('fit')}
            </Button>
          </div>
          <SearchBar pdf={pdf} found={state.found} />
        </div>
      )}
      {opened.is === 'opening' && (
        <p role="status" className="text-soft">
          {t('opening')}
        </p>
      )}
      {opened.is === 'trouble' && (
        <p role="alert" className="text-marigold">
          {t(opened.missing ? 'fileMissing' : 'pdfTrouble')}
        </p>
      )}
      <div
        className={`relative rounded-control border border-line bg-shade ${fills ? 'min-h-0 flex-1' : 'h-[min(68vh,44rem)] min-h-64'} ${opened.is === 'trouble' ? 'hidden' : ''}`}
      >
        <div
          ref={place}
          tabIndex={0}
          aria-label={node.title}
          role="document"
          className="absolute inset-0 overflow-auto"
        >
          <div className="pdfViewer" />
        </div>
      </div>
    </section>
  );
}
