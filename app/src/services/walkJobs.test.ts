import type { Project } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';
import { placesFrom, stopAt, stopsAgain, stopsLeft, walkingMicrophones } from './walkJobs';

const base = netLoftProject();
const [first] = base.rig.microphones;
const withMicrophones = (rig: Partial<Project['rig']>): Project => ({
  ...base,
  rig: {
    ...base.rig,
    microphones: [first!, { ...first!, id: 'second', input: 3 }, { ...first!, id: 'third', input: 4 }],
    ...rig,
  },
});
const spotsOf = (places: { spotId: string }[]) => places.map((p) => p.spotId);

it('takes one spot after another with one microphone', () => {
  const stops = stopsLeft(base);
  expect(stops.map((s) => spotsOf(s.places))).toEqual(base.place.spots.map((s) => [s.id]));
  expect(stops[0]!.jobs.map((j) => j.loudspeakerId)).toEqual(base.place.loudspeakers.map((l) => l.id));
});

it('gives every microphone that walks along a spot of its own, and one play to all of them', () => {
  const project = withMicrophones({ alongIds: ['second', 'third'] });
  expect(stopsLeft(project).map((s) => spotsOf(s.places))).toEqual([
    ['home', 'spot-2', 'spot-3'],
    ['spot-4'],
  ]);
  expect(placesFrom(project, 'spot-3')).toEqual([
    { spotId: 'spot-3', microphoneId: first!.id },
    { spotId: 'spot-4', microphoneId: 'second' },
    { spotId: 'home', microphoneId: 'third' },
  ]);
  expect(stopAt(project, placesFrom(project, 'home')).jobs).toHaveLength(base.place.loudspeakers.length);
});

it('lets a microphone on the floor take no spot', () => {
  const pairs = [{ earId: first!.id, floorId: 'second', crossoverHz: 1000 }];
  const project = withMicrophones({ alongIds: ['second', 'third'], pairs });
  expect(walkingMicrophones(project).map((m) => m.id)).toEqual([first!.id, 'third']);
});

it('takes again only what was asked for', () => {
  const stops = stopsAgain(base, [
    { spotId: 'home', loudspeakerId: 'left' },
    { spotId: 'spot-2', loudspeakerId: 'left' },
    { spotId: 'home', loudspeakerId: 'right' },
  ]);
  expect(stops.map((s) => [spotsOf(s.places), s.jobs.map((j) => j.loudspeakerId)])).toEqual([
    [['home'], ['left', 'right']],
    [['spot-2'], ['left']],
  ]);
});
