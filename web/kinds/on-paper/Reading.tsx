import { FileCheck } from 'lucide-react';
import type { OnPaperResponse, OnPaperShown } from '../../../core/kinds/on-paper/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';

const t = words('onPaperReading', { done: 'Done on paper', open: 'Not confirmed as done.' });

export function Reading({ response }: ReadingProps<OnPaperShown, OnPaperResponse>) {
  if (!response.done) return <p className="text-soft">{t('open')}</p>;
  return (
    <p className="flex items-center gap-2">
      <FileCheck aria-hidden className="size-5" /> {t('done')}
    </p>
  );
}
