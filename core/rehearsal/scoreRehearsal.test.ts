import { describe, expect, it } from 'vitest';
import { rehearsalPaper } from '../../demo/rehearsalPaper';
import { storeResponse } from '../kinds/stored';
import { allParts } from '../papers/paper';
import { scoreScript } from '../scoring/script';
import { rehearsalScript, rehearsalSheet } from './scoreRehearsal';

describe('the score of a rehearsal', () => {
  it('follows the rules of the paper, shows what is right, and leaves writing to people', () => {
    const paper = rehearsalPaper();
    const writing = allParts(paper).find(({ part }) => part.kind === 'writing')!;
    const written = { type: 'paragraph', content: [{ type: 'text', text: 'The first to come.' }] };
    const script = rehearsalScript(paper, {
      'who-on-wednesday/A': storeResponse('choice', { chosen: ['bram'] }),
      [writing.target]: storeResponse('writing', { text: { type: 'doc', content: [written] } }),
    });
    const sheet = rehearsalSheet(script, scoreScript(script));
    const parts = sheet.questions.flatMap((q) => q.parts);
    expect(sheet.of).toBe(allParts(paper).reduce((sum, { part }) => sum + part.marks, 0));
    expect(sheet.hundredths).toBe(parts.reduce((sum, p) => sum + p.hundredths, 0));
    expect(parts.find((p) => p.kind === 'choice')!.verdict).toBe('right');
    expect(parts.find((p) => p.kind === 'writing')!).toMatchObject({ verdict: 'not marked', hundredths: 0 });
    expect(parts.filter((p) => p.right !== null).length).toBeGreaterThan(1);
    // What nobody wrote waits for nobody.
    const empty = rehearsalScript(paper, {});
    const [left] = rehearsalSheet(empty, scoreScript(empty))
      .questions.flatMap((q) => q.parts)
      .filter((p) => p.kind === 'writing');
    expect(left!.verdict).toBe('unanswered');
  });
});
