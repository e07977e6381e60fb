import { expressionAsText } from '../../expressions/toText';
import { readExpression } from '../../expressions/readExpression';
import { message, type Message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import type { ExpressionResponse, ExpressionShown } from './response';

/** Why an entry cannot be read; null where it can. It is kept as it was entered all the same. */
export function complaintAbout(shown: ExpressionShown, latex: string): Message | null {
  const read = readExpression(latex, shown);
  if ('tree' in read) return null;
  const { code, missing, what } = read.refused;
  if (missing) return message(`expression.missing-${missing}`);
  return message(`expression.${code}`, { what: what ?? '' });
}

/** An editor leaves empty boxes and spaces where nothing was entered. */
export const isBlank = (latex: string): boolean =>
  latex.replace(/\\placeholder\s{0,9}(?:\[[^\]]{0,99}\])?\{\s{0,9}\}|\\[,:; ]|[\s{}~]/g, '') === '';

function progress(shown: ExpressionShown, { latex }: ExpressionResponse): Progress {
  if (isBlank(latex)) return { state: 'empty', missing: message('expression.empty') };
  const missing = complaintAbout(shown, latex);
  return { state: missing ? 'part' : 'done', missing };
}

export const expression: CandidateKind<ExpressionShown, ExpressionResponse> = {
  ...plainCandidate,
  name: 'expression',
  empty: () => ({ latex: '' }),
  progress,
  rule: ({ form }) => form && message(`expression.form-${form}`),
  describe: (shown, { latex }) => ({
    form: 'words',
    text: isBlank(latex)
      ? ''
      : [shown.before, expressionAsText(latex, shown), shown.after].filter(Boolean).join(' '),
  }),
};
