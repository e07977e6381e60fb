import { Dialog } from 'radix-ui';
import { useState } from 'react';
import type { AcceptPreview, AnswerCount } from '../../core/answers/api';
import { showMarks } from '../../core/marks';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { useFetched } from '../staff/queries';
import { useAction } from '../ui/useAsync';
import { t } from './words';

const SHOWN = 8;

function Changes({ preview }: { preview: AcceptPreview }) {
  const { changes, scripts, released } = preview;
  const across = changes.filter((one) => one.bandBefore !== one.bandAfter);
  const more = changes.length - SHOWN;
  return (
    <div role="status">
      <p>{changes.length === 0 ? t('none') : t('changes', { count: changes.length, scripts })}</p>
      <ul className="columns-2 pt-1 text-soft">
        {changes.slice(0, SHOWN).map(({ script, before, after, bandBefore, bandAfter }) => (
          <li key={script}>
            {t('change', { script, before: showMarks(before), after: showMarks(after) })}
            {bandBefore !== bandAfter && t('toBand', { band: bandAfter ?? '–' })}
          </li>
        ))}
      </ul>
      {more > 0 && <p className="text-soft">{t('more', { count: more })}</p>}
      {across.length > 0 && <p className="pt-1">{t('acrossBands', { count: across.length })}</p>}
      {released > 0 && <p className="pt-1">{t('releasedScripts', { count: released })}</p>}
    </div>
  );
}

interface Props {
  /** Of the part, under the API. */
  readonly path: string;
  readonly row: AnswerCount;
  readonly onDone: () => void;
}

function Question({ path, row, onDone }: Props) {
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const { component, answer } = row;
  const [preview] = useFetched(`${path} ${component} ${answer}`, () =>
    post<AcceptPreview>(`${path}/preview`, { component, answer }),
  );
  const accept = () =>
    run(async () => {
      await post(`${path}/accept`, { component, answer, reason });
      onDone();
    });
  return (
    <div className="space-y-3">
      <p>{t('acceptText')}</p>
      {preview.state === 'loading' && <p className="text-soft">{t('looking')}</p>}
      {preview.state === 'trouble' && <Notice tone="trouble">{preview.message}</Notice>}
      {preview.state === 'here' && <Changes preview={preview.value} />}
      <LongText label={t('reason')} value={reason} onChange={setReason} />
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <div className="flex justify-end gap-3">
        <Dialog.Close asChild>
          <Button>{t('keep')}</Button>
        </Dialog.Close>
        <Button
          look="first"
          disabled={busy || preview.state !== 'here' || reason.trim().length < 3}
          onClick={() => void accept()}
        >
          {t('accept')}
        </Button>
      </div>
    </div>
  );
}

/** One press for an answer that the key does not have: what would change is shown first, the reason is kept. */
export function AcceptAnswer({ path, row, onDone }: Props) {
  const [open, setOpen] = useState(false);
  const done = () => {
    setOpen(false);
    onDone();
  };
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button aria-label={t('acceptOf', { answer: row.answer })}>{t('accept')}</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-30 w-[min(36rem,calc(100vw-2rem))] -translate-1/2 rounded-card border border-line bg-card p-6 shadow-float"
        >
          <Dialog.Title className="pb-2 font-serif text-[1.35rem] font-semibold">
            {t('acceptTitle', { answer: row.answer })}
          </Dialog.Title>
          <Question path={path} row={row} onDone={done} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
