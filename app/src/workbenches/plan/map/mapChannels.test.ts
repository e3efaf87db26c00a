import { mapFrequencies } from '@pebble-hall/core/coverage';
import { pathTrace, signalPath } from '@pebble-hall/core/path';
import { expect, it } from 'vitest';
import { slipHallProject } from '../../../../../demo/slipHallProject';
import { mapChannels, type ChannelsAsked, type FirResponse } from './mapChannels';
import { PLAIN } from './mapSettings';

const { place } = slipHallProject();
const id = place.loudspeakers[0]!.id;
const section = { kind: 'peak' as const, frequency: 500, gainDb: -4, q: 2 };
const frequency = mapFrequencies({ kind: 'third', centre: 1000 });
const response: FirResponse = (fir, rate, at) => Promise.resolve(pathTrace(signalPath(rate, { fir }), at));
const asked = (more: Partial<ChannelsAsked> = {}): ChannelsAsked => ({
  place,
  settings: PLAIN,
  correction: { alignment: {}, subs: {}, crossovers: {}, allPasses: {}, sections: {} },
  filters: null,
  rate: 48_000,
  ...more,
});

it('has the fitted filter of a channel at the frequencies of the map, its sections in place of none', async () => {
  const fir = Float32Array.of(0, 0.5);
  const filters = new Map([[id, { fir, sections: [section] }]]);
  const { all } = await mapChannels(asked({ filters }), frequency, response);
  const [first, ...rest] = all;
  // a sample later, half as large
  expect(first!.filter!.re[2]).toBeCloseTo(0.5 * Math.cos((2 * Math.PI * frequency[2]!) / 48_000), 6);
  expect(first!.path.filters).toHaveLength(1);
  expect(rest.every((c) => c.filter === undefined && c.path.filters.length === 0)).toBe(true);
});

it('has no filter where none is asked for, and takes models of ones own by their names', async () => {
  const own = {
    id: 'm',
    name: 'Heron 12',
    role: 'full range' as const,
    ...{ sensitivityDb: 97, largestDb: 131 },
    source: { kind: 'table' as const, fileId: 'f' },
  };
  const loudspeakers = place.loudspeakers.map((l) => (l.id === id ? { ...l, model: 'Heron 12' } : l));
  const { all } = await mapChannels(asked({ place: { loudspeakers, models: [own] } }), frequency, response);
  expect(all[0]!.model).toEqual(own);
  expect(all[0]!.filter).toBeUndefined();
});

it('the second of two maps may be tried louder and later; the first stays', async () => {
  const settings = { ...PLAIN, compares: true, second: [id], secondDb: 6, secondMs: 20 };
  const { first, others } = await mapChannels(asked({ settings }), frequency, response);
  expect(others.map((c) => [c.path.gainDb, c.path.delayS])).toEqual([[6, 0.02]]);
  expect(first.every((c) => c.path.gainDb === 0 && c.path.delayS === 0)).toBe(true);
});
