import type { Rubric } from '../../core/kinds/contract';
import { showMarks } from '../../core/marks';
import type { LevelsChosen } from '../../core/marking/rubricMark';
import { t } from './words';

interface Props {
  readonly rubric: Rubric;
  readonly chosen: LevelsChosen;
  /** The criterion that number keys go to. */
  readonly active: string;
  readonly onChoose: (criterion: string, level: number) => void;
}

/** The rubric as levels to press; letters choose the criterion, numbers its level. */
export function RubricPanel({ rubric, chosen, active, onChoose }: Props) {
  return (
    <div role="group" aria-label={t('rubric')} className="space-y-4">
      {rubric.criteria.map((criterion) => {
        const level = chosen[criterion.key];
        const all = Math.max(...criterion.levels.map((l) => l.hundredths));
        const given = level === undefined ? '–' : showMarks(criterion.levels[level]!.hundredths);
        return (
          <div key={criterion.key} role="radiogroup" aria-label={criterion.title}>
            <p className="mb-1.5 flex items-center gap-2.5">
              <kbd
                className={`rounded border px-1.5 font-mono text-[0.72rem] ${active === criterion.key ? 'border-kelp bg-kelp text-white' : 'border-line text-soft'}`}
              >
                {criterion.key.toUpperCase()}
              </kbd>
              <b className="flex-1">{criterion.title}</b>
              <span className="text-soft">
                {given} / {showMarks(all)}
              </span>
            </p>
            <div className="grid auto-cols-fr grid-flow-col gap-1.5">
              {criterion.levels.map((option, i) => (
                <button
                  key={option.label}
                  type="button"
                  role="radio"
                  aria-checked={level === i}
                  aria-label={`${showMarks(option.hundredths)}, ${option.label}: ${option.says}`}
                  title={option.says}
                  onClick={() => onChoose(criterion.key, i)}
                  className={`min-h-12 rounded-control border px-1.5 py-1 text-left text-[0.82rem] leading-4 ${level === i ? 'border-kelp bg-wash' : 'border-line bg-card hover:border-edge'}`}
                >
                  <b>{showMarks(option.hundredths)}</b>{' '}
                  <span className="text-[0.68rem] text-soft">{i + 1}</span>
                  <span className="mt-0.5 block break-words">{option.label}</span>
                </button>
              ))}
            </div>
          </div>
        );
      })}
    </div>
  );
}
