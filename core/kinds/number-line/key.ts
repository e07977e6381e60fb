import { message } from '../../messages/message';
import { say } from '../../messages/words';
import { exactOf } from '../../numbers/exact';
import type { Content, Credit, Issue, KeyKind, ScoringInput } from '../contract';
import { plainKey } from '../plainKey';
import { isSoundAxis } from '../shared/axis';
import { creditOf, share, wholeComponent } from '../shared/credits';
import { severe } from '../shared/issues';
import { numberLine } from './candidate';
import type { NumberLineAsked, NumberLineKey } from './content';
import type { NumberLineResponse, NumberLineShown } from './response';
import { isSameSet } from './sets';
import { askedSchema, keySchema, responseSchema } from './schemas';

type LineContent = Content<NumberLineAsked, NumberLineKey>;

const show = ({ axis, sorts, most }: NumberLineAsked, locale: string): NumberLineShown => ({
  axis: { ...axis },
  sorts: [...sorts],
  most,
  locale,
});

function check({ asked, key }: LineContent): Issue[] {
  if (!isSoundAxis(asked.axis)) return [severe(['asked', 'axis'], message('number-line.axis'))];
  const issues: Issue[] = [];
  if (key.pieces.length === 0) issues.push(severe(['key', 'pieces'], message('number-line.noRight')));
  const misfit = numberLine.misfit(show(asked, 'en'), { pieces: key.pieces });
  if (misfit) issues.push(severe(['key', 'pieces'], misfit));
  if (key.tolerance.startsWith('-'))
    issues.push(severe(['key', 'tolerance'], message('number-line.tolerance')));
  return issues;
}

/** What breaks a limit that the page keeps earns nothing. */
const isRight = ({ asked, key }: LineContent, { pieces }: NumberLineResponse) =>
  numberLine.misfit(show(asked, 'en'), { pieces }) === null &&
  isSameSet(pieces, key.pieces, exactOf(key.tolerance));

/** As sets, all or nothing. */
const score = ({
  content,
  response,
  place,
}: ScoringInput<NumberLineAsked, NumberLineKey, NumberLineResponse, null>): Credit[] => [
  creditOf(wholeComponent(place.marks)[0], share(isRight(content, response) ? 1 : 0, 1), []),
];

export const numberLineKey: KeyKind<
  NumberLineAsked,
  NumberLineKey,
  NumberLineShown,
  NumberLineResponse,
  null
> = {
  ...plainKey,
  name: 'number-line',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  blank: () => ({
    asked: {
      axis: { from: '-5', to: '5', step: '1', snaps: 1, label: '' },
      sorts: ['point', 'interval', 'ray'],
      most: 2,
    },
    key: { pieces: [], tolerance: '0' },
  }),
  check,
  arrange: () => null,
  show: (asked, _, { locale }) => show(asked, locale),
  components: (_, marks) => wholeComponent(marks),
  score,
  rightResponse: ({ key }) => ({ pieces: [...key.pieces] }),
  facts: ({ content, response, place: { locale } }) => {
    const answer = numberLine.describe(show(content.asked, locale), response, say).text;
    return answer === ''
      ? []
      : [{ component: 'whole', type: 'drawing', answer, right: isRight(content, response) }];
  },
};
