import { Paperclip, SquareArrowOutUpRight } from 'lucide-react';
import { useSearchParams } from 'react-router';
import type { Letter, LetterRow } from '../../core/rounds/api';
import { writeLetter } from '../../core/letters/letters';
import { get } from '../api/client';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { StaffPage } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { useLoaded } from '../ui/useAsync';
import { say } from '../words';
import { t } from './words';

function LetterView({ id }: { id: number }) {
  const [loaded] = useLoaded(`letter ${id}`, () => get<Letter>(`/letters/${id}`));
  if (loaded.state === 'loading') return null;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  const letter = loaded.value;
  return (
    <article className="rounded-card border border-line bg-card p-5">
      <p className="text-soft">{letter.to}</p>
      <h2 className="mb-3 font-serif text-[1.25rem] font-semibold">{say(letter.subject)}</h2>
      <div className="mb-4 flex flex-wrap items-center gap-3">
        {letter.link && (
          <a
            href={letter.link}
            target="_blank"
            rel="noreferrer"
            className="inline-flex min-h-10 items-center gap-2 rounded-control bg-kelp px-3.5 font-semibold text-white hover:bg-kelp-deep"
          >
            <SquareArrowOutUpRight aria-hidden className="size-4" /> {t('asCandidate')}
          </a>
        )}
        {letter.attachments.map((name) => (
          <a
            key={name}
            href={`/api/letters/${id}/attachments/${name}`}
            className="inline-flex min-h-10 items-center gap-1.5 text-slate underline underline-offset-4"
          >
            <Paperclip aria-hidden className="size-4" /> {name}
          </a>
        ))}
      </div>
      <pre tabIndex={0} className="overflow-x-auto border-t border-line pt-4 font-sans whitespace-pre-wrap">
        {writeLetter(letter.facts, letter.link, say)}
      </pre>
    </article>
  );
}

export function OutboxPage() {
  const [loaded] = useLoaded('letters', () => get<LetterRow[]>('/letters'));
  const [query, setQuery] = useSearchParams();
  const open = Number(query.get('letter')) || null;
  return (
    <StaffPage title={t('outbox')} loaded={loaded}>
      {(letters) =>
        letters.length === 0 ? (
          <p className="text-soft">{t('noLetters')}</p>
        ) : (
          <div className="grid items-start gap-5 desk:grid-cols-[22rem_minmax(0,1fr)]">
            <ul className="rounded-card border border-line bg-card desk:max-h-[calc(100dvh-6rem)] desk:overflow-y-auto">
              {letters.map((letter) => (
                <li key={letter.id} className="border-b border-line/70 last:border-0">
                  <button
                    type="button"
                    aria-label={t('openLetter', { to: letter.to })}
                    aria-current={open === letter.id}
                    onClick={() => setQuery({ letter: String(letter.id) })}
                    className={`block w-full px-4 py-2.5 text-left hover:bg-shade ${open === letter.id ? 'bg-wash' : ''}`}
                  >
                    <span className="flex items-center justify-between gap-2">
                      <span className="truncate font-semibold">{letter.to}</span>
                      <Pill>{t(`letter ${letter.state}`)}</Pill>
                    </span>
                    <span className="flex justify-between gap-2 text-[0.88rem] text-soft">
                      <span className="truncate">{say(letter.subject)}</span>
                      <span className="whitespace-nowrap">{showShort(letter.at)}</span>
                    </span>
                  </button>
                </li>
              ))}
            </ul>
            {open ? <LetterView id={open} /> : <p className="text-soft">{t('pick')}</p>}
          </div>
        )
      }
    </StaffPage>
  );
}
