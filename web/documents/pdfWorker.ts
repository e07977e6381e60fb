import 'pdfjs-dist/build/pdf.worker.mjs';
