import { serveTasks } from '../helpers/serveTasks';
import { drawPdf } from './drawPdf';

serveTasks({
  /** A document that is itself at fault has no pages: that is an answer, and no trouble of the machine. */
  draw: ({ file, most }: { file: string; most: number }) => drawPdf(file, most).catch(() => []),
});
