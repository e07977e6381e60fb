import { serveTasks } from '../helpers/serveTasks';
import { drawPdf, type Largest } from './drawPdf';

export interface DrawAsked {
  readonly file: string;
  /** From 1. */
  readonly number: number;
  readonly largest: Largest;
}

serveTasks({
  /** A document that is itself at fault has no pages: that is an answer, and no trouble of the machine. */
  page: ({ file, number, largest }: DrawAsked) => drawPdf(file, number, largest).catch(() => null),
});
