import { say } from '../words';
import { message } from '../../core/messages/message';
import { MailPlus } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Link } from 'react-router';
import type { AidName } from '../../core/kit/aids';
import type { CheckName } from '../../core/arrival/checks';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { t } from './words';

const FIELD = 'mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3';
const WAIVED: readonly CheckName[] = ['camera', 'sound', 'screen', 'full screen'];
const BLANK = { name: '', email: '', extra: '0', breaks: '0', zone: '', reason: '' };

/** What is opened by arrangement; the others are in every section that its author did not close. */
const ARRANGED = ['read-aloud', 'reading-slot', 'lens', 'calculator'] as const satisfies readonly AidName[];

/** Name, e-mail and extra time; the letter stands in the outbox at once. */
export function InviteForm({ round, onInvited }: { round: number; onInvited: () => void }) {
  const [fields, setFields] = useState(BLANK);
  const [waived, setWaived] = useState<CheckName[]>([]);
  const [done, setDone] = useState<{ email: string; letter: number } | null>(null);
  const [transcripts, setTranscripts] = useState(false);
  const [aids, setAids] = useState<AidName[]>([]);
  const { busy, trouble, run } = useAction();
  const set = (name: keyof typeof BLANK) => (event: React.ChangeEvent<HTMLInputElement>) => {
    setDone(null);
    setFields({ ...fields, [name]: event.target.value });
  };
  const invite = () =>
    run(async () => {
      const { name, email, extra, breaks, zone } = fields;
      const body = {
        name,
        email,
        reference: null,
        extraPercent: Number(extra),
        timeZone: zone || null,
        arrangements: {
          breakMinutes: Number(breaks),
          transcripts,
          aids,
          waivedChecks: waived,
          reason: fields.reason.trim(),
        },
      };
      const { letter } = await post<{ letter: number }>(`/rounds/${round}/invitations`, body);
      setDone({ email, letter });
      setFields(BLANK);
      setWaived([]);
      setTranscripts(false);
      setAids([]);
      onInvited();
    });
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button look="first">
          <MailPlus aria-hidden className="size-[1.1rem]" /> {t('invite')}
        </Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-30 w-[min(28rem,calc(100vw-2rem))] -translate-1/2 rounded-card border border-line bg-card p-6 shadow-float"
        >
          <Dialog.Title className="mb-4 font-serif text-[1.35rem] font-semibold">
            {t('inviteTitle')}
          </Dialog.Title>
          <form
            className="space-y-3.5"
            onSubmit={(event) => {
              event.preventDefault();
              void invite();
            }}
          >
            <label className="block">
              {t('name')}
              <input
                required
                minLength={2}
                maxLength={100}
                value={fields.name}
                onChange={set('name')}
                className={FIELD}
              />
            </label>
            <label className="block">
              {t('email')}
              <input
                required
                type="email"
                maxLength={200}
                value={fields.email}
                onChange={set('email')}
                className={FIELD}
              />
            </label>
            <div className="flex gap-4">
              <label className="block">
                {t('extra')}
                <input
                  required
                  type="number"
                  min={0}
                  max={200}
                  value={fields.extra}
                  onChange={set('extra')}
                  className={`${FIELD} w-28`}
                />
              </label>
              <label className="block">
                {t('breakMinutes')}
                <input
                  required
                  type="number"
                  min={0}
                  max={120}
                  value={fields.breaks}
                  onChange={set('breaks')}
                  className={`${FIELD} w-28`}
                />
              </label>
            </div>
            <label className="flex min-h-10 items-center gap-2">
              <input
                type="checkbox"
                checked={transcripts}
                onChange={(event) => setTranscripts(event.target.checked)}
                className="size-5 accent-kelp"
              />
              {t('transcripts')}
            </label>
            <fieldset className="flex flex-wrap gap-x-4">
              <legend>{t('arrangedAids')}</legend>
              {ARRANGED.map((name) => (
                <label key={name} className="flex min-h-9 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={aids.includes(name)}
                    onChange={(event) =>
                      setAids(event.target.checked ? [...aids, name] : aids.filter((one) => one !== name))
                    }
                    className="size-5"
                  />
                  {say(message(`aid.${name}`))}
                </label>
              ))}
            </fieldset>
            <label className="block">
              {t('candidateZone')}
              <input
                list="time-zones"
                placeholder={t('roundZone')}
                value={fields.zone}
                onChange={set('zone')}
                className={FIELD}
              />
              <datalist id="time-zones">
                {Intl.supportedValuesOf('timeZone').map((zone) => (
                  <option key={zone} value={zone} />
                ))}
              </datalist>
            </label>
            <fieldset>
              <legend>{t('waived')}</legend>
              <div className="flex flex-wrap gap-x-5">
                {WAIVED.map((name) => (
                  <label key={name} className="flex min-h-9 items-center gap-2">
                    <input
                      type="checkbox"
                      checked={waived.includes(name)}
                      onChange={(event) =>
                        setWaived((all) =>
                          event.target.checked ? [...all, name] : all.filter((w) => w !== name),
                        )
                      }
                      className="size-4 accent-kelp"
                    />
                    {name}
                  </label>
                ))}
              </div>
            </fieldset>
            {waived.length > 0 && (
              <label className="block">
                {t('waivedReason')}
                <input
                  required
                  maxLength={300}
                  value={fields.reason}
                  onChange={set('reason')}
                  className={FIELD}
                />
              </label>
            )}
            {trouble && <Notice tone="trouble">{trouble}</Notice>}
            {done && (
              <Notice tone="plain">
                {t('inviteDone', { email: done.email })}{' '}
                <Link
                  to={`/staff/outbox?letter=${done.letter}`}
                  className="text-slate underline underline-offset-4"
                >
                  {t('inviteRead')}
                </Link>
              </Notice>
            )}
            <div className="flex justify-end gap-3 pt-1">
              <Dialog.Close asChild>
                <Button>{t('cancel')}</Button>
              </Dialog.Close>
              <Button type="submit" look="first" disabled={busy}>
                {t('inviteSend')}
              </Button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
