import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { words } from '../words';
import { PageHeading } from '../ui/PageHeading';

const t = words('signIn', {
  product: 'Clear Sitting',
  title: 'Staff sign in',
  email: 'E-mail',
  password: 'Password',
  go: 'Sign in',
});

const FIELD = 'mt-1 block min-h-11 w-full rounded-control border border-edge bg-card px-3';

/** The page of the staff's side that one was sent away from, or its first; never an address elsewhere. */
function backTo(search: URLSearchParams): string {
  const back = search.get('back') ?? '';
  return /^\/staff(?:[/?]|$)/.test(back) ? back : '/staff';
}

export function SignIn() {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const { busy, trouble, run } = useAction();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const signIn = () =>
    run(async () => {
      await post('/sign-in', { email, password });
      await navigate(backTo(search));
    });
  return (
    <main className="grid min-h-dvh place-items-center p-4">
      <form
        className="w-full max-w-[24rem]"
        onSubmit={(event) => {
          event.preventDefault();
          void signIn();
        }}
      >
        <p className="font-serif text-[1.25rem] font-semibold text-soft">{t('product')}</p>
        <PageHeading className="mb-5 font-serif text-[1.75rem] font-semibold">{t('title')}</PageHeading>
        <label className="mb-4 block">
          {t('email')}
          <input
            type="email"
            required
            autoComplete="username"
            value={email}
            onChange={(e) => setEmail(e.target.value)}
            className={FIELD}
          />
        </label>
        <label className="mb-5 block">
          {t('password')}
          <input
            type="password"
            required
            autoComplete="current-password"
            value={password}
            onChange={(e) => setPassword(e.target.value)}
            className={FIELD}
          />
        </label>
        {trouble && (
          <div className="mb-4">
            <Notice tone="trouble">{trouble}</Notice>
          </div>
        )}
        <Button type="submit" look="first" className="min-h-11 w-full" disabled={busy}>
          {t('go')}
        </Button>
      </form>
    </main>
  );
}
