import { X } from 'lucide-react';
import { useEffect, useEffectEvent, useId, useState } from 'react';
import {
  chosenOf,
  pressed,
  type PassageShown,
  type SelectTextResponse,
  type SelectTextShown,
} from '../../../core/kinds/select-text/response';
import { DocumentView } from '../../documents/DocumentView';
import { PhrasesInUse, type PhraseUse } from '../../documents/phrases';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';

const t = words('selectAnswer', {
  inSource: 'Press phrases in the source to choose them. Your choices are listed here.',
  count: '{{title}}: {{count}} of {{limit}}',
  countOpen: '{{title}}: {{count}} chosen',
  another: 'press another to change',
  full_one: 'You can choose only {{count}} in “{{title}}”. Remove your choice first.',
  full_other: 'You can choose only {{count}} in “{{title}}”. Remove one choice first.',
  remove: 'Remove “{{text}}”',
});

type Props = AnswerProps<SelectTextShown, SelectTextResponse>;

interface PassageProps {
  readonly passage: PassageShown;
  readonly response: SelectTextResponse;
  readonly onRemove: (phrase: string) => void;
}

/** How many are chosen of how many, and what to do about it. */
function Count({ passage, response }: Pick<PassageProps, 'passage' | 'response'>) {
  const count = chosenOf(passage, response).length;
  const { title, limit } = passage;
  return (
    <p className="text-[0.88rem] text-soft">
      <span className={limit !== null && count === limit ? 'font-semibold text-kelp' : ''}>
        {limit === null ? t('countOpen', { title, count }) : t('count', { title, count, limit })}
      </span>
      {limit === 1 && count === 1 && ` · ${t('another')}`}
    </p>
  );
}

/** What is chosen in a column of the source: there it can be out of view. */
function Chosen({ passage, response, onRemove }: PassageProps) {
  return (
    <div className="mb-3 rounded-lg border border-line bg-card px-3 py-2">
      <Count passage={passage} response={response} />
      <ul className="mt-1 space-y-1">
        {chosenOf(passage, response).map(({ key, text }) => (
          <li key={key} className="flex items-center gap-2 rounded-control bg-wash pl-3">
            <span className="min-w-0 flex-1 py-1.5">{text}</span>
            <button
              type="button"
              aria-label={t('remove', { text })}
              onClick={() => onRemove(key)}
              className="grid size-11 flex-none place-items-center rounded-control text-soft hover:text-ink"
            >
              <X aria-hidden className="size-4" />
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Phrases chosen in passages of its own, or in the source beside it. */
export function Answer({ shown, response, onChange, promptId, needId, source }: Props) {
  const id = useId();
  const [refused, setRefused] = useState('');
  const press = (phrase: string) => {
    const next = pressed(shown, response, phrase);
    const full = shown.passages.find(({ phrases }) => phrases.some(({ key }) => key === phrase));
    setRefused(next === null ? t('full', { title: full!.title, count: full!.limit! }) : '');
    if (next) onChange(next);
  };
  const pressInSource = useEffectEvent(press);
  const inSource = shown.passages.some(({ body }) => body === null);
  const { use: workWith } = source;
  const { chosen } = response;
  useEffect(() => {
    if (!inSource) return;
    workWith({ how: 'choose', chosen: new Set(chosen), onPress: (name) => pressInSource(name) });
    return () => workWith(null);
  }, [inSource, chosen, workWith]);
  const use: PhraseUse = { how: 'choose', chosen: new Set(chosen), onPress: press };
  return (
    <div role="group" aria-labelledby={promptId} aria-describedby={needId}>
      {inSource && <p className="mb-2 text-[0.88rem] text-soft">{t('inSource')}</p>}
      {shown.passages.map((passage) =>
        passage.body === null ? (
          <Chosen key={passage.key} passage={passage} response={response} onRemove={press} />
        ) : (
          <section key={passage.key} aria-labelledby={`${id} ${passage.key}`} className="mb-3">
            <h2 id={`${id} ${passage.key}`} className="mb-1 text-[0.92rem] font-semibold">
              {passage.title}
            </h2>
            <div className="rounded-lg border border-line bg-card px-4 py-3 font-serif leading-[1.9]">
              <PhrasesInUse value={use}>
                <DocumentView document={passage.body} />
              </PhrasesInUse>
            </div>
            <Count passage={passage} response={response} />
          </section>
        ),
      )}
      <p role="status" className="min-h-6 text-[0.88rem] text-marigold">
        {refused}
      </p>
    </div>
  );
}
