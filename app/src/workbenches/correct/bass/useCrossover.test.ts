import { expect, it } from 'vitest';
import { offeredCrossovers } from './useCrossover';

const kinds = [{ kind: 'Linkwitz-Riley' as const, order: 4 }];
const offered = (...corners: number[]) =>
  offeredCrossovers(kinds, corners).map(({ highPass, lowPass }) => {
    expect(highPass).toEqual(lowPass);
    return highPass!.frequency;
  });

it('offers third octaves from half an octave above where the channel that ends first does', () => {
  expect(offered()).toEqual([50, 63, 80, 100, 125, 160]);
  expect(offered(44)).toEqual([63, 80, 100, 125, 160]);
  expect(offered(44, 70)).toEqual([100, 125, 160]);
});

it('offers the highest where none lies above', () => {
  expect(offered(200)).toEqual([160]);
});
