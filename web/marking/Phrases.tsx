import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import type { Phrase } from '../../core/marking/api';
import { post } from '../api/client';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { t } from './words';

interface Props {
  readonly round: number;
  readonly phrases: readonly Phrase[];
  /** What is written in the comment now: it can be kept as a phrase. */
  readonly comment: string;
  readonly onUse: (text: string) => void;
  readonly onChanged: (phrases: readonly Phrase[]) => void;
}

const SHOWN = 8;
/** Phrases that have a key: Alt and their number. */
export const PHRASE_KEYS = 9;

/** Enter passes the script on again: it is not to press once more what was pressed just now. */
function leaveButton(): void {
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
}

/** Comments that are used again: own ones and shared ones, with a search. */
export function Phrases({ round, phrases, comment, onUse, onChanged }: Props) {
  const [search, setSearch] = useState('');
  const { trouble, run } = useAction();
  const wanted = search.toLowerCase();
  const path = `/marking/rounds/${round}/phrases`;
  const found = phrases.filter(({ text }) => text.toLowerCase().includes(wanted));
  const keep = (shared: boolean) => {
    leaveButton();
    return run(async () => onChanged(await post<Phrase[]>(path, { text: comment.trim(), shared })));
  };
  const remove = (id: number) => run(async () => onChanged(await post<Phrase[]>(`${path}/${id}/remove`)));
  return (
    <details className="text-[0.85rem]">
      <summary className="min-h-8 py-1 text-slate">{t('phrases', { count: phrases.length })}</summary>
      {phrases.length > SHOWN && (
        <input
          type="search"
          value={search}
          placeholder={t('searchPhrases')}
          aria-label={t('searchPhrases')}
          onChange={(event) => setSearch(event.target.value)}
          className="mb-1.5 min-h-8 w-full rounded-control border border-edge bg-card px-2"
        />
      )}
      <ul className="flex max-h-40 flex-wrap gap-1.5 overflow-y-auto">
        {found.map(({ id, text, shared, own }, i) => (
          <li key={id} className="flex max-w-full items-center rounded-full bg-shade">
            <button
              type="button"
              onClick={() => {
                leaveButton();
                onUse(text);
              }}
              className="min-h-7 min-w-0 truncate rounded-full px-2.5 hover:bg-line"
              title={shared ? t('sharedPhrase', { text }) : text}
            >
              {wanted === '' && i < PHRASE_KEYS && (
                <kbd className="mr-1 rounded border border-line px-1 font-mono text-[0.72rem] text-soft">
                  {t('phraseKey', { number: i + 1 })}
                </kbd>
              )}
              {text}
            </button>
            {own && (
              <button
                type="button"
                aria-label={t('removePhrase', { text })}
                onClick={() => void remove(id)}
                className="rounded-full p-1 hover:bg-line"
              >
                <X aria-hidden className="size-3" />
              </button>
            )}
          </li>
        ))}
      </ul>
      {comment.trim().length >= 2 && (
        <p className="mt-1.5 flex flex-wrap gap-3">
          {(['keepPhrase', 'sharePhrase'] as const).map((act) => (
            <button
              key={act}
              type="button"
              onClick={() => void keep(act === 'sharePhrase')}
              className="inline-flex min-h-7 items-center gap-1 text-slate underline underline-offset-4"
            >
              <Plus aria-hidden className="size-3.5" /> {t(act)}
            </button>
          ))}
        </p>
      )}
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
    </details>
  );
}
