import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind } from '../contract';
import type { OnPaperResponse, OnPaperShown } from './response';

export const onPaper: CandidateKind<OnPaperShown, OnPaperResponse> = {
  ...plainCandidate,
  name: 'on-paper',
  empty: () => ({ done: false }),
  progress: (_, { done }) =>
    done ? { state: 'done', missing: null } : { state: 'empty', missing: message('on-paper.empty') },
  describe: (_, { done }, say) => ({ form: 'words', text: done ? say(message('on-paper.done')) : '' }),
};
