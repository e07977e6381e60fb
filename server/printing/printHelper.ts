import type { ResultSheet } from '../../core/results/resultSheet';
import { serveTasks } from '../helpers/serveTasks';
import { printSheet } from './printSheet';

serveTasks({
  sheet: ({ sheet, organisation }: { readonly sheet: ResultSheet; readonly organisation: string }) =>
    printSheet(sheet, organisation),
});
