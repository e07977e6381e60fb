import * as pdfjs from 'pdfjs-dist';
import type { EventBus, PDFFindController, PDFViewer } from 'pdfjs-dist/web/pdf_viewer.mjs';

export interface PdfState {
  readonly page: number;
  readonly pages: number;
  /** Of the last search; null before the first. */
  readonly found: { readonly at: number; readonly count: number } | null;
}

export interface ShownPdf {
  goTo(page: number): void;
  zoom(factor: number): void;
  fit(): void;
  search(query: string, how: 'first' | 'next' | 'previous'): void;
  close(): void;
}

const VENDOR = '/vendor/pdf/';
/** Where the library finds what it needs, and what it must not do. */
export const pdfFolders = {
  cMapUrl: `${VENDOR}cmaps/`,
  standardFontDataUrl: `${VENDOR}standard_fonts/`,
  wasmUrl: `${VENDOR}wasm/`,
  isEvalSupported: false,
  enableXfa: false,
};
const SMALLEST = 0.4;
const LARGEST = 4;

let worker: Worker | null = null;

/** One worker for all documents of the page. */
export function startWorker(): void {
  worker ??= new Worker(new URL('./pdfWorker.ts', import.meta.url), { type: 'module' });
  pdfjs.GlobalWorkerOptions.workerPort = worker;
}

/** The viewer of the library, which looks for the library where a page's script would have put it. */
async function viewerParts() {
  (globalThis as { pdfjsLib?: unknown }).pdfjsLib = pdfjs;
  return import('pdfjs-dist/web/pdf_viewer.mjs');
}

interface Parts {
  readonly viewer: PDFViewer;
  readonly bus: EventBus;
  readonly find: PDFFindController;
}

function listen({ viewer, bus }: Parts, onChange: (change: Partial<PdfState>) => void): void {
  bus.on('pagechanging', ({ pageNumber }: { pageNumber: number }) => onChange({ page: pageNumber }));
  bus.on('pagesinit', () => {
    viewer.currentScaleValue = 'page-width';
  });
  const found = ({ matchesCount }: { matchesCount: { current: number; total: number } }) =>
    onChange({ found: { at: matchesCount.current, count: matchesCount.total } });
  bus.on('updatefindmatchescount', found);
  bus.on('updatefindcontrolstate', found);
}

/** Shows a document in `container`, which holds an element of the class `pdfViewer`. */
export async function openPdf(
  container: HTMLDivElement,
  bytes: Uint8Array<ArrayBuffer>,
  onChange: (change: Partial<PdfState>) => void,
): Promise<ShownPdf> {
  startWorker();
  const { EventBus, PDFFindController, PDFLinkService, PDFViewer } = await viewerParts();
  const loading = pdfjs.getDocument({
    data: bytes,
    ...pdfFolders,
  });
  const document = await loading.promise;
  const bus = new EventBus();
  // Links of a document lead nowhere: a candidate stays at the desk.
  const linkService = new PDFLinkService({ eventBus: bus, ignoreDestinationZoom: true });
  linkService.externalLinkEnabled = false;
  const find = new PDFFindController({ eventBus: bus, linkService });
  const viewer = new PDFViewer({
    container,
    viewer: container.querySelector<HTMLDivElement>('.pdfViewer')!,
    eventBus: bus,
    linkService,
    findController: find,
    annotationMode: pdfjs.AnnotationMode.DISABLE,
    removePageBorders: true,
  });
  linkService.setViewer(viewer);
  listen({ viewer, bus, find }, onChange);
  viewer.setDocument(document);
  linkService.setDocument(document);
  onChange({ page: 1, pages: document.numPages });
  return {
    goTo: (page) => {
      viewer.currentPageNumber = page;
    },
    zoom: (factor) => {
      viewer.currentScale = Math.min(LARGEST, Math.max(SMALLEST, viewer.currentScale * factor));
    },
    fit: () => {
      viewer.currentScaleValue = 'page-width';
    },
    search: (query, how) =>
      bus.dispatch('find', {
        source: find,
        type: how === 'first' ? '' : 'again',
        query,
        caseSensitive: false,
        entireWord: false,
        highlightAll: true,
        findPrevious: how === 'previous',
        matchDiacritics: false,
      }),
    close: () => {
      viewer.cleanup();
      void loading.destroy();
    },
  };
}
