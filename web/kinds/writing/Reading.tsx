import { countWords, richAsText } from '../../../core/kinds/shared/richText';
import type { WritingResponse, WritingShown } from '../../../core/kinds/writing/response';
import { RichText } from '../../ui/RichText';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';

const t = words('writingReading', { nothing: 'Nothing was written.' });

export function Reading({ response }: ReadingProps<WritingShown, WritingResponse>) {
  if (countWords(richAsText(response.text)) === 0) return <p className="text-soft">{t('nothing')}</p>;
  return (
    <div className="font-serif text-[1.08em] leading-relaxed">
      <RichText node={response.text} />
    </div>
  );
}
