import { netLoftProject } from '../../../demo/netLoftProject';
import { sweepForTest } from '../../../demo/sweepForTest';
import { expect, it } from 'vitest';
import { sweepOf, usableSpots } from './progress.js';
import type { Project, Sweep } from './types.js';

const project = netLoftProject();
const sweep = (spotId: string, loudspeakerId: string, state: Sweep['verdict']['state'] = 'good') =>
  sweepForTest(spotId, loudspeakerId, { verdict: { state, reasons: [], snrDb: 40, band: null } });
const all = (p: Project) => p.place.spots.flatMap((s) => p.place.loudspeakers.map((l) => sweep(s.id, l.id)));

it('uses the newest sweep, keeps failed ones out, and parts spots that only judge', () => {
  const sweeps = [
    ...all(project),
    { ...sweep('home', 'left'), id: 'newer' },
    sweep('spot-2', 'left', 'failed'),
  ];
  const p = { ...project, sweeps };
  expect(sweepOf(p, 'home', 'left')!.id).toBe('newer');
  const { averaged, leftOut } = usableSpots(p, 'left');
  expect(averaged.map((s) => s.spotId)).toEqual(['home', 'spot-3']);
  expect(leftOut.map((s) => s.spotId)).toEqual(['spot-4']);
});
