import { useState } from 'react';
import { wordsOf } from '../../../core/kinds/shared/richText';
import type { WritingResponse, WritingShown } from '../../../core/kinds/writing/response';
import { showMarks } from '../../../core/marks';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { RichEditor } from '../shared/RichEditor';

const t = words('writing', {
  count_one: '{{count}} word',
  count_other: '{{count}} words',
  of: 'of {{from}} to {{to}}',
  full_one: 'The limit of {{count}} word is reached. Delete some words first.',
  full_other: 'The limit of {{count}} words is reached. Delete some words first.',
  judged: 'Assessors mark: {{criteria}}',
});

export function Answer({
  shown,
  response,
  onChange,
  promptId,
  needId,
  target,
}: AnswerProps<WritingShown, WritingResponse>) {
  const [refused, setRefused] = useState(false);
  const most = shown.limit === 'hard' ? shown.wordsTo : null;
  const count = wordsOf(response.text);
  const criteria = shown.criteria.map((c) => `${c.title} ${showMarks(c.hundredths)}`).join(', ');
  return (
    <div>
      <RichEditor
        text={response.text}
        onChange={(text) => {
          setRefused(false);
          onChange({ text });
        }}
        most={most}
        onRefused={() => setRefused(true)}
        rich={shown.format === 'rich'}
        height="min-h-64"
        labelledBy={promptId}
        describedBy={needId}
        target={target}
      />
      <div className="sticky bottom-0 z-[5] bg-paper py-1 text-[0.85rem]">
        <p role="status" className="text-marigold empty:hidden">
          {refused && most !== null && t('full', { count: most })}
        </p>
        <p data-count className="text-right text-soft">
          {t('count', { count })}{' '}
          {shown.wordsTo !== null && t('of', { from: shown.wordsFrom ?? 0, to: shown.wordsTo })}
        </p>
      </div>
      <p className="text-[0.85rem] text-soft">{t('judged', { criteria })}</p>
    </div>
  );
}
