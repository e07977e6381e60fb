import type { PDFDocumentLoadingTask } from 'pdfjs-dist';

/**
 * pdf.js puts stand-ins in the place of these, for the sake of cases that it never meets. They are many times slower,
 * for everything else in the process: what was there is put back.
 */
const KEPT = (
  [
    [JSON, 'parse'],
    [JSON, 'stringify'],
    [Array.prototype, 'push'],
  ] as const
).map(([owner, name]) => ({ owner, name, own: Object.getOwnPropertyDescriptor(owner, name)! }));

async function loadPdfJs() {
  const pdfJs = await import('./pdfJs');
  for (const { owner, name, own } of KEPT) Object.defineProperty(owner, name, own);
  return pdfJs;
}

/** Begins to read a PDF document; whoever asks ends it. Nothing in it is run and nothing is fetched. */
export async function openPdf(bytes: Uint8Array, folders: object = {}): Promise<PDFDocumentLoadingTask> {
  const { getDocument } = await loadPdfJs();
  return getDocument({
    data: Uint8Array.from(bytes),
    isEvalSupported: false,
    useSystemFonts: false,
    verbosity: 0,
    ...folders,
  });
}
