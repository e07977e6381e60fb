import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind } from '../contract';
import { ownProgram } from './ownProgram';
import type { CodeResponse, CodeShown } from './response';

export const code: CandidateKind<CodeShown, CodeResponse> = {
  ...plainCandidate,
  name: 'code',
  empty: (shown) => ({ language: shown.languages[0]!.language, programs: {} }),
  misfit: (shown, response) =>
    shown.languages.some((one) => one.language === response.language) ? null : message('code.noLanguage'),
  progress: (shown, response) =>
    ownProgram(shown.languages, response) === null
      ? { state: 'empty', missing: message('code.empty') }
      : { state: 'done', missing: null },
  rule: (shown) =>
    shown.numberTolerance > 0
      ? message('code.ruleTolerance', { most: shown.numberTolerance })
      : message('code.ruleExact'),
  describe: (shown, response) => ({
    form: 'program',
    text: ownProgram(shown.languages, response) ?? '',
  }),
  compared: (shown, response) => ({
    form: response.language,
    text: ownProgram(shown.languages, response) ?? '',
    given: shown.languages.map(({ starter }) => starter),
  }),
};
