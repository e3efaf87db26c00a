import { sweepForTest } from '../../../../demo/sweepForTest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import { expect, it } from 'vitest';

import { followStateOf } from './followStateOf';

const project = netLoftProject();
const [home, second] = project.place.spots;
const empty = () => 'empty' as const;

it('tells who is away where the stand goes next, counted from the home spot', () => {
  const told = followStateOf(project, null, second!, empty);
  expect(told).toMatchObject({
    phase: 'idle',
    spot: 'Spot 2',
    where: '52 cm left of the home spot, 1.14 m high',
    channel: null,
    trouble: null,
  });
  expect(told.spots).toHaveLength(project.place.spots.length);
  expect(followStateOf(project, null, home!, empty).where).toBe('sets level and delay, 1.14 m high');
});

it('follows the sweep that is under way, at all spots that have a microphone', () => {
  const now = {
    phase: 'sweeping' as const,
    spotIds: [home!.id, second!.id],
    loudspeakerId: 'sub-1',
    leftS: 0,
    done: 3,
    total: 14,
    share: 0.4,
  };
  const told = followStateOf(project, now as Parameters<typeof followStateOf>[1], home!, empty);
  expect(told).toMatchObject({
    spot: 'Home spot and Spot 2',
    channel: 'Sub 1',
    done: 3,
    total: 14,
    share: 0.4,
  });
  expect(told.where).toBe('sets level and delay, 1.14 m high; 52 cm left of the home spot, 1.14 m high');
});

it('names the first channel that did not come out well there, and why', () => {
  const silent = {
    state: 'failed' as const,
    reasons: [{ kind: 'silent' as const, snrDb: 0 }],
    snrDb: 0,
    band: null,
  };
  const sweeps = [sweepForTest('home', 'left'), sweepForTest('home', 'centre', { verdict: silent })];
  const told = followStateOf({ ...project, sweeps }, null, home!, empty);
  expect(told.trouble).toMatch(/^Centre: nothing arrived/);
  expect(followStateOf({ ...project, sweeps }, null, second!, empty).trouble).toBeNull();
});
