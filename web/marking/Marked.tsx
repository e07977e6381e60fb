import { Dialog } from 'radix-ui';
import { useState } from 'react';
import type { MarkedScript } from '../../core/marking/api';
import { showMarks } from '../../core/marks';
import { get } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useLoaded } from '../ui/useAsync';
import { t } from './words';

const matches = ({ script, total, words }: MarkedScript, search: string): boolean =>
  script.toLowerCase().includes(search) ||
  showMarks(total) === search ||
  String(total / 100) === search.replace(',', '.') ||
  words.toLowerCase().includes(search);

interface ListProps {
  readonly path: string;
  /** When the mark scheme was last added to; null where it was not. */
  readonly added: number | null;
  readonly onTakeBack: (task: number) => void;
}

function List({ path, added, onTakeBack }: ListProps) {
  const [loaded] = useLoaded(path, () => get<MarkedScript[]>(`${path}/marked`));
  const [search, setSearch] = useState('');
  const [asked, setAsked] = useState<number | null>(null);
  const [onlyBefore, setOnlyBefore] = useState(false);
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  if (loaded.state === 'loading') return <p className="text-soft">{t('markedLoading')}</p>;
  const wanted = search.trim().toLowerCase();
  const isBefore = ({ at }: MarkedScript) => added !== null && at < added;
  const found = loaded.value.filter(
    (one) => (wanted === '' || matches(one, wanted)) && (!onlyBefore || isBefore(one)),
  );
  return (
    <>
      <input
        type="search"
        value={search}
        aria-label={t('markedSearch')}
        placeholder={t('markedSearch')}
        onChange={(event) => setSearch(event.target.value)}
        className="min-h-10 w-full rounded-control border border-edge bg-card px-3"
      />
      {loaded.value.some(isBefore) && (
        <label className="flex min-h-9 items-center gap-2 pt-2 text-[0.9rem]">
          <input
            type="checkbox"
            checked={onlyBefore}
            onChange={(event) => setOnlyBefore(event.target.checked)}
          />
          {t('onlyBefore')}
        </label>
      )}
      <p role="status" className="pt-2 text-[0.88rem] text-soft">
        {t('markedFound', { count: found.length })}
      </p>
      <ul className="max-h-[50vh] divide-y divide-line/70 overflow-y-auto" tabIndex={-1}>
        {found.map(({ task, script, total, words, at }) => (
          <li key={task} className="py-1.5">
            <div className="flex items-center gap-4">
              <span className="font-mono">{script}</span>
              <span className="flex-1">{showMarks(total)}</span>
              <button
                type="button"
                aria-label={t('markAgainScript', { script })}
                onClick={() => setAsked(task)}
                className="min-h-8 text-[0.88rem] text-slate underline underline-offset-4"
              >
                {t('markAgain')}
              </button>
            </div>
            {added !== null && at < added && (
              <p className="text-[0.85rem] text-marigold">{t('markedBefore')}</p>
            )}
            {words !== '' && <p className="truncate text-[0.85rem] text-soft">{words}</p>}
            {asked === task && (
              <div className="my-1 rounded-control bg-shade px-3 py-2">
                <p>{t('changeText', { script })}</p>
                <div className="mt-2 flex gap-3">
                  <Button look="first" onClick={() => onTakeBack(task)}>
                    {t('changeAct')}
                  </Button>
                  <Button onClick={() => setAsked(null)}>{t('changeKeep')}</Button>
                </div>
              </div>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

interface Props extends ListProps {
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
}

/** All scripts of the item that this assessor has marked, to be found again and changed; at hand at any time. */
export function Marked({ open, onOpen, path, added, onTakeBack }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-30 w-[min(36rem,calc(100vw-2rem))] -translate-1/2 rounded-card border border-line bg-card p-6 shadow-float"
        >
          <Dialog.Title className="pb-3 font-serif text-[1.35rem] font-semibold">
            {t('markedByYou')}
          </Dialog.Title>
          <List
            path={path}
            added={added}
            onTakeBack={(task) => {
              onOpen(false);
              onTakeBack(task);
            }}
          />
          <div className="flex justify-end pt-3">
            <Dialog.Close asChild>
              <Button>{t('close')}</Button>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
