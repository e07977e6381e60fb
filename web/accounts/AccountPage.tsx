import { useState } from 'react';
import type { PasswordChange } from '../../core/accounts/api';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { Card } from '../ui/Card';
import { Notice } from '../ui/Notice';
import { StaffPage } from '../ui/StaffPage';
import { useAction } from '../ui/useAsync';
import { words } from '../words';

const t = words('account', {
  title: 'Your account',
  password: 'Change your password',
  current: 'Current password',
  wanted: 'New password',
  again: 'New password, again',
  help: 'At least 12 characters. Several words are easier to remember than symbols.',
  ends: 'You stay signed in here. You are signed out in every other browser.',
  different: 'The two new passwords are different. Type them again.',
  change: 'Change the password',
  changed: 'Your password is changed. You are signed out in every other browser.',
  sessions: 'Other browsers',
  sessionsText: 'If you left a browser signed in, or lost a device, sign it out here.',
  signOut: 'Sign out in every other browser',
  signedOut: 'You are signed out in every other browser.',
});

const FIELD = 'mt-1 block min-h-11 w-full rounded-control border border-edge bg-card px-3';
const SHORTEST = 12;
const EMPTY = { current: '', wanted: '', again: '' };

function PasswordForm() {
  const [fields, setFields] = useState(EMPTY);
  const [note, setNote] = useState<'changed' | 'different' | null>(null);
  const { busy, trouble, run } = useAction();
  const change = () => {
    const { current, wanted, again } = fields;
    if (wanted !== again) return setNote('different');
    setNote(null);
    void run(async () => {
      await post('/me/password', { current, wanted } satisfies PasswordChange);
      setFields(EMPTY);
      setNote('changed');
    });
  };
  const field = (name: keyof typeof EMPTY, autoComplete: string) => (
    <label className="block">
      {t(name)}
      <input
        type="password"
        required
        minLength={name === 'current' ? undefined : SHORTEST}
        autoComplete={autoComplete}
        value={fields[name]}
        onChange={(event) => setFields({ ...fields, [name]: event.target.value })}
        className={FIELD}
      />
    </label>
  );
  return (
    <Card title={t('password')}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          change();
        }}
      >
        {field('current', 'current-password')}
        {field('wanted', 'new-password')}
        <p className="text-[0.9rem] text-soft">{t('help')}</p>
        {field('again', 'new-password')}
        {note && <Notice tone={note === 'changed' ? 'plain' : 'trouble'}>{t(note)}</Notice>}
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <p className="text-[0.9rem] text-soft">{t('ends')}</p>
        <Button type="submit" look="first" disabled={busy}>
          {t('change')}
        </Button>
      </form>
    </Card>
  );
}

function OtherBrowsers() {
  const [done, setDone] = useState(false);
  const { busy, trouble, run } = useAction();
  const end = () =>
    run(async () => {
      await post('/me/end-other-sessions');
      setDone(true);
    });
  return (
    <Card title={t('sessions')}>
      <p className="mb-3">{t('sessionsText')}</p>
      {done && <Notice tone="plain">{t('signedOut')}</Notice>}
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      {!done && (
        <Button disabled={busy} onClick={() => void end()}>
          {t('signOut')}
        </Button>
      )}
    </Card>
  );
}

/** What somebody of the staff changes of their own account. */
export function AccountPage() {
  return (
    <StaffPage title={t('title')}>
      <div className="max-w-[30rem] space-y-4">
        <PasswordForm />
        <OtherBrowsers />
      </div>
    </StaffPage>
  );
}
