import '../../core/kinds/candidateKinds';
import { QueryClientProvider, useQuery } from '@tanstack/react-query';
import {
  CalendarDays,
  ChartColumn,
  Files,
  LogOut,
  Menu,
  Mails,
  Radio,
  Signature,
  Stamp,
  UsersRound,
} from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, Navigate, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import type { Role, StaffMember } from '../../core/rounds/api';
import { ApiProblem, get, post, SIGNED_OUT } from '../api/client';
import { Button } from '../ui/Button';
import { Guard, pageInstead } from '../ui/Guard';
import { Notice } from '../ui/Notice';
import type { WatchRoundRow } from '../../core/watch/api';
import { LIST_MS, makeQueryClient, useFetched } from '../staff/queries';
import { useAction } from '../ui/useAsync';
import { staffErrors } from '../../core/messages/staffErrors.en';
import { Operations } from '../staff/Operations';
import { Palette } from '../staff/Palette';
import { words } from '../words';
import { StaffContext } from './staffContext';

words('error', staffErrors);
const t = words('staff', {
  product: 'Clear Sitting',
  areas: 'Areas',
  rounds: 'Rounds',
  papers: 'Papers',
  importPaper: 'Import a paper',
  newRound: 'Create a round',
  outbox: 'Outbox',
  watch: 'Watch',
  marking: 'Marking',
  signOff: 'Sign-off',
  results: 'Results',
  accounts: 'Accounts',
  account: 'Your account',
  signOut: 'Sign out',
  signedOut: 'You are not signed in any more. What you have written is kept on this device.',
  signInAgain: 'Sign in, and come back to this page',
  hands_one: '{{count}} hand raised',
  hands_other: '{{count}} hands raised',
  menu: 'Menu',
  loading: 'Opening …',
  again: 'Try again',
});

const AREAS: { to: string; name: Parameters<typeof t>[0]; Icon: typeof Stamp; roles: Role[] }[] = [
  { to: '/staff/rounds', name: 'rounds', Icon: CalendarDays, roles: ['coordinator'] },
  { to: '/staff/papers', name: 'papers', Icon: Files, roles: ['coordinator'] },
  { to: '/staff/outbox', name: 'outbox', Icon: Mails, roles: ['coordinator'] },
  { to: '/staff/watch', name: 'watch', Icon: Radio, roles: ['invigilator', 'coordinator'] },
  { to: '/staff/marking', name: 'marking', Icon: Stamp, roles: ['assessor', 'lead'] },
  { to: '/staff/sign-off', name: 'signOff', Icon: Signature, roles: ['lead'] },
  { to: '/staff/results', name: 'results', Icon: ChartColumn, roles: ['coordinator', 'lead'] },
  { to: '/staff/accounts', name: 'accounts', Icon: UsersRound, roles: ['coordinator'] },
];

export const areasOf = (member: StaffMember) =>
  AREAS.filter((area) => area.roles.some((r) => member.roles.includes(r)));

const ACTIONS = [
  { to: '/staff/papers/import', name: 'importPaper' },
  { to: '/staff/rounds/new', name: 'newRound' },
] as const;

/** Hands raised in all rounds that one watches over, so that they are seen from every page. */
function useHands(member: StaffMember): number {
  const watches = areasOf(member).some(({ name }) => name === 'watch');
  const { data } = useQuery({
    queryKey: ['/watch'],
    queryFn: () => get<WatchRoundRow[]>('/watch'),
    enabled: watches,
    refetchInterval: LIST_MS,
  });
  return (data ?? []).reduce((sum, { hands }) => sum + hands, 0);
}

function Side({ member }: { member: StaffMember }) {
  const coordinates = member.roles.includes('coordinator');
  const hands = useHands(member);
  /** In a narrow window the areas wait behind a button, so that the page has the width. */
  const { pathname } = useLocation();
  const [openAt, setOpenAt] = useState<string | null>(null);
  const open = openAt === pathname;
  const setOpen = (next: boolean) => setOpenAt(next ? pathname : null);
  const navigate = useNavigate();
  const { busy, trouble, run } = useAction();
  const signOut = () =>
    run(async () => {
      await post('/sign-out');
      await navigate('/sign-in');
    });
  return (
    <aside
      aria-label={t('product')}
      data-open={open ? '' : undefined}
      className="group no-print flex w-[168px] flex-none flex-col border-r border-line bg-shade px-3 py-4 max-[860px]:w-full max-[860px]:border-r-0 max-[860px]:border-b max-[860px]:py-2"
    >
      <div className="flex items-center justify-between">
        <p className="px-2.5 pb-3 font-serif text-[1.15rem] font-semibold max-[860px]:pb-0">{t('product')}</p>
        <Button className="min-[861px]:hidden" aria-expanded={open} onClick={() => setOpen(!open)}>
          <Menu aria-hidden className="size-4" /> {t('menu')}
        </Button>
      </div>
      <div className="flex flex-1 flex-col max-[860px]:not-group-data-open:hidden">
        <Palette
          pages={areasOf(member).map(({ to, name }) => ({ to, words: t(name) }))}
          actions={coordinates ? ACTIONS.map(({ to, name }) => ({ to, words: t(name) })) : []}
          coordinates={coordinates}
        />
        <nav aria-label={t('areas')} className="flex flex-col gap-0.5">
          {areasOf(member).map(({ to, name, Icon }) => (
            <NavLink
              key={to}
              to={to}
              className={({ isActive }) =>
                `flex min-h-10 items-center gap-2.5 rounded-control border px-2.5 ${isActive ? 'border-line bg-card font-semibold text-ink' : 'border-transparent text-soft hover:text-ink'}`
              }
            >
              <Icon aria-hidden className="size-[1.1rem]" /> {t(name)}
              {name === 'watch' && hands > 0 && (
                <span className="ml-auto rounded-full bg-marigold-wash px-2 text-[0.82rem] font-semibold text-marigold">
                  <span aria-hidden>{hands}</span>
                  <span className="sr-only">{t('hands', { count: hands })}</span>
                </span>
              )}
            </NavLink>
          ))}
        </nav>
        <div className="flex-1" />
        <NavLink
          to="/staff/account"
          title={t('account')}
          className="rounded-control px-2.5 py-1 text-[0.85rem] underline decoration-line underline-offset-4 hover:decoration-ink"
        >
          {member.name}
        </NavLink>
        <p className="px-2.5 text-[0.8rem] text-soft">{member.roles.join(', ')}</p>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <button
          type="button"
          disabled={busy}
          onClick={() => void signOut()}
          className="mt-1 flex min-h-9 items-center gap-2 rounded-control px-2.5 text-[0.9rem] text-soft hover:text-ink"
        >
          <LogOut aria-hidden className="size-4" /> {t('signOut')}
        </button>
      </div>
    </aside>
  );
}

/** Who is signed in; null where nobody is. */
const whoAmI = () =>
  get<StaffMember>('/me').catch((problem: unknown) => {
    if (problem instanceof ApiProblem && problem.status === 401) return null;
    throw problem;
  });

function Frame() {
  const { pathname, search } = useLocation();
  const [loaded, reload] = useFetched('/me', whoAmI);
  const [signedOut, setSignedOut] = useState(false);
  useEffect(() => {
    const told = () => setSignedOut(true);
    window.addEventListener(SIGNED_OUT, told);
    return () => window.removeEventListener(SIGNED_OUT, told);
  }, []);
  const signIn = `/sign-in?back=${encodeURIComponent(pathname + search)}`;
  useEffect(() => {
    document.documentElement.classList.add('staff');
    return () => document.documentElement.classList.remove('staff');
  }, []);
  if (loaded.state === 'loading') return <p className="p-6 text-soft">{t('loading')}</p>;
  // Who cannot be reached has not sent anybody away.
  if (loaded.state === 'trouble')
    return (
      <main className="mx-auto max-w-[36rem] space-y-3 p-6">
        <Notice tone="trouble">{loaded.message}</Notice>
        <Button onClick={reload}>{t('again')}</Button>
      </main>
    );
  if (!loaded.value) return <Navigate to={signIn} replace />;
  return (
    <StaffContext value={loaded.value}>
      <div className="flex h-dvh max-[860px]:h-auto max-[860px]:min-h-dvh max-[860px]:flex-col">
        <Side member={loaded.value} />
        <div className="flex min-w-0 flex-1 flex-col">
          {loaded.value.roles.includes('coordinator') && <Operations />}
          {signedOut && (
            <div className="px-4 pt-3">
              <Notice tone="care">
                {t('signedOut')}{' '}
                <Link to={signIn} className="text-slate underline underline-offset-4">
                  {t('signInAgain')}
                </Link>
              </Notice>
            </div>
          )}
          <div className="flex min-h-0 flex-1">
            <Guard holds={pathname} instead={pageInstead}>
              <Outlet />
            </Guard>
          </div>
        </div>
      </div>
    </StaffContext>
  );
}

/** The slim column of areas, only those of one's roles, and the page beside it. */
export function StaffFrame() {
  // Of this sign-in alone: whoever signs in next is shown nothing of this person's.
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <Frame />
    </QueryClientProvider>
  );
}
