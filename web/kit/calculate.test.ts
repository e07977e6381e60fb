import { describe, expect, it } from 'vitest';
import { calculate, type Outcome } from './calculate';

const value = (outcome: Outcome) => ('value' in outcome ? outcome.value : outcome.trouble);
const basic = (text: string) => value(calculate(text, 'basic'));
const scientific = (text: string, angle?: 'degrees' | 'radians') =>
  value(calculate(text, 'scientific', angle));

describe('the basic calculator', () => {
  it.each([
    ['171÷240×100', '71.25'],
    // In decimals, not in binary fractions.
    ['0.1+0.2', '0.3'],
    ['1÷3', '0.333333333333'],
    ['2+3×4', '14'],
    ['(2+3)×4', '20'],
    ['5−8', '−3'],
    ['-5--3', '−2'],
    ['25%', '0.25'],
    ['240×5%', '12'],
    ['√(2)', '1.41421356237'],
    ['1,5+1', '2.5'],
    ['0.000001×1', '0.000001'],
    ['123456789×1000000000', '1.23456789×10^17'],
    // A product written without a sign, as on paper.
    ['2(3+4)', '14'],
  ])('%s is %s', (text, result) => expect(basic(text)).toBe(result));

  it.each([
    ['', 'unfinished'],
    ['3+', 'unfinished'],
    ['(3', 'unfinished'],
    ['3..4', 'unreadable'],
    ['3)', 'unreadable'],
    ['1÷0', 'by-zero'],
    ['√(-1)', 'no-value'],
    ['sin(30)', 'unreadable'],
    ['2^3', 'unreadable'],
    ['import("x")', 'unreadable'],
    ['f(x)=x', 'unreadable'],
    ['[1,2]', 'unreadable'],
    ['a=3', 'unreadable'],
    ['"x"', 'unreadable'],
    ['1;2', 'unreadable'],
    [`${'9+'.repeat(120)}9`, 'too-large'],
  ])('%s is told as %s', (text, trouble) => expect(basic(text)).toBe(trouble));
});

describe('the scientific calculator', () => {
  it.each([
    ['sin(30)', '0.5'],
    ['cos(60)', '0.5'],
    ['tan(45)', '1'],
    ['asin(0.5)', '30'],
    ['atan(1)', '45'],
    ['2^10', '1024'],
    // The power binds more than the sign.
    ['-2^2', '−4'],
    ['9^0.5', '3'],
    ['5!', '120'],
    ['ln(e)', '1'],
    ['log(1000)', '3'],
    ['cbrt(27)', '3'],
    ['abs(-3)', '3'],
    ['π', '3.14159265359'],
    ['exp(0)', '1'],
    // An angle of the half circle has no sine worth speaking of.
    ['sin(180)', '0'],
  ])('%s is %s', (text, result) => expect(scientific(text)).toBe(result));

  it('takes angles in radians', () => expect(scientific('sin(π÷2)', 'radians')).toBe('1'));

  it.each([
    ['tan(90)', 'no-value'],
    ['asin(2)', 'no-value'],
    ['ln(0)', 'no-value'],
    ['log(-1)', 'no-value'],
    ['(-8)^0.5', 'no-value'],
    ['0^(-1)', 'by-zero'],
    ['9^9999', 'too-large'],
    ['999!', 'too-large'],
    ['2.5!', 'no-value'],
    ['derivative(x)', 'unreadable'],
    ['eval("1")', 'unreadable'],
  ])('%s is told as %s', (text, trouble) => expect(scientific(text)).toBe(trouble));
});
