import { expect, it } from 'vitest';
import { LIBRARY_PLOTS } from '@pebble-hall/core/project';
import { oneMorePlot, plotsWith } from './libraryLook';

it('a plot that is chosen twice changes places with the other', () => {
  expect(plotsWith(['Phase', 'Coherence'], 0, 'Group delay')).toEqual(['Group delay', 'Coherence']);
  expect(plotsWith(['Phase', 'Coherence'], 0, 'Coherence')).toEqual(['Coherence', 'Phase']);
});

it('one more plot is one that is not drawn yet, and four in all are enough', () => {
  expect(oneMorePlot(['Phase'], LIBRARY_PLOTS)).toEqual(['Phase', 'Group delay']);
  const three = oneMorePlot(['Group delay', 'Phase'], LIBRARY_PLOTS);
  expect(three).toEqual(['Group delay', 'Phase', 'Coherence']);
  expect(oneMorePlot(three, LIBRARY_PLOTS)).toEqual(three);
});
