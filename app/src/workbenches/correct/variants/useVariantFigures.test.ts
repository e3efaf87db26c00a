import type { ChannelDesign } from '@pebble-hall/core/correct';
import { expect, it } from 'vitest';
import { variantFigures } from './useVariantFigures';

const design = (before: number, after: number, leftOut: number | null, gain: number, alone: number) =>
  ({
    distance: { before, after },
    distanceLeftOut: leftOut === null ? null : { before, after: leftOut },
    gainDb: Float64Array.of(-9, gain),
    leftAlone: Array.from({ length: alone }, () => ({})),
  }) as ChannelDesign;

it('a variant is told by the means of its channels, and by its largest boost', () => {
  expect(variantFigures([design(6, 1, 2, 3, 1), design(4, 2, null, 5, 2)])).toEqual({
    distance: { before: 5, after: 1.5 },
    leftOutDb: 2,
    boostDb: 5,
    leftAlone: 3,
  });
  expect(variantFigures([design(6, 1, null, -2, 0)])).toMatchObject({ leftOutDb: null, boostDb: 0 });
  expect(variantFigures([])).toBeNull();
});
