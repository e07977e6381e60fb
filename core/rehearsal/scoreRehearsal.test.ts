import { describe, expect, it } from 'vitest';
import { rehearsalPaper } from '../../demo/rehearsalPaper';
import { allParts } from '../papers/paper';
import { scoreRehearsal } from './scoreRehearsal';

describe('the score of a rehearsal', () => {
  it('follows the rules of the paper, shows what is right, and leaves writing to people', () => {
    const paper = rehearsalPaper();
    const writing = allParts(paper).find(({ part }) => part.kind === 'writing')!;
    const written = { type: 'paragraph', content: [{ type: 'text', text: 'Whoever comes first.' }] };
    const answers = {
      'who-on-wednesday/A': { chosen: ['bram'] },
      [writing.target]: { text: { type: 'doc', content: [written] } },
    };
    const sheet = scoreRehearsal(paper, answers, {});
    const parts = sheet.questions.flatMap((q) => q.parts);
    expect(sheet.of).toBe(allParts(paper).reduce((sum, { part }) => sum + part.marks, 0));
    expect(sheet.hundredths).toBe(parts.reduce((sum, p) => sum + p.hundredths, 0));
    expect(parts.find((p) => p.kind === 'choice')!.verdict).toBe('right');
    expect(parts.find((p) => p.kind === 'writing')!).toMatchObject({ verdict: 'not marked', hundredths: 0 });
    expect(parts.filter((p) => p.rightAnswer).length).toBeGreaterThan(1);
  });
});
