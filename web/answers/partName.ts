import type { AnsweredPart } from '../../core/answers/api';
import { t } from './words';

/** What a part is called among the parts of its round. */
export function nameOfPart(
  { itemNumber: number, title, part, target }: AnsweredPart,
  all: readonly AnsweredPart[],
): string {
  const several = all.some((one) => one.itemNumber === number && one.target !== target);
  return several ? t('partOf', { number, part, title }) : t('part', { number, title });
}
