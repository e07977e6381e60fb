import { expressionAsText } from '../../../core/expressions/toText';
import { isBlank } from '../../../core/kinds/expression/candidate';
import type { ExpressionResponse, ExpressionShown } from '../../../core/kinds/expression/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { Typeset } from './Typeset';

const t = words('expressionReading', { nothing: 'Nothing was entered.' });

/** The expression as it was entered. */
export function Reading({ shown, response }: ReadingProps<ExpressionShown, ExpressionResponse>) {
  if (isBlank(response.latex)) return <p className="text-soft">{t('nothing')}</p>;
  return (
    <p>
      {shown.before} <Typeset latex={response.latex} spoken={expressionAsText(response.latex, shown)} />{' '}
      {shown.after}
    </p>
  );
}
