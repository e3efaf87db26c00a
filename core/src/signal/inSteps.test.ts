import { expect, it } from 'vitest';
import { inSteps } from './inSteps.js';

it('rounds to whole steps without the error of the multiplication, and never to -0', () => {
  expect(inSteps(-2.449, 0.1)).toBe(-2.4);
  expect(inSteps(7.23456, 0.001)).toBe(7.235);
  expect(inSteps(0.3, 0.1)).toBe(0.3);
  expect(Object.is(inSteps(-0.04, 0.1), 0)).toBe(true);
});
