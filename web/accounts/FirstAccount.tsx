import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { words } from '../words';
import { PageHeading } from '../ui/PageHeading';

const t = words('firstAccount', {
  product: 'Clear Sitting',
  title: 'The first account',
  text: 'There is no account yet. This account is for a coordinator, who imports papers, creates rounds and invites people.',
  name: 'Your name',
  email: 'E-mail',
  password: 'Password',
  passwordHelp: 'At least 12 characters. Several words are easier to remember than symbols.',
  make: 'Create the account',
});

const FIELD = 'mt-1 block min-h-11 w-full rounded-control border border-edge bg-card px-3';
const SHORTEST = 12;

/** Opened by the link in the server's log, once, where there is no account yet. */
export function FirstAccount() {
  const { secret = '' } = useParams();
  const [fields, setFields] = useState({ name: '', email: '', password: '' });
  const { busy, trouble, run } = useAction();
  const navigate = useNavigate();
  const make = () =>
    run(async () => {
      const { email, password } = fields;
      await post('/first-account', { ...fields, secret });
      await post('/sign-in', { email, password });
      await navigate('/staff');
    });
  const field = (name: keyof typeof fields, type: string, autoComplete: string) => ({
    type,
    autoComplete,
    required: true,
    className: FIELD,
    value: fields[name],
    onChange: (event: React.ChangeEvent<HTMLInputElement>) =>
      setFields({ ...fields, [name]: event.target.value }),
  });
  return (
    <main className="grid min-h-dvh place-items-center p-4">
      <form
        className="w-full max-w-[26rem] space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <p className="font-serif text-[1.25rem] font-semibold text-soft">{t('product')}</p>
        <PageHeading className="font-serif text-[1.75rem] font-semibold">{t('title')}</PageHeading>
        <p>{t('text')}</p>
        <label className="block">
          {t('name')}
          <input {...field('name', 'text', 'name')} minLength={2} />
        </label>
        <label className="block">
          {t('email')}
          <input {...field('email', 'email', 'username')} />
        </label>
        <label className="block">
          {t('password')}
          <input {...field('password', 'password', 'new-password')} minLength={SHORTEST} />
          <span className="mt-1 block text-[0.9rem] text-soft">{t('passwordHelp')}</span>
        </label>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <Button type="submit" look="first" className="min-h-11 w-full" disabled={busy}>
          {t('make')}
        </Button>
      </form>
    </main>
  );
}
