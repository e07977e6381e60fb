import { useEffect, useEffectEvent } from 'react';
import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import { words } from '../../words';
import type { TrialProps } from '../answerProps';
import { CaseTable } from './CaseTable';
import { useTrial } from './useTrial';

const t = words('codeTrialOfAssessor', {
  note: 'These runs are only for you, in this browser. They change no mark, and nobody else sees them.',
});

/** Runs a candidate's program again, with the cases of the question or with an input of the assessor's own. */
export function Trial({ shown, response }: TrialProps<CodeShown, CodeResponse>) {
  const trial = useTrial(shown, response);
  const begin = useEffectEvent(trial.getReady);
  useEffect(() => begin(), []);
  return <CaseTable shown={shown} trial={trial} note={t('note')} />;
}
