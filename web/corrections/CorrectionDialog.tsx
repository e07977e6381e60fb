import { useEffect, useState, type ReactNode } from 'react';
import type { CorrectionPreview, ResultMove, RoundMoves, WantedChange } from '../../core/corrections/api';
import { showMarks } from '../../core/marks';
import { ApiProblem, messageOf, post } from '../api/client';
import { Button } from '../ui/Button';
import { DialogActs, DialogCard } from '../ui/DialogCard';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { t } from './words';

const SHOWN = 8;

function Moved({ script, before, after, kept, bandBefore, bandAfter }: ResultMove) {
  return (
    <li>
      {t('move', { script, before: showMarks(before), after: showMarks(after) })}
      {kept && t('staysAt')}
      {bandBefore !== bandAfter && t('toBand', { band: bandAfter ?? t('noBand') })}
    </li>
  );
}

/** What a correction does in one round, in the order in which one asks: how many, by how much, who is told. */
function RoundChanges({ round }: { readonly round: RoundMoves }) {
  const { moves, moved, across, kept, scripts, of } = round;
  const more = moved + kept - Math.min(SHOWN, moves.length);
  const nothing = moved === 0 && kept === 0 && across === 0;
  return (
    <section className="rounded-control border border-line px-4 py-3">
      <h3 className="font-semibold break-words">{round.title}</h3>
      {of.before !== of.after && (
        <p>{t('lowered', { before: showMarks(of.before), after: showMarks(of.after) })}</p>
      )}
      {round.bandsAnew && <p className="text-marigold">{t('bandsAnew')}</p>}
      {nothing ? (
        <p>{t('none')}</p>
      ) : (
        <>
          <p>
            {[
              t('moved', { count: moved, scripts }),
              ...(across > 0 ? [t('across', { count: across })] : []),
              ...(kept > 0 ? [t('kept', { count: kept })] : []),
            ].join(' ')}
          </p>
          <ul className="columns-2 pt-1 text-[0.92rem] text-soft">
            {moves.slice(0, SHOWN).map((move) => (
              <Moved key={move.script} {...move} />
            ))}
          </ul>
          {more > 0 && <p className="text-[0.92rem] text-soft">{t('more', { count: more })}</p>}
        </>
      )}
      <p className="pt-1 text-[0.92rem]">{t(round.released ? 'told' : 'notReleased')}</p>
    </section>
  );
}

type Preview =
  | { readonly state: 'none' | 'loading' }
  | { readonly state: 'trouble'; readonly message: string }
  | { readonly state: 'here'; readonly value: CorrectionPreview };

interface BodyProps {
  /** Of the part, under the API. */
  readonly path: string;
  readonly text: string;
  /** The change that is wanted; null while a form says none. */
  readonly change: WantedChange | null;
  readonly form?: ReactNode;
  readonly onDone: () => void;
}

function Body({ path, text, change, form, onDone }: BodyProps) {
  const [reason, setReason] = useState('');
  const [asked, setAsked] = useState(form ? 0 : 1);
  const [preview, setPreview] = useState<Preview>({ state: 'none' });
  const [stale, setStale] = useState(false);
  const { busy, trouble, run } = useAction();
  const wanted = change === null ? null : JSON.stringify(change);
  // A form is shown first: what it changes is looked for when that is asked.
  useEffect(() => setPreview({ state: 'none' }), [wanted]);
  useEffect(() => {
    if (asked === 0 || wanted === null) return;
    let current = true;
    setPreview({ state: 'loading' });
    post<CorrectionPreview>(`${path}/preview`, { change: JSON.parse(wanted) as WantedChange }).then(
      (value) => current && setPreview({ state: 'here', value }),
      (error: unknown) => current && setPreview({ state: 'trouble', message: messageOf(error) }),
    );
    return () => {
      current = false;
    };
    // Another change in the form waits until it is asked for.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [asked, path]);
  const look = () => {
    setStale(false);
    setAsked(asked + 1);
  };
  const apply = () =>
    run(async () => {
      if (preview.state !== 'here' || wanted === null) return;
      try {
        await post(path, { change: JSON.parse(wanted) as WantedChange, reason, seen: preview.value.seen });
      } catch (error) {
        if (error instanceof ApiProblem && error.code === 'preview-stale') {
          setStale(true);
          setPreview({ state: 'none' });
        }
        throw error;
      }
      onDone();
    });
  const touched = preview.state === 'here' ? preview.value.rounds.filter((one) => one.scripts > 0) : [];
  return (
    <div className="space-y-3">
      <p>{text}</p>
      {form}
      {(form || stale) && preview.state === 'none' && (
        <Button disabled={wanted === null} onClick={look}>
          {t(stale ? 'again' : 'show')}
        </Button>
      )}
      <div role="status" className="max-h-[42vh] space-y-2 overflow-y-auto">
        {preview.state === 'loading' && <p className="text-soft">{t('looking')}</p>}
        {preview.state === 'here' && touched.length === 0 && <p>{t('none')}</p>}
        {touched.map((round) => (
          <RoundChanges key={round.round} round={round} />
        ))}
      </div>
      {preview.state === 'trouble' && <Notice tone="trouble">{preview.message}</Notice>}
      <LongText label={t('reason')} value={reason} onChange={setReason} />
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <DialogActs
        keep={t('keep')}
        act={t('apply')}
        disabled={busy || preview.state !== 'here' || reason.trim().length < 3}
        onAct={() => void apply()}
      />
    </div>
  );
}

interface Props extends Omit<BodyProps, 'form'> {
  readonly act: string;
  readonly actLabel?: string;
  readonly title: string;
  readonly form?: ReactNode;
  /** The form begins anew. */
  readonly onOpen?: () => void;
}

/** A correction in three steps on one page: what is wanted, what it changes, and why. Nothing is done unseen. */
export function CorrectionDialog({ act, actLabel, title, onOpen, onDone, ...body }: Props) {
  const [open, setOpen] = useState(false);
  const openOrClose = (next: boolean) => {
    setOpen(next);
    if (next) onOpen?.();
  };
  const done = () => {
    setOpen(false);
    onDone();
  };
  return (
    <DialogCard
      open={open}
      onOpen={openOrClose}
      trigger={<Button aria-label={actLabel}>{act}</Button>}
      title={title}
    >
      <Body {...body} onDone={done} />
    </DialogCard>
  );
}
