import { netLoftProject } from '../../../../demo/netLoftProject';
import type { MemoryLoad } from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import { sweepForTest } from '../../parts/sweepForTest';
import { comparisonKey, othersOf } from './compareLoad';

const project = netLoftProject();
const arrived = (id: string, foundMs: number, laterMs: number | null) => ({
  id,
  foundS: foundMs / 1000,
  laterS: laterMs === null ? null : laterMs / 1000,
});

describe('what the other channels tell', () => {
  it('two that have changed places arrive like each other, the rest as before', () => {
    const all = [
      arrived('left', 9.1, 0.01),
      arrived('right', 9.9, -0.02),
      arrived('centre', 10.6, -2.6),
      arrived('surround-right', 8, 2.6),
      arrived('sub-1', 14.6, 1),
    ];
    expect(othersOf(project, all, all[2]!)).toEqual({
      laterS: -0.0026,
      othersArrive: true,
      arrivesLike: 'Surround right',
    });
    expect(othersOf(project, all, all[3]!)).toMatchObject({ othersArrive: true, arrivesLike: 'Centre' });
  });

  it('a microphone that moved is heard on all', () => {
    const all = [arrived('left', 9, 0.5), arrived('right', 9.3, -0.4), arrived('centre', 10, 0.3)];
    expect(othersOf(project, all, all[0]!).othersArrive).toBe(false);
  });

  it('a channel alone, and one beside subwoofers, has nothing to be held against', () => {
    const all = [arrived('left', 9, 0.5), arrived('sub-1', 12, 0), arrived('right', 9.2, null)];
    expect(othersOf(project, all, all[0]!)).toEqual({
      laterS: 0.0005,
      othersArrive: null,
      arrivesLike: null,
    });
  });
});

it('a comparison is another one once a sweep at that spot was repeated, and only then', () => {
  const span = { from: 40, to: 16000 };
  const load = { id: 'load-1', checksum: 5, spans: { left: span } } as unknown as MemoryLoad;
  const memory = { letter: 'B', name: '', checksum: 5, hasFilters: true };
  const sweeps = [
    sweepForTest('home', 'left', { traceId: 'a' }),
    sweepForTest('home', 'left', { id: 'v', traceId: 'b', stage: 'verified', memory }),
  ];
  const key = (more: typeof sweeps) =>
    comparisonKey({ ...project, sweeps: [...sweeps, ...more] }, load, 'home', 'verified');
  const again = sweepForTest('home', 'left', { id: 'w', traceId: 'c', stage: 'verified', memory });
  expect(key([again])).not.toBe(key([]));
  expect(key([sweepForTest('spot-2', 'left', { id: 'x', traceId: 'd' })])).toBe(key([]));
});
