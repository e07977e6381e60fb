import { serveTasks } from '../helpers/serveTasks';
import { drawPdf } from './drawPdf';

serveTasks({ draw: ({ file, most }: { file: string; most: number }) => drawPdf(file, most) });
