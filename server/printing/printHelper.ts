import type { ResultSheet } from '../../core/results/resultSheet';
import { serveTasks } from '../helpers/serveTasks';
import { documentOfPictures } from './documentOfPictures';
import { printSheet, type Pictures } from './printSheet';

interface Asked {
  readonly sheet: ResultSheet;
  readonly organisation: string;
  readonly pictures: Pictures;
}

serveTasks({
  pictures: documentOfPictures,
  sheet: ({ sheet, organisation, pictures }: Asked) => printSheet(sheet, organisation, pictures),
});
