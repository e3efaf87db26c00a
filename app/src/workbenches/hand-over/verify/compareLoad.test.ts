import { sweepForTest } from '../../../../../demo/sweepForTest';
import { netLoftProject } from '../../../../../demo/netLoftProject';
import { type MemoryLoad } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { comparisonGround } from './compareLoad';

const project = netLoftProject();
it('a comparison is another one once a sweep at that spot was repeated, and only then', () => {
  const span = { from: 40, to: 16000 };
  const load = { id: 'load-1', checksum: 5, spans: { left: span } } as unknown as MemoryLoad;
  const memory = { letter: 'B', name: '', checksum: 5, hasFilters: true };
  const sweeps = [
    sweepForTest('home', 'left', { traceId: 'a' }),
    sweepForTest('home', 'left', { id: 'v', traceId: 'b', stage: 'verified', memory }),
  ];
  const ground = (more: typeof sweeps) =>
    comparisonGround({ ...project, sweeps: [...sweeps, ...more] }, load, 'home', 'verified');
  const again = sweepForTest('home', 'left', { id: 'w', traceId: 'c', stage: 'verified', memory });
  expect(ground([again])).not.toEqual(ground([]));
  expect(ground([sweepForTest('spot-2', 'left', { id: 'x', traceId: 'd' })])).toEqual(ground([]));
});
