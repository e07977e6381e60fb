import { Check } from 'lucide-react';
import type { ReactNode } from 'react';
import { arrivalSteps, type ArrivalStep } from '../../core/arrival/stage';
import { useArrival } from './ArrivalContext';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

function Sign({ state }: { state: 'done' | 'now' | 'later' }) {
  if (state === 'done')
    return (
      <span aria-hidden className="grid size-6 flex-none place-items-center rounded-full bg-kelp text-on">
        <Check className="size-3.5" strokeWidth={2.6} />
      </span>
    );
  return (
    <span
      aria-hidden
      className={`grid size-6 flex-none place-items-center rounded-full border bg-card ${state === 'now' ? 'border-kelp' : 'border-edge/60'}`}
    >
      {state === 'now' && <span className="size-2.5 rounded-full bg-kelp" />}
    </span>
  );
}

/** The path of steps at the left, one step at a time at the right. */
export function Steps({ step, children }: { step: ArrivalStep; children: ReactNode }) {
  const { view } = useArrival();
  const { startRule, opensAt, identityPicture } = view.round;
  /** Steps that this round does not have. */
  const left: Partial<Record<ArrivalStep, boolean>> = {
    picture: !view.checks.demanded.includes('camera') && !identityPicture,
    checks: view.checks.demanded.length === 0,
    waiting: startRule === 'opening time' && view.now >= opensAt,
  };
  const needed = arrivalSteps.filter((name) => name === step || !left[name]);
  const now = needed.indexOf(step);
  return (
    <div className="mx-auto grid max-w-[1080px] grid-cols-[minmax(0,1fr)] gap-6 desk:grid-cols-[270px_minmax(0,720px)] desk:gap-9">
      <nav aria-label={t('steps')}>
        <ol className="relative flex flex-wrap gap-2 overflow-hidden desk:flex-col desk:gap-[1.15rem]">
          {needed.map((name, i) => {
            const state = i < now ? 'done' : i === now ? 'now' : 'later';
            const tone = state === 'now' ? 'font-semibold' : 'text-soft';
            return (
              <li
                key={name}
                aria-current={state === 'now' ? 'step' : undefined}
                className={`flex items-center gap-3 ${tone}`}
              >
                <Sign state={state} />
                <span className={state === 'now' ? '' : 'sr-only desk:not-sr-only'}>
                  {t(name)}
                  <span className="sr-only">{state === 'done' ? t('stepDone') : ''}</span>
                </span>
              </li>
            );
          })}
        </ol>
      </nav>
      <div className="min-w-0">{children}</div>
    </div>
  );
}

export function StepTitle({ title, text, page }: { title: string; text?: string; page?: string }) {
  const { paperTitle } = useArrival().view.round;
  return (
    <>
      <PageHeading
        title={page ?? title}
        context={paperTitle}
        className="font-serif text-[1.75rem] leading-tight font-semibold"
      >
        {title}
      </PageHeading>
      {text && <p className="mt-1 mb-5 text-soft">{text}</p>}
    </>
  );
}
