import type { MatchResponse, MatchShown } from '../../../core/kinds/match/response';
import { textOf } from '../../../core/kinds/shared/entries';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { CreditMark } from '../shared/CreditMark';

const t = words('matchReading', {
  none: 'no partner',
  belongs: 'belongs to {{partner}}',
  nowhere: 'belongs to none',
});

/** The pairs, each with what was found of it and the partner that was meant. */
export function Reading({ shown, response, right, credits }: ReadingProps<MatchShown, MatchResponse>) {
  return (
    <ul className="space-y-1">
      {shown.left.map(({ key, text }) => {
        const [given, wanted] = [response.pairs[key], right?.pairs[key]];
        return (
          <li key={key} className="flex flex-wrap items-center gap-x-2.5">
            <span>{text}</span>
            <span aria-hidden className="h-px w-8 bg-filled" />
            {given === undefined ? (
              <span className="text-soft">{t('none')}</span>
            ) : (
              <span>{textOf(shown.right, given)}</span>
            )}
            <CreditMark credits={credits} component={key} />
            {right && wanted !== given && (
              <span className="rounded bg-wash px-1.5 text-[0.85em] text-kelp">
                {wanted === undefined ? t('nowhere') : t('belongs', { partner: textOf(shown.right, wanted) })}
              </span>
            )}
          </li>
        );
      })}
    </ul>
  );
}
