import { expect, it } from 'vitest';
import { wrapped } from './wrapped';

it('leaves a gap where phase turns over, and nowhere else', () => {
  expect([...wrapped(Float64Array.of(150, 175, -178, -160, 20))]).toEqual([150, 175, NaN, -160, 20]);
  expect([...wrapped(Float64Array.of(-170, 10.1, 170))]).toEqual([-170, NaN, 170]);
});
