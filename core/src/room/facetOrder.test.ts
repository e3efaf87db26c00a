import { expect, it } from 'vitest';
import { facetOrder } from './index.js';

it('goes to the order that its faces allow', () => {
  expect(facetOrder(1)).toBe(5);
  expect(facetOrder(6)).toBe(5);
  expect(facetOrder(8)).toBe(4);
  expect(facetOrder(20)).toBe(2);
  expect(facetOrder(500)).toBe(1);
});
