import { useEffect, useEffectEvent, useState } from 'react';
import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import { words } from '../../words';
import type { TrialProps } from '../answerProps';
import { CaseTable } from './CaseTable';
import { useTrial } from './useTrial';

const t = words('codeTrialOfAssessor', {
  note: 'These runs are only for you, in this browser. They change no mark, and nobody else sees them.',
});

/** Runs a candidate's program again, with the cases of the question or with inputs of the assessor's own. */
export function Trial({ shown, response }: TrialProps<CodeShown, CodeResponse>) {
  const [inputs, setInputs] = useState<readonly string[]>([]);
  const trial = useTrial(shown, response, { inputs, onInputs: setInputs, onRun: () => undefined });
  const begin = useEffectEvent(trial.getReady);
  useEffect(() => begin(), []);
  return <CaseTable shown={shown} language={response.language} trial={trial} note={t('note')} />;
}
