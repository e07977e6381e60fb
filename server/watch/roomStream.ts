import type { WatchNews } from '../../core/watch/api';
import type { Line } from '../live/stream';
import { invitationsOf, momentOf, watchRows, watchView } from './operations';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasFiles } from '../files/files';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasLoad } from '../machine/loadMeter';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasTime } from '../sittings/timeKeeper';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasTime, HasHub, HasScheduler, HasLoad, HasFiles, HasSecret {}

/** How long a change waits for others that go out with it. */
const TURN_MS = 400;
/** Every so many turns also what is less urgent: how far those are who only write on, and of whom something was heard. */
const SLOW_TURNS = 5;
/** Rows of those who only wrote on that are looked up again at such a turn; fewer while the thread is busy. */
const SLOW_ROWS = { most: 100, busy: 20 };

/**
 * A room as it changes, for as long as somebody watches it: the whole once, then only what is new. A turn begins when
 * the one before it is over, so that a large room never asks more of the server than it can give.
 */
export function streamRoom(services: Needs, line: Line, round: number): void {
  const { hub, load } = services;
  const soon = new Set<number>();
  const later = new Set<number>();
  const known = new Set<number>();
  const heardTold = new Map<number, number>();
  let [over, turns] = [false, 0];
  let timer: NodeJS.Timeout | null = null;
  const say = (news: WatchNews) => line.say(news);

  const stop = hub.listen(`round ${round}`, (invitation, news) => {
    if (invitation !== null) (news === 'progress' ? later : soon).add(invitation);
  });
  line.whenOver(() => {
    over = true;
    stop();
    if (timer) clearTimeout(timer);
  });

  const takeFrom = (set: Set<number>, most: number) => {
    const taken = [...set].slice(0, most);
    for (const one of taken) set.delete(one);
    return taken;
  };
  const heardSince = () =>
    [...known].flatMap((invitation): (readonly [number, number])[] => {
      const at = hub.heardAt(invitation);
      if (at === null || heardTold.get(invitation) === at) return [];
      heardTold.set(invitation, at);
      return [[invitation, at]];
    });

  const turn = async () => {
    const slow = ++turns % SLOW_TURNS === 0;
    if (slow) for (const id of invitationsOf(services, round)) if (!known.has(id)) soon.add(id);
    const due = takeFrom(soon, Infinity);
    if (slow) due.push(...takeFrom(later, load.busy ? SLOW_ROWS.busy : SLOW_ROWS.most));
    for (const id of due) known.add(id);
    const rows = await watchRows(services, due);
    const heard = slow ? heardSince() : [];
    if (slow || rows.length > 0) say({ change: { ...momentOf(services, round), rows, heard } });
  };
  const goOn = () => {
    if (!over) timer = setTimeout(() => void turn().then(goOn, line.cut), TURN_MS);
  };
  watchView(services, round)
    .then((whole) => {
      for (const { invitation } of whole.rows) known.add(invitation);
      say({ whole });
    })
    .then(goOn, line.cut);
}
