import { textOf } from '../../../core/kinds/shared/entries';
import { binsOf, chipsIn, type SortResponse, type SortShown } from '../../../core/kinds/sort/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { CreditMark } from '../shared/CreditMark';

const t = words('sortReading', {
  left: 'Left over',
  belongs: 'belongs in {{bins}}',
  nowhere: 'belongs nowhere',
  empty: 'nothing',
});

/** The bins as they were filled, each chip with what was found of it and, where it belongs elsewhere, where. */
export function Reading({ shown, response, right, credits }: ReadingProps<SortShown, SortResponse>) {
  const placeOf = (chip: string, bin: string | null) => {
    if (!right) return null;
    const wanted = binsOf(right, chip);
    if (bin === null ? wanted.length === 0 : wanted.includes(bin)) return null;
    const bins = wanted.map((one) => textOf(shown.bins, one)).join(', ');
    return wanted.length === 0 ? t('nowhere') : t('belongs', { bins });
  };
  const left = shown.chips.filter(({ key }) => binsOf(response, key).length === 0).map(({ key }) => key);
  const groups = [
    ...shown.bins.map((bin) => ({ key: bin.key, text: bin.text, chips: chipsIn(response, bin.key) })),
    ...(left.length > 0 ? [{ key: null, text: t('left'), chips: left }] : []),
  ];
  return (
    <dl className="grid gap-3 [grid-template-columns:repeat(auto-fit,minmax(min(11rem,100%),1fr))]">
      {groups.map(({ key, text, chips }) => (
        <div key={key ?? ''} className="rounded-lg border border-dashed border-edge p-2.5">
          <dt className="mb-1 font-semibold">{text}</dt>
          {chips.length === 0 && <dd className="text-soft">{t('empty')}</dd>}
          {chips.map((chip) => (
            <dd key={chip} className="flex flex-wrap items-center gap-x-2">
              {textOf(shown.chips, chip)} <CreditMark credits={credits} component={chip} />
              {placeOf(chip, key) && (
                <span className="rounded bg-wash px-1.5 text-[0.85em] text-kelp">{placeOf(chip, key)}</span>
              )}
            </dd>
          ))}
        </div>
      ))}
    </dl>
  );
}
