import { Suspense, useEffect, useState } from 'react';
import { later } from '../ui/later';
import { useLocation, useNavigate, useParams } from 'react-router';
import { ApiProblem, messageOf } from '../api/client';
import { useCandidateText } from '../ui/CandidateFrame';
import { Notice } from '../ui/Notice';
import { AtDesk } from './DeskContext';
import { DeskFrame } from './DeskFrame';
import { createDesk, type DeskSession } from './deskStore';
import { fetchBehind } from './fetchBehind';
import { openDesk } from './openDesk';
import { t } from './words';

const ElsewhereSheet = later(async () => (await import('./Covered')).ElsewhereSheet);

type Shown =
  | { readonly at: 'opening' }
  | { readonly at: 'elsewhere' }
  | { readonly at: 'desk'; readonly session: DeskSession }
  | { readonly at: 'trouble'; readonly message: string };

/** Opens the desk behind a link: where the candidate was, with the clock having run on. */
export function DeskPage() {
  useCandidateText();
  const { link = '' } = useParams();
  const navigate = useNavigate();
  const [shown, setShown] = useState<Shown>({ at: 'opening' });
  /** Counts the times the candidate took the desk from elsewhere. */
  const { state } = useLocation() as { state: { readonly takeOver?: boolean } | null };
  const [taken, setTaken] = useState(state?.takeOver ? 1 : 0);
  useEffect(() => {
    let made: DeskSession | null = null;
    let current = true;
    const leave = () => void navigate(`/i/${link}?go`, { replace: true });
    const open = async () => {
      const opening = await openDesk(link, taken > 0);
      if (!current) return;
      if ('elsewhere' in opening) {
        setShown({ at: 'elsewhere' });
        return;
      }
      made = createDesk(opening.opened);
      made.store.subscribe((state) => (state.receipt || state.gone) && leave());
      setShown({ at: 'desk', session: made });
      fetchBehind(opening.opened.paper);
    };
    open().catch((error: unknown) => {
      if (!current) return;
      if (error instanceof ApiProblem && error.status !== 0 && error.status < 500) leave();
      else setShown({ at: 'trouble', message: messageOf(error) });
    });
    return () => {
      current = false;
      made?.close();
    };
  }, [link, navigate, taken]);
  if (shown.at === 'trouble')
    return (
      <main className="mx-auto max-w-[40rem] p-8">
        <Notice tone="trouble">{shown.message}</Notice>
      </main>
    );
  if (shown.at === 'elsewhere')
    return (
      <Suspense>
        <ElsewhereSheet
          onTake={() => {
            setTaken((n) => n + 1);
            return Promise.resolve();
          }}
        />
      </Suspense>
    );
  if (shown.at === 'opening') return <main className="p-8 text-soft">{t('loading')}</main>;
  return (
    <AtDesk store={shown.session.store}>
      <DeskFrame />
    </AtDesk>
  );
}
