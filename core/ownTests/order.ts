import { testStates, type OwnTest } from './api';

/** What can be done now comes first, then what comes next, then what is past, the newest first. */
export function inOrderOfNeed(tests: readonly OwnTest[]): OwnTest[] {
  const rank = ({ state }: OwnTest): number =>
    Math.min(testStates.indexOf(state), testStates.indexOf('being marked'));
  return [...tests].sort((a, b) => {
    const byState = rank(a) - rank(b);
    if (byState !== 0) return byState;
    // Of several that can be started the one that this link starts.
    if (a.state !== 'later' && a.here !== b.here) return a.here ? -1 : 1;
    return a.state === 'later' ? a.opensAt - b.opensAt : b.opensAt - a.opensAt;
  });
}
