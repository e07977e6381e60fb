import { AlertDialog } from 'radix-ui';
import { openQuestions, stillDemanded, type QuestionProgress } from '../../core/sittings/progress';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { showList } from '../ui/times';
import { useAction } from '../ui/useAsync';
import { useDesk } from './DeskContext';
import { marksWords } from './Rail';
import { SavedLine } from './SavedLine';
import { t } from './words';

const OPEN = {
  unopened: 'openUnopened',
  'looked at': 'openLookedAt',
  'part done': 'openPartDone',
  done: 'openPartDone',
} as const;

/** “Question 9, worth 12 marks, is unopened.” */
const openWords = ({ question, state }: QuestionProgress) =>
  t(OPEN[state], { number: question.number, worth: marksWords(question.marks) });

/** One confirmation that names what is left open, and two buttons with verbs. */
export function HandIn() {
  const progress = useDesk((s) => s.progress);
  const handIn = useDesk((s) => s.handIn);
  const { busy, trouble, run } = useAction();
  const paper = useDesk((s) => s.paper);
  const desk = useDesk((s) => s.desk);
  const demanded = stillDemanded(paper, desk);
  const open = openQuestions(progress);
  const flagged = showList(progress.filter((p) => p.flagged).map(({ question }) => String(question.number)));
  if (demanded.length > 0)
    return (
      <p className="max-w-[34rem] self-center text-marigold">
        {t('handInDemanded', { list: showList(demanded.map(({ number }) => String(number))) })}
      </p>
    );
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        <Button look="first" className="min-h-11">
          {t('handIn')}
        </Button>
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-30 max-h-[90dvh] w-[min(34rem,calc(100vw-2rem))] -translate-1/2 overflow-y-auto rounded-card border border-line bg-card p-6 shadow-float">
          <AlertDialog.Title className="font-serif text-[1.35rem] font-semibold">
            {t('handInTitle')}
          </AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="py-3">
              <p>{t(open.length === 0 ? 'handInDone' : 'handInOpen')}</p>
              <ul className="list-disc space-y-1 pt-2 pl-6">
                {open.map((p) => (
                  <li key={p.question.item}>{openWords(p)}</li>
                ))}
              </ul>
              {flagged !== '' && <p className="pt-3">{t('handInFlagged', { list: flagged })}</p>}
              <p className="pt-3 text-soft">
                <SavedLine />
              </p>
            </div>
          </AlertDialog.Description>
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <div className="flex flex-wrap justify-end gap-3 pt-3">
            <AlertDialog.Cancel asChild>
              <Button className="min-h-11">{t('handInStay')}</Button>
            </AlertDialog.Cancel>
            <Button
              look="first"
              className="min-h-11"
              disabled={busy}
              onClick={() => void run(() => handIn('candidate'))}
            >
              {t(busy ? 'handingIn' : 'handIn')}
            </Button>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
