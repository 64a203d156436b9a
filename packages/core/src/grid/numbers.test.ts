import { formatMoney, formatSum } from './format.ts';
import { minutesTyped, numberTyped } from './numbers.ts';

// What is typed into a field of one number: common practice, no source.
test.each<[string, boolean, number | null]>([
  ['12', true, 12],
  ['1,000', true, 1000],
  ['1.000', true, 1000],
  ['12,345', true, 12_345],
  ['1 250', true, 1250],
  ['1,5', true, 1.5],
  ['0,12', false, 0.12],
  ['1.5', false, 1.5],
  ['1.250', false, 1.25],
  ['1,250.50', false, 1250.5],
  ['1.250,50', false, 1250.5],
  ['-3', true, -3],
  ['−2,5', false, -2.5],
  ['1e3', false, 1000],
  ['6b', true, null],
  ['12 pcs', true, null],
  ['1,00,0', true, null],
  ['', true, null],
  ['-', true, null],
])('“%s” as a number (whole: %s) is %s', (text, whole, number) => {
  expect(numberTyped(text, whole)).toBe(number);
});
test.each([
  [3.5, '3.50'],
  [62, '62.00'],
  [0.035, '0.035'],
  [0, '0.00'],
])('a price of %s is written %s', (amount, text) => {
  expect(formatMoney(amount)).toBe(text);
});
test.each([
  [3449.678, '3,449.68'],
  [62, '62.00'],
  [0.035, '0.04'],
  [-1200, '-1,200.00'],
  [-0.001, '0.00'],
])('a sum of %s is written %s', (amount, text) => {
  expect(formatSum(amount)).toBe(text);
});

test.each([
  ['90', 90],
  [' 90 min', 90],
  ['1:30', 90],
  ['0:05', 5],
  ['1 h 30', 90],
  ['1h30min', 90],
  ['2 hours', 120],
  ['1.5 h', 90],
  ['1,5h', 90],
  ['0.33 h', 20],
  ['1,200', 1200],
  ['1:75', null],
  ['1.5', null],
  ['-5', null],
  ['soon', null],
  ['', null],
])('“%s” is %p minutes', (text, minutes) => {
  expect(minutesTyped(text)).toBe(minutes);
});
