import { describe, expect, it } from 'vitest';
import { say } from '../messages/words';
import { subjectOf, writeLetter, type InvitationFacts } from './letters';

const facts: InvitationFacts = {
  kind: 'invitation',
  organisation: 'Archive',
  name: 'N',
  title: 'Paper',
  help: 'Call 31.',
  timeZone: 'UTC',
  roundZone: 'UTC',
  reference: 'HR-1',
  minutes: 60,
  camera: false,
  // 24 November 2026, 09:00 UTC, and two hours later
  opensAt: Date.UTC(2026, 10, 24, 9),
  closesAt: Date.UTC(2026, 10, 24, 11),
  extraPercent: 0,
  breakMinutes: 0,
};
const write = (change: Partial<InvitationFacts> = {}, link: string | null = 'http://x/i/y') =>
  writeLetter({ ...facts, ...change }, link, say);

describe('an invitation', () => {
  it('says only what holds for this reader', () => {
    const letter = write();
    expect(letter).toMatch(/Tuesday,? 24 November 2026 at 09:00 \(UTC\)/);
    expect(letter).toContain('Time: 60 min. The clock starts');
    for (const other of ['In UTC:', 'camera', 'Breaks:', 'extra time']) expect(letter).not.toContain(other);
    expect(say(subjectOf(facts))).toBe('Your test: Paper');
  });

  it('names camera, breaks, extra time and the other zone where there are any', () => {
    const letter = write({ camera: true, breakMinutes: 10, extraPercent: 25, timeZone: 'Asia/Tokyo' });
    // Tokyo is nine hours ahead; 60 minutes and a quarter are 75.
    expect(letter).toMatch(/Tuesday,? 24 November 2026 at 18:00 \(Asia\/Tokyo\)/);
    expect(letter).toMatch(/In UTC: Tuesday,? 24 November 2026 at 09:00 \(UTC\) to/);
    for (const one of ['a camera', '10 min in total', '1 h 15 min, including 25 % extra time'])
      expect(letter).toContain(one);
  });

  it('holds the link only where it is given one', () => {
    expect(write()).toContain('http://x/i/y');
    expect(write({}, null)).toContain('(your personal link, in the e-mail that was sent)');
  });
});
