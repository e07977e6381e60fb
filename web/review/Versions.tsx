import type { VersionStep } from '../../core/observations/review';
import { useFetched } from '../staff/queries';
import { showSecond } from '../ui/showSecond';
import { say } from '../words';
import { t } from './words';

interface Props {
  readonly path: string;
  readonly target: string;
  readonly onAt: (at: number) => void;
}

/** The saved versions of an answer with what changed, and the runs between them. */
export function Versions({ path, target, onAt }: Props) {
  const [loaded] = useFetched<readonly VersionStep[]>(`${path}/versions/${target}`);
  if (loaded.state !== 'here') return null;
  const steps = loaded.value;
  if (steps.length === 0) return <p className="text-soft">{t('replayNone')}</p>;
  return (
    <ol
      aria-label={t('versions')}
      className="mt-3 max-h-96 space-y-1 overflow-y-auto border-t border-line pt-2 text-[0.88rem]"
    >
      {steps.map((step, i) => (
        <li key={i}>
          <button
            type="button"
            className="min-h-8 pr-2 text-slate underline underline-offset-4"
            onClick={() => onAt(step.at)}
          >
            {showSecond(step.at)}
          </button>
          {step.is === 'event' ? (
            say(step.what)
          ) : (
            <details className="inline-block max-w-full align-top">
              <summary className="min-h-8 cursor-pointer">
                {t('versionChange', { added: step.added, removed: step.removed })}
              </summary>
              <pre className="max-w-full overflow-x-auto rounded-control bg-shade p-2 font-mono text-[0.8rem]">
                {step.lines.map(({ text, added }, k) => (
                  <span key={k} className={`block ${added ? 'text-kelp' : 'text-brick'}`}>
                    {added ? '+ ' : '− '}
                    {text}
                  </span>
                ))}
              </pre>
            </details>
          )}
        </li>
      ))}
    </ol>
  );
}
