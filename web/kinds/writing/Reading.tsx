import { wordsOf } from '../../../core/kinds/shared/richText';
import type { WritingResponse, WritingShown } from '../../../core/kinds/writing/response';
import { AnnotatedText } from '../../annotations/AnnotatedText';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';

const t = words('writingReading', {
  nothing: 'Nothing was written.',
  beyond: 'The limit is {{to}} words; this answer has {{count}}. Only the first {{to}} are read.',
});

export function Reading({ shown, response }: ReadingProps<WritingShown, WritingResponse>) {
  const count = wordsOf(response.text);
  const to = shown.limit === 'hard' ? shown.wordsTo : null;
  if (count === 0) return <p className="text-soft">{t('nothing')}</p>;
  return (
    <div className="font-serif text-[1.08em] leading-relaxed">
      {to !== null && count > to && (
        <p className="mb-2 font-sans text-[0.9rem] text-marigold">{t('beyond', { to, count })}</p>
      )}
      <AnnotatedText node={response.text} />
    </div>
  );
}
