import type { NumberResponse, NumberShown } from '../../../core/kinds/number/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';

const t = words('numberReading', { nothing: 'No figure was entered.' });

export function Reading({ shown, response }: ReadingProps<NumberShown, NumberResponse>) {
  const typed = response.typed.trim();
  if (typed === '') return <p className="text-soft">{t('nothing')}</p>;
  return (
    <p>
      {shown.before} <strong>{typed}</strong> {shown.unit}
    </p>
  );
}
