import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { message } from '../../core/messages/message';
import { showMarks, sumMarks } from '../../core/marks';
import { guessingOf } from '../../core/papers/guessing';
import { showLength } from '../../core/timing/pace';
import { DocumentView } from '../documents/DocumentView';
import { Button } from '../ui/Button';
import { say, words } from '../words';
import { wholeMs } from './Clock';
import { useDesk } from './DeskContext';
import { guessingWords } from './words';

const t = words('directions', {
  title: 'Directions',
  section: 'Section {{key}}: {{title}}',
  sectionLimit: 'It has a time limit of its own: {{minutes}} min.',
  test: 'Your test',
  reference: 'Your reference: {{reference}}',
  time: 'You have {{length}} in all.',
  untimed: 'There is no time limit here.',
  size_one: '{{count}} question, {{marks}} marks.',
  size_other: '{{count}} questions, {{marks}} marks.',
  end: 'At the end of your time',
  endText:
    'When the clock reaches 0:00, your paper is handed in automatically. Every answer saved until then counts. You do not need to press anything.',
  endRehearsal: 'When the clock reaches 0:00, the rehearsal ends by itself. Nothing is saved.',
  rules: 'The rules that you accepted',
  recorded: 'What is recorded',
  help: 'Help',
  helpText: 'Press “Raise a hand” to ask the invigilator. Your clock goes on meanwhile.',
  loading: 'Loading …',
  close: 'Back to the question',
});

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className="border-t border-line pt-3">
      <h2 className="font-semibold">{title}</h2>
      <div className="mt-1 space-y-1.5">{children}</div>
    </section>
  );
}

/** The section that the question in view is in: what it said at its door, and how one moves in it. */
function OwnSection() {
  const question = useDesk((s) => s.paper.questions[s.index]!);
  const section = useDesk((s) => s.paper.sections.find(({ key }) => key === question.section)!);
  const { key, title, introduction, minutes, navigation } = section;
  return (
    <Part title={t('section', { key, title })}>
      <DocumentView document={introduction} />
      <p>
        {say(message(`navigation.${navigation}`))}. {minutes !== null && t('sectionLimit', { minutes })}
      </p>
    </Part>
  );
}

function Test() {
  const paper = useDesk((s) => s.paper);
  const timed = useDesk((s) => s.timed);
  const length = useDesk((s) => showLength(wholeMs(s)));
  const directions = useDesk((s) => s.directions);
  const marks = showMarks(sumMarks(paper.questions.map((question) => question.marks)));
  return (
    <Part title={t('test')}>
      {directions && <p>{t('reference', { reference: directions.candidate.reference })}</p>}
      <p>
        {timed ? t('time', { length }) : t('untimed')} {t('size', { count: paper.questions.length, marks })}
      </p>
      <p>{guessingWords(guessingOf(paper.questions))}</p>
      {directions?.round.attempts.map((one) => (
        <p key={one.code}>{say(one)}</p>
      ))}
    </Part>
  );
}

/** What was accepted and told before the clock started. */
function Told() {
  const directions = useDesk((s) => s.directions);
  if (!directions) return <p className="text-soft">{t('loading')}</p>;
  const { rules, round } = directions;
  return (
    <>
      <Part title={t('help')}>
        <p>{t('helpText')}</p>
        {round.help && <p className="whitespace-pre-wrap">{round.help}</p>}
      </Part>
      <Part title={t('rules')}>
        <DocumentView document={rules.text} />
        <ul className="list-disc space-y-1 pl-5">
          {rules.statements.map(({ key, text }) => (
            <li key={key}>{text}</li>
          ))}
        </ul>
      </Part>
      <Part title={t('recorded')}>
        <ul className="list-disc space-y-1 pl-5">
          {round.recorded.map((one) => (
            <li key={one.code}>{say(one)}</li>
          ))}
        </ul>
      </Part>
    </>
  );
}

/** All that was told before the clock started, and what happens at the end; wherever one is in the paper. */
export function DirectionsDialog({ onClose }: { readonly onClose: () => void }) {
  const isSitting = useDesk((s) => s.help !== null);
  return (
    <Dialog.Root open onOpenChange={onClose}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-40 flex max-h-[90dvh] w-[min(44rem,calc(100vw-1.5rem))] -translate-1/2 flex-col rounded-card border border-line bg-card shadow-float"
        >
          <Dialog.Title className="px-6 pt-5 pb-3 font-serif text-[1.35rem] leading-tight font-semibold">
            {t('title')}
          </Dialog.Title>
          <div
            tabIndex={0}
            className="min-h-0 flex-1 space-y-4 overflow-y-auto px-6 pb-4 outline-offset-[-3px]"
          >
            <OwnSection />
            <Test />
            <Part title={t('end')}>
              <p>{t(isSitting ? 'endText' : 'endRehearsal')}</p>
            </Part>
            {isSitting && <Told />}
          </div>
          <div className="border-t border-line px-6 py-3 text-right">
            <Dialog.Close asChild>
              <Button look="first" className="min-h-11">
                {t('close')}
              </Button>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
