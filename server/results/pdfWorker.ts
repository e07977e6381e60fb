/* Makes one PDF in a worker thread: laying out pages takes too long for the request path. */
import { parentPort, workerData } from 'node:worker_threads';
import pdfmake from 'pdfmake';
import Roboto from 'pdfmake/fonts/Roboto.js';
import type { ResultSheet } from '../../core/results/resultSheet';
import { sheetDocument } from './sheetDocument';

const { sheet, organisation } = (workerData as { input: { sheet: ResultSheet; organisation: string } }).input;
pdfmake.addFonts(Roboto);
// A sheet draws on nothing but the package's own fonts.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((file) => Object.values(Roboto.Roboto!).includes(file));
const bytes = await pdfmake.createPdf(sheetDocument(sheet, organisation)).getBuffer();
parentPort!.postMessage(new Uint8Array(bytes));
