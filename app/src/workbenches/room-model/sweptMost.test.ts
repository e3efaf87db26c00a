import { expect, it } from 'vitest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import { sweepForTest } from '../../../../demo/sweepForTest';
import { runAsked, talkerPlace } from './newRun';
import { asSwept, playsFrom, sweptMost } from './sweptMost';

const project = netLoftProject();
const good = (spotId: string, loudspeakerId: string) =>
  sweepForTest(spotId, loudspeakerId, { verdict: { state: 'good', reasons: [], snrDb: 40, band: null } });

it('where nothing was swept there is nothing to hold a run against', () => {
  expect(sweptMost(project)).toBeNull();
});

it('a run as the walk was swept plays from what was swept at most spots, to the spots, and from nothing else', () => {
  const walked = {
    ...project,
    sweeps: [good('home', 'left'), good('home', 'right'), good('spot-2', 'right')],
  };
  const swept = sweptMost(walked)!;
  expect(swept.channel.id).toBe('right');
  expect(swept.sweeps.map((s) => s.spotId)).toEqual(['home', 'spot-2']);
  const asked = {
    name: 'Run',
    talkerAt: talkerPlace(walked.place),
    voice: 'normal' as const,
    signalDbfs: -20,
    looking: { alongDeg: null },
    tracedBy: 'browser' as const,
    accuracy: 'quick' as const,
    own: {},
    noiseDb: null,
    ...asSwept(swept),
  };
  const run = runAsked(walked, asked, 1);
  expect(run.sources.map((s) => s.id)).toEqual(['right']);
  expect(run.receivers.map((r) => r.id)).toEqual(walked.place.spots.map((s) => s.id));
  expect(playsFrom(run, 'right')).toBe(true);
  expect(playsFrom(run, 'left')).toBe(false);
  expect(playsFrom(runAsked(walked, { ...asked, talker: true }, 1), 'right')).toBe(false);
});
