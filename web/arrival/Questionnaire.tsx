import { useState } from 'react';
import type { ArrivalView } from '../../core/arrival/api';
import { experienceQuestions, LEVELS, type ExperienceQuestion } from '../../core/experience/api';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { useArrival } from './ArrivalContext';
import { t } from './words';

/** Four questions about the test; none has to be answered, and nobody learns who said what. */
export function Questionnaire() {
  const { view, update } = useArrival();
  const [sent, setSent] = useState(false);
  const [answers, setAnswers] = useState<Partial<Record<ExperienceQuestion, number>>>({});
  const [comment, setComment] = useState('');
  const { busy, trouble, run } = useAction();
  const send = () =>
    run(async () => {
      const next = await post<ArrivalView>('/arrival/questionnaire', { answers, comment });
      setSent(true);
      update(next);
    });
  const nothing = Object.keys(answers).length === 0 && comment.trim() === '';
  if (!view.questionnaire)
    return sent ? (
      <p role="status" className="mt-6">
        {t('experienceThanks')}
      </p>
    ) : null;
  return (
    <form
      className="mt-6 rounded-card border border-line bg-card px-6 py-5"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <h2 className="font-semibold">{t('experienceTitle')}</h2>
      <p className="text-[0.92rem] text-soft">{t('experienceText')}</p>
      {experienceQuestions.map((question) => (
        <fieldset key={question} className="mt-4">
          <legend>{t(`experience ${question}`)}</legend>
          <div className="mt-1 flex flex-wrap gap-2">
            {LEVELS.map((level) => (
              <label
                key={level}
                className="flex min-h-11 min-w-fit flex-1 whitespace-nowrap items-center justify-center gap-1.5 rounded-control border border-line px-2 text-[0.88rem] has-checked:border-kelp has-checked:bg-wash"
              >
                <input
                  type="radio"
                  name={question}
                  checked={answers[question] === level}
                  onChange={() => setAnswers({ ...answers, [question]: level })}
                />
                {t(`level ${level}`)}
              </label>
            ))}
          </div>
        </fieldset>
      ))}
      <label className="mt-4 block">
        {t('experienceComment')}
        <textarea
          rows={3}
          maxLength={2000}
          value={comment}
          onChange={(event) => setComment(event.target.value)}
          className="mt-1 block w-full rounded-control border border-edge bg-card px-3 py-2"
        />
      </label>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <Button type="submit" className="mt-3 min-h-11" disabled={busy || nothing}>
        {t('experienceSend')}
      </Button>
    </form>
  );
}
