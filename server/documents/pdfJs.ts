/* Loaded where a document is read, and by `openPdf.ts` alone: it changes what the language has. */
import 'pdfjs-dist/legacy/build/pdf.worker.mjs';

export { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
