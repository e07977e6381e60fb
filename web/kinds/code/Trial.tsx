import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import { words } from '../../words';
import type { TrialProps } from '../answerProps';
import { CaseTable } from './CaseTable';
import { useTrial } from './useTrial';

const t = words('codeTrialOfAssessor', {
  note: 'These runs are for you alone, in this browser: they change no mark, and nobody else sees them.',
});

/** Runs a candidate's program again, with the cases of the question or with an input of the assessor's own. */
export function Trial({ shown, response }: TrialProps<CodeShown, CodeResponse>) {
  return <CaseTable shown={shown} trial={useTrial(shown, response)} note={t('note')} />;
}
