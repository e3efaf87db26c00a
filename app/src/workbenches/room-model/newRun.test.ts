import { distanceBetween } from '@pebble-hall/core/geometry';
import { emptyProject, newPlace } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { receiversOf, runAsked, usualAccuracy, type RunAsking } from './newRun';

const place = newPlace({ name: 'P', kind: 'hall', size: { x: 20, y: 12, z: 6 }, layoutId: 'none' });

it('a line goes from the source over the middle to the wall behind it, evenly, at ear height', () => {
  const source = { x: 2, y: 6, z: 1.6 };
  const line = receiversOf({ ...place, audience: [] }, 'a line to the rear', source);
  expect(line).toHaveLength(12);
  const along = line.map(({ position }) => position.x - source.x);
  expect(along[0]).toBeCloseTo(1, 6);
  // to within a step of half a metre ahead of the wall at 20 m
  expect(along.at(-1)).toBeCloseTo(17.5, 1);
  for (const { position, azimuthDeg } of line) {
    expect(position.y).toBeCloseTo(6, 6);
    expect(position.z).toBeCloseTo(1.2, 6);
    // it looks at where the sound comes from
    expect(Math.abs(azimuthDeg)).toBe(180);
  }
  const steps = line.slice(1).map((r, i) => distanceBetween(r.position, line[i]!.position));
  for (const step of steps) expect(step).toBeCloseTo(steps[0]!, 6);
  expect(new Set(line.map((r) => r.name)).size).toBe(12);
});

it('a grid stands over the audience, no wider than it needs, at the ears of those who sit there', () => {
  const outline = [
    { x: 6, y: 2 },
    { x: 16, y: 2 },
    { x: 16, y: 10 },
    { x: 6, y: 10 },
  ];
  const area = {
    id: 'a',
    name: 'Stalls',
    outline,
    facingDeg: 180,
    floorM: 0.2,
    riseM: 0.1,
    earM: 1.2,
    rowM: 0.9,
    seatM: 0.55,
  };
  const grid = receiversOf({ ...place, audience: [area] }, 'a grid over the audience', {
    x: 2,
    y: 6,
    z: 1.6,
  });
  // 80 m2 in steps of a metre
  expect(grid).toHaveLength(80);
  for (const { position } of grid) {
    expect(position.x).toBeGreaterThan(6);
    expect(position.y).toBeLessThan(10);
    expect(position.z).toBeCloseTo(
      area.floorM + area.earM + area.riseM * Math.floor((position.x - 6) / area.rowM),
      6,
    );
  }
  const floor = receiversOf({ ...place, audience: [] }, 'a grid over the audience', { x: 2, y: 6, z: 1.6 });
  expect(Math.abs(floor.length - 80)).toBeLessThan(10);
});

it('those who hear it look at the source, or all along one axis', () => {
  const source = { x: 2, y: 6, z: 1.6 };
  const along = receiversOf({ ...place, audience: [] }, 'a line to the rear', source, { alongDeg: 90 });
  expect(new Set(along.map((r) => r.azimuthDeg))).toEqual(new Set([90]));
});

it('a small room is traced finely, as that takes a moment; a hall as usual', () => {
  const room = newPlace({
    name: 'R',
    kind: 'listening room',
    size: { x: 6, y: 4, z: 2.6 },
    layoutId: 'none',
  });
  expect(usualAccuracy(room)).toBe('fine');
  expect(usualAccuracy(place)).toBe('usual');
});

it('numbers that one types stand in place of what is suggested, and no others do', () => {
  const project = emptyProject({ id: 'p', name: 'P', place, rigKind: 'simulated' });
  const asked: RunAsking = {
    name: 'Run',
    talker: true,
    talkerAt: { x: 2, y: 6, z: 1.6 },
    voice: 'normal',
    sounds: 'speech',
    loudspeakerIds: [],
    signalDbfs: -20,
    heard: 'a few seats',
    looking: { alongDeg: null },
    tracedBy: 'browser',
    accuracy: 'usual',
    own: {},
    noiseDb: null,
  };
  const suggested = runAsked(project, asked, 1);
  const own = runAsked(project, { ...asked, own: { raysPerGroup: 777, mirrored: 0 } }, 1);
  expect(own).toMatchObject({ raysPerGroup: 777, mirrored: 0, groups: 10, lengthS: suggested.lengthS });
  expect(suggested.raysPerGroup).toBeGreaterThan(777);
  expect(suggested.mirrored).toBeGreaterThan(0);
});
