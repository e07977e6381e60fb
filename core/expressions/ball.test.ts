import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random';
import { isBall, precisionOf, valueAt, type Ball, type Environment, type Found } from './ball';
import { letter, minus, productOf, quotient, sumOf, whole, type FunctionName, type Term } from './term';

const f = (name: FunctionName, of: Term): Term => ({ is: 'function', name, of });
const power = (base: Term, exponent: Term): Term => ({ is: 'power', base, exponent });
const root = (of: Term, index = 2): Term => ({ is: 'root', of, index });
const at = (term: Term, digits = 40, letters: Environment = {}): Found => valueAt(term, letters, digits);
const ball = (found: Found): Ball => {
  if (!isBall(found)) throw new Error(`no value: ${found}`);
  return found;
};
/** The true value lies within the ball, and the ball is no wider than it has to be. */
const holds = (found: Found, digits: string) => {
  const { value, radius } = ball(found);
  expect(Math.abs(value.minus(digits).toNumber())).toBeLessThanOrEqual(radius + 1e-38);
  expect(radius).toBeLessThan(1e-30);
};

describe('a figure with the most that it can be off', () => {
  it('holds published digits', () => {
    // √2, e, π and ln 2 to forty digits (OEIS A002193, A001113, A000796, A002162).
    holds(at(root(whole(2))), '1.414213562373095048801688724209698078570');
    holds(at(f('exp', whole(1))), '2.718281828459045235360287471352662497757');
    holds(at({ is: 'constant', name: 'pi' }), '3.141592653589793238462643383279502884197');
    holds(at(f('ln', whole(2))), '0.6931471805599453094172321214581765680755');
    holds(at(productOf(whole(4), f('atan', whole(1)))), '3.141592653589793238462643383279502884197');
    holds(at(root(whole(-8), 3)), '-2');
  });

  it('is exact for whole numbers, as long as the digits last', () => {
    const large = power(whole(10), whole(20));
    expect(ball(at(sumOf(large, whole(1), minus(large)), 40)).radius).toBe(0);
    expect(ball(at(sumOf(large, whole(1), minus(large)), 40)).value.toNumber()).toBe(1);
    // With ten digits the 1 may be lost: the ball says so.
    const { value, radius } = ball(at(sumOf(large, whole(1), minus(large)), 10));
    expect(Math.abs(value.toNumber() - 1)).toBeLessThanOrEqual(radius);
    expect(radius).toBeGreaterThan(1);
  });

  it('carries the errors of its letters along', () => {
    const { Number: Decimal } = precisionOf(40);
    const about = (value: number, radius: number): Ball => ({ value: new Decimal(value), radius });
    // (2 ± 0.1)(3 ± 0.1): from 1.9·2.9 = 5.51 to 2.1·3.1 = 6.51.
    const product = ball(at(productOf(letter('a'), letter('b')), 40, { a: about(2, 0.1), b: about(3, 0.1) }));
    expect([product.value.toNumber(), product.radius]).toEqual([6, expect.closeTo(0.51, 10)]);
    // 1/(2 ± 0.5) lies between 0.4 and 0.667: at most 1/6 from 0.5.
    const under = ball(at(quotient(whole(1), letter('a')), 40, { a: about(2, 0.5) }));
    expect(under.radius).toBeGreaterThanOrEqual(1 / 6);
  });

  it('is undefined where there is no value', () => {
    expect(at(quotient(whole(1), whole(0)))).toBe('undefined');
    expect(at(root(whole(-2)))).toBe('undefined');
    expect(at(f('ln', whole(0)))).toBe('undefined');
    expect(at(f('asin', whole(2)))).toBe('undefined');
    expect(at(power(whole(0), whole(0)))).toBe('undefined');
  });

  it('is unknown where these digits cannot tell, and with more digits where that helps', () => {
    // 1/(√2·√2 − 2) is a division by zero that no number of digits shows.
    const hidden = sumOf(productOf(root(whole(2)), root(whole(2))), whole(-2));
    expect(at(quotient(whole(1), hidden), 20)).toBe('unknown');
    expect(at(quotient(whole(1), hidden), 60)).toBe('unknown');
    // e^π − π − 20 + 1/1111.1 is small but no zero: 19.99909997918947… − 20 + 0.00090000900009…
    const near = sumOf(
      power({ is: 'constant', name: 'e' }, { is: 'constant', name: 'pi' }),
      minus({ is: 'constant', name: 'pi' }),
      whole(-20),
      quotient(whole(10), whole(11111)),
    );
    expect(at(quotient(whole(1), near), 6)).toBe('unknown');
    expect(ball(at(quotient(whole(1), near), 40)).value.toNumber()).toBeCloseTo(1 / -1.1810453e-8, -6);
    expect(at(letter('z'))).toBe('unknown');
    expect(at(f('exp', whole(1000)))).toBe('unknown');
  });
});

/** A term of a few steps; anything may come below a line or into a function. */
function anyTerm(random: () => number, depth: number): Term {
  const one = () => anyTerm(random, depth - 1);
  const pick = Math.floor(random() * (depth === 0 ? 2 : 9));
  if (pick === 0) return whole(Math.floor(random() * 19) - 9);
  if (pick === 1) return quotient(whole(Math.floor(random() * 9) + 1), whole(Math.floor(random() * 9) + 1));
  if (pick === 2) return sumOf(one(), one());
  if (pick === 3) return productOf(one(), one());
  if (pick === 4) return quotient(one(), one());
  if (pick === 5) return power(one(), whole(Math.floor(random() * 7) - 3));
  if (pick === 6) return root(one(), 2 + Math.floor(random() * 3));
  if (pick === 7) return minus(one());
  const names = ['sin', 'cos', 'atan', 'ln', 'exp', 'tanh', 'asin'] as const;
  return f(names[Math.floor(random() * names.length)]!, one());
}

it('never says more than is true: the ball of few digits meets the ball of many, over any terms', () => {
  const random = seededRandom('balls');
  let compared = 0;
  for (let n = 0; n < 1500; n++) {
    const term = anyTerm(random, 4);
    const [few, many] = [at(term, 12), at(term, 60)];
    if (few === 'undefined') expect(isBall(many)).toBe(false);
    if (!isBall(few) || !isBall(many)) continue;
    compared++;
    const apart = Math.abs(few.value.minus(many.value).toNumber());
    const allowed = few.radius + many.radius;
    if (apart > allowed * 1.000001) expect({ term, apart, allowed }).toBeNull();
  }
  expect(compared).toBeGreaterThan(500);
});
