import type { OrderResponse, OrderShown } from '../../../core/kinds/order/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';

const t = words('orderReading', { nothing: 'Not answered: the order was not changed.' });

export function Reading({ shown, response }: ReadingProps<OrderShown, OrderResponse>) {
  if (response.sequence.length === 0) return <p className="text-soft">{t('nothing')}</p>;
  return (
    <ol className="list-decimal space-y-0.5 pl-6">
      {response.sequence.map((key) => (
        <li key={key}>{shown.items.find((item) => item.key === key)?.text}</li>
      ))}
    </ol>
  );
}
