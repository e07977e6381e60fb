import { afterAll, describe, expect, it } from 'vitest';
import type { ExpressionRun } from '../../core/kinds/evidence';
import { ExpressionJudge } from './expressionJudge';

const judge = new ExpressionJudge();
afterAll(() => judge.close());

const run = (key: string, given: string, form: ExpressionRun['form'] = null): ExpressionRun => ({
  key,
  given,
  form,
  options: { decimal: '.', letters: [], functions: [], list: false, domain: {}, log: 10 },
});

describe('the judge of expressions', () => {
  it('compares in its worker, and looks at the form of what is equal', async () => {
    const found = await Promise.all([
      judge.compare(run('x^2-1', '(x-1)(x+1)', 'factorised')),
      judge.compare(run('x^2-1', 'x^2-1', 'factorised')),
      judge.compare(run('x^2-1', 'x^2+1', 'factorised')),
      judge.compare(run('x^2-1', '\\frac{1}{}')),
    ]);
    expect(found.map(({ is, inForm }) => [is, inForm])).toEqual([
      ['equal', true],
      ['equal', false],
      ['different', null],
      ['unreadable', null],
    ]);
  });

  it('leaves what takes too long to people, and goes on', async () => {
    const tower = `${'\\left|'.repeat(18)}\\sin\\left(x^{x^x}\\right)${'-\\frac1{x}\\right|'.repeat(18)}`;
    const { is } = await judge.compare(run(tower, `${tower}+0`));
    expect(['undecided', 'equal']).toContain(is);
    expect((await judge.compare(run('\\frac12', '0.5'))).is).toBe('equal');
  });
});
