import { Dialog } from 'radix-ui';
import { Button } from '../ui/Button';
import { useDesk } from './DeskContext';
import type { DeskState } from './deskStore';
import { words } from '../words';

const t = words('turn', {
  enterTitle: 'Section {{key}} is forward only',
  enterText:
    'You see each question once, in order. You cannot go back to a question, and the section closes when you leave it.',
  enterOnce: 'You can continue to the next question when you have answered the previous one.',
  enterYes: 'Enter section {{key}}',
  leaveTitle: 'Leave section {{key}}? You cannot come back',
  leaveOpen_one: '{{count}} question of this section is not done. You cannot come back to it.',
  leaveOpen_other: '{{count}} questions of this section are not done. You cannot come back to them.',
  leaveDone: 'All its questions are done. You cannot come back to them.',
  leaveYes: 'Leave section {{key}}',
  passTitle: 'Continue without finishing question {{number}}?',
  passText: 'This section is forward only: you cannot come back to question {{number}}.',
  passYes: 'Continue to question {{next}}',
  closedTitle: 'Question {{to}} is closed',
  closedText: 'This section is forward only, and you have moved on. Your answer is saved.',
  notYetTitle: 'Question {{to}} is not open yet',
  notYetText: 'This section is forward only: you see its questions one after the other.',
  firstTitle: 'Answer question {{number}} first',
  firstText: 'In this section you can continue when you have answered the question on the page.',
  stay: 'Stay here',
  back: 'Back to question {{number}}',
});

type Asked = NonNullable<DeskState['asked']>;

function useTexts({ to, way }: Asked) {
  const questions = useDesk((s) => s.paper.questions);
  const sections = useDesk((s) => s.paper.sections);
  const number = useDesk((s) => s.index + 1);
  const progress = useDesk((s) => s.progress);
  const [from, target] = [questions[number - 1]!, questions[to]!];
  const key = way === 'enter' ? target.section : from.section;
  const once = sections.find((one) => one.key === key)!.navigation === 'forward only once answered';
  const open = progress.filter((p) => p.question.section === key && p.state !== 'done').length;
  const values = { key, number, to: to + 1, next: to + 1 };
  const texts: Record<Asked['way'], { title: string; text: string; yes: string | null }> = {
    enter: {
      title: t('enterTitle', values),
      text: `${t('enterText')}${once ? ` ${t('enterOnce')}` : ''}`,
      yes: t('enterYes', values),
    },
    leave: {
      title: t('leaveTitle', values),
      text: open > 0 ? t('leaveOpen', { count: open }) : t('leaveDone'),
      yes: t('leaveYes', values),
    },
    pass: { title: t('passTitle', values), text: t('passText', values), yes: t('passYes', values) },
    closed: { title: t('closedTitle', values), text: t('closedText'), yes: null },
    'not yet': { title: t('notYetTitle', values), text: t('notYetText'), yes: null },
    'answer first': { title: t('firstTitle', values), text: t('firstText'), yes: null },
  };
  return { ...texts[way], stay: texts[way].yes === null ? t('back', values) : t('stay') };
}

/** Tells what a step through a forward-only section means, before it is made; or why it cannot be made. */
export function TurnDialog({ asked }: { readonly asked: Asked }) {
  const answer = useDesk((s) => s.answerAsked);
  const { title, text, yes, stay } = useTexts(asked);
  return (
    <Dialog.Root open onOpenChange={() => answer(false)}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-40 max-h-[90dvh] w-[min(34rem,calc(100vw-1.5rem))] -translate-1/2 overflow-y-auto rounded-card border border-line bg-card p-6 shadow-float">
          <Dialog.Title className="font-serif text-[1.3rem] leading-tight font-semibold">
            {title}
          </Dialog.Title>
          <Dialog.Description className="mt-2">{text}</Dialog.Description>
          <div className="mt-5 flex flex-wrap gap-2">
            <Button
              look={yes === null ? 'first' : 'plain'}
              className="min-h-11"
              onClick={() => answer(false)}
            >
              {stay}
            </Button>
            {yes !== null && (
              <Button look="first" className="min-h-11" onClick={() => answer(true)}>
                {yes}
              </Button>
            )}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
