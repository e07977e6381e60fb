import type { ResultSheet } from '../../core/results/resultSheet';
import { serveTasks } from '../helpers/serveTasks';
import { printSheet } from './printSheet';

interface Asked {
  readonly sheet: ResultSheet;
  readonly organisation: string;
  readonly pictures: Readonly<Record<string, string>>;
}

serveTasks({
  sheet: ({ sheet, organisation, pictures }: Asked) => printSheet(sheet, organisation, pictures),
});
