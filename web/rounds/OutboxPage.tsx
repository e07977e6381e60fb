import { Paperclip, SquareArrowOutUpRight } from 'lucide-react';
import { useSearchParams } from 'react-router';
import type { Letter, LetterRow } from '../../core/rounds/api';
import { writeLetter } from '../../core/letters/letters';
import { useMemo } from 'react';
import { post } from '../api/client';
import { DataTable, type Column } from '../staff/DataTable';
import { FailedJobs } from '../staff/FailedJobs';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { StaffPage } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { useAction } from '../ui/useAsync';
import { say } from '../words';
import { t } from './words';

function LetterView({ id }: { readonly id: number }) {
  const [loaded, , replace] = useFetched<Letter>(`/letters/${id}`);
  const { busy, trouble, run } = useAction();
  if (loaded.state === 'loading') return null;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  const newLink = () => run(async () => replace(await post<Letter>(`/letters/${id}/new-link`)));
  const letter = loaded.value;
  return (
    <article className="rounded-card border border-line bg-card p-5">
      <p className="text-soft">{letter.to}</p>
      <h2 className="mb-3 font-serif text-[1.25rem] font-semibold">{say(letter.subject)}</h2>
      <div className="mb-4 flex flex-wrap items-center gap-3">
        {letter.brings === 'link' && letter.secret && (
          <a
            href={letter.secret}
            target="_blank"
            rel="noreferrer"
            className="inline-flex min-h-10 items-center gap-2 rounded-control bg-kelp px-3.5 font-semibold text-on hover:bg-kelp-deep"
          >
            <SquareArrowOutUpRight aria-hidden className="size-4" /> {t('asCandidate')}
          </a>
        )}
        {letter.brings && !letter.secret && letter.state === 'not sent' && (
          <>
            <Button disabled={busy} onClick={() => void newLink()}>
              {t(letter.brings === 'code' ? 'makeCode' : 'makeLink')}
            </Button>
            {letter.facts.kind === 'invitation' && (
              <span className="max-w-[34ch] text-[0.9rem] text-soft">{t('makeLinkEnds')}</span>
            )}
          </>
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
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <pre tabIndex={0} className="overflow-x-auto border-t border-line pt-4 font-sans whitespace-pre-wrap">
        {writeLetter(letter.facts, letter.secret, say)}
      </pre>
    </article>
  );
}

const columnsOf = (open: (id: number) => void): readonly Column<LetterRow>[] => [
  {
    id: 'to',
    cell: (letter) => (
      <button
        type="button"
        aria-label={t('openLetter', { to: letter.to })}
        onClick={() => open(letter.id)}
        className="block max-w-72 text-left font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
      >
        {letter.to}
        <br />
        <span className="inline-block max-w-full truncate text-[0.85rem] font-normal text-soft">
          {say(letter.subject)}
        </span>
      </button>
    ),
  },
  { id: 'subject', cell: (letter) => say(letter.subject) },
  { id: 'at', cell: (letter) => <span className="whitespace-nowrap">{showShort(letter.at)}</span> },
  { id: 'state', cell: (letter) => <Pill>{t(`state ${letter.state}`)}</Pill> },
];

const HIDDEN = ['subject'];

/** Letters, newest first; the newest lies open until another is chosen. */
export function OutboxPage() {
  const [query, setQuery] = useSearchParams();
  const columns = useMemo(
    () =>
      columnsOf((id) =>
        setQuery((before) => {
          const next = new URLSearchParams(before);
          next.set('letter', String(id));
          return next;
        }),
      ),
    [setQuery],
  );
  return (
    <StaffPage title={t('outbox')}>
      <FailedJobs />
      <DataTable
        path="/letters"
        label={t('outbox')}
        columns={columns}
        keyOf={(letter) => letter.id}
        empty={t('noLetters')}
        hiddenAtFirst={HIDDEN}
        filters={(['waiting', 'sent', 'failed'] as const).map((value) => ({
          value,
          words: t(`letter ${value}`),
        }))}
        beside={([newest]) => {
          const id = Number(query.get('letter')) || newest?.id;
          return id && <LetterView key={id} id={id} />;
        }}
      />
    </StaffPage>
  );
}
