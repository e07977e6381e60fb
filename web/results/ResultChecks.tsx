import { useState } from 'react';
import type { ChecksView } from '../../core/results/api';
import { get, post } from '../api/client';
import { Button } from '../ui/Button';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { showDay, showMoment } from '../ui/times';
import { useAction, useLoaded } from '../ui/useAsync';
import { words } from '../words';

const t = words('resultChecks', {
  title: 'Ask for a check',
  text: 'If you think that a question was marked wrongly, say which one and why. A member of staff reads your request and answers here. Marks can go up or down.',
  until: 'You can ask until {{day}}.',
  reason: 'Which question, and why',
  send: 'Send the request',
  asked: 'You asked on {{when}}',
  waiting: 'There is no answer yet. The answer will appear here, and you get it by e-mail.',
  answered: 'Answered on {{when}}',
  changed: 'Your marks were changed.',
  stands: 'Your marks do not change.',
});

interface Props {
  readonly zone: string;
  readonly view: ChecksView;
  readonly onView: (view: ChecksView) => void;
}

/** The requests of a candidate and what can still be asked; null while that is not known, or nothing can be. */
export function useChecks(): [ChecksView | null, (view: ChecksView) => void] {
  const [loaded, , replace] = useLoaded<ChecksView>('checks', () => get<ChecksView>('/result/checks'));
  const view = loaded.state === 'here' ? loaded.value : null;
  return [view && (view.checks.length > 0 || view.until !== null) ? view : null, replace];
}

/** The candidate asks for a check of the result; request and answer stay on record. */
export function ResultChecks({ zone, view, onView }: Props) {
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const { checks, until } = view;
  const send = () =>
    run(async () => {
      onView(await post<ChecksView>('/result/checks', { reason }));
      setReason('');
    });
  return (
    <section
      id="check"
      aria-label={t('title')}
      className="no-print mt-5 rounded-card border border-line bg-card px-5 py-4"
    >
      <h2 className="font-semibold">{t('title')}</h2>
      <ul className="space-y-3">
        {checks.map((check) => (
          <li key={check.id} className="mt-2 border-l-[3px] border-line pl-3">
            <p className="text-[0.85rem] text-soft">
              {t('asked', { when: showMoment(check.askedAt, zone) })}
            </p>
            <p className="whitespace-pre-wrap">{check.reason}</p>
            {check.answeredAt === null ? (
              <p className="text-soft">{t('waiting')}</p>
            ) : (
              <>
                <p className="mt-1 text-[0.85rem] text-soft">
                  {t('answered', { when: showMoment(check.answeredAt, zone) })}
                </p>
                <p className="whitespace-pre-wrap">{check.answer}</p>
                <p className="font-semibold">{t(check.changed ? 'changed' : 'stands')}</p>
              </>
            )}
          </li>
        ))}
      </ul>
      {until !== null && (
        <>
          <p className="mt-2 text-soft">
            {t('text')} {t('until', { day: showDay(until, zone) })}
          </p>
          <LongText
            label={t('reason')}
            value={reason}
            onChange={setReason}
            rows={3}
            most={2000}
            className="mt-2"
          />
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <Button disabled={busy || reason.trim().length < 2} onClick={() => void send()} className="mt-2">
            {t('send')}
          </Button>
        </>
      )}
    </section>
  );
}
