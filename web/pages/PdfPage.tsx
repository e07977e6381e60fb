import { useMemo } from 'react';
import type { Page } from '../../core/files/pages';
import { PdfView } from '../documents/PdfView';
import { Files, noFiles } from '../media/fileSource';
import { Fills } from '../media/fills';
import type { LoadedPage } from './pageSource';

interface Props {
  readonly page: Page;
  readonly loaded: LoadedPage & { readonly is: 'here' };
  readonly title: string;
  readonly fills?: boolean;
}

/** A document of an answer, drawn by us: nothing in it can run or lead elsewhere. */
export function PdfPage({ page, loaded, title, fills = false }: Props) {
  const { blob } = loaded;
  const source = useMemo(
    () => ({ ...noFiles, bytes: async () => new Uint8Array(await blob.arrayBuffer()) }),
    [blob],
  );
  return (
    <Files value={source}>
      <Fills value={fills}>
        <PdfView node={{ file: page.hash, title }} />
      </Fills>
    </Files>
  );
}
