import type { AidName } from '../kit/aids';
import { message, type Message } from '../messages/message';

/** Readiness checks a round may demand. */
export const checkNames = [
  ...(['browser', 'screen', 'storage', 'clock', 'connection', 'camera', 'sound'] as const),
  'full screen',
] as const;
export type CheckName = (typeof checkNames)[number];

export interface CheckResult {
  readonly name: CheckName;
  readonly outcome: 'good' | 'could be better' | 'not working';
  /** What was measured, for staff and for the record: short names to figures or words. */
  readonly facts: Readonly<Record<string, string | number | boolean>>;
}

export interface RoundTrips {
  readonly medianMs: number;
  /** Half the range between the first and third quarter. */
  readonly spreadMs: number;
  readonly lost: number;
}

const quantile = (sorted: readonly number[], share: number): number => {
  const at = (sorted.length - 1) * share;
  const [low, high] = [sorted[Math.floor(at)]!, sorted[Math.ceil(at)]!];
  return low + (high - low) * (at - Math.floor(at));
};

/** Median and spread of measured round trips; `null` stands for one that was lost. Throws when all were lost. */
export function summariseTrips(trips: readonly (number | null)[]): RoundTrips {
  const sorted = trips.filter((t): t is number => t !== null).sort((a, b) => a - b);
  if (sorted.length === 0) throw new RangeError('no round trip came back');
  return {
    medianMs: quantile(sorted, 0.5),
    spreadMs: (quantile(sorted, 0.75) - quantile(sorted, 0.25)) / 2,
    lost: trips.length - sorted.length,
  };
}

export function judgeConnection({ medianMs, spreadMs, lost }: RoundTrips): CheckResult['outcome'] {
  return medianMs > 800 || spreadMs > 400 || lost > 1 ? 'could be better' : 'good';
}

/** Light (0..255), sharpness (variance of the Laplacian over the variance of the picture), faces in view. */
export interface CameraFacts {
  readonly light: number;
  readonly sharpness: number;
  readonly flatShare: number;
  readonly faces: number;
  readonly insideFrame: boolean;
  /** The picture has not changed for several looks. */
  readonly still: boolean;
}

export type CameraTrouble =
  | 'covered'
  | 'frozen'
  | 'dark'
  | 'bright'
  | 'blurred'
  | 'nobody'
  | 'several'
  | 'off-centre';

/** What is wrong with a picture, the most telling first; empty when it is good. */
export function troublesOfPicture(facts: CameraFacts): CameraTrouble[] {
  if (facts.light < 25 && facts.flatShare > 0.8) return ['covered'];
  const troubles: CameraTrouble[] = facts.still ? ['frozen'] : [];
  if (facts.light < 45) troubles.push('dark');
  if (facts.light > 230) troubles.push('bright');
  if (facts.faces === 0) troubles.push('nobody');
  if (facts.faces > 1) troubles.push('several');
  if (facts.faces === 1 && !facts.insideFrame) troubles.push('off-centre');
  if (facts.sharpness < 0.004) troubles.push('blurred');
  return troubles;
}

/**
 * The checks that did not go well, in a line for staff; and that the device has no voice, where reading aloud was arranged.
 * `aids` are those that are open for the candidate by arrangement.
 */
export const weakChecks = (results: readonly CheckResult[], aids: readonly AidName[]): Message[] => [
  ...results.flatMap(({ name, outcome }) =>
    outcome === 'good' ? [] : [message(`note.${outcome === 'not working' ? 'fails' : 'weak'} ${name}`)],
  ),
  ...(aids.includes('read-aloud') && results.some(({ facts }) => facts.voice === false)
    ? [message('note.no voice')]
    : []),
];
