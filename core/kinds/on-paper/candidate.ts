import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind } from '../contract';
import { responseSchema, type OnPaperResponse, type OnPaperShown } from './response';

export const onPaper: CandidateKind<OnPaperShown, OnPaperResponse> = {
  ...plainCandidate,
  name: 'on-paper',
  response: responseSchema,
  empty: () => ({ done: false }),
  progress: (_, { done }) =>
    done ? { state: 'done', missing: null } : { state: 'empty', missing: message('on-paper.empty') },
  describe: (_, { done }, say) => ({ form: 'words', text: done ? say(message('on-paper.done')) : '' }),
};
