import { useEffect, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { ApiProblem, messageOf } from '../api/client';
import { useCandidateText } from '../ui/CandidateFrame';
import { Notice } from '../ui/Notice';
import { DeskContext } from './DeskContext';
import { DeskFrame } from './DeskFrame';
import { createDesk, type DeskSession } from './deskStore';
import { openDesk } from './openDesk';
import { t } from './words';

/** Opens the desk behind a link: where the candidate was, with the clock having run on. */
export function DeskPage() {
  useCandidateText();
  const { link = '' } = useParams();
  const navigate = useNavigate();
  const [session, setSession] = useState<DeskSession | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let made: DeskSession | null = null;
    let current = true;
    const leave = () => void navigate(`/i/${link}`, { replace: true });
    const open = async () => {
      const opened = await openDesk(link);
      if (!current) return;
      made = createDesk(opened);
      made.store.subscribe((state) => state.receipt && leave());
      setSession(made);
    };
    open().catch((error: unknown) => {
      if (!current) return;
      if (error instanceof ApiProblem && error.status !== 0) leave();
      else setTrouble(messageOf(error));
    });
    return () => {
      current = false;
      made?.close();
    };
  }, [link, navigate]);
  if (trouble)
    return (
      <main className="mx-auto max-w-[40rem] p-8">
        <Notice tone="trouble">{trouble}</Notice>
      </main>
    );
  if (!session) return <main className="p-8 text-soft">{t('loading')}</main>;
  return (
    <DeskContext value={session.store}>
      <DeskFrame />
    </DeskContext>
  );
}
