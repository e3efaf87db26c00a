import { liveGrid } from '@pebble-hall/core/live';
import { LAYOUTS } from '@pebble-hall/core/layouts';
import { newProject } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { keptName, originOf, packCurve, unpackCurve } from './keepTrace';

const project = newProject('p', {
  name: 'the Net Loft',
  kind: 'listening room',
  size: { x: 5, y: 4, z: 2.6 },
  layoutId: LAYOUTS[1]!.id,
  rig: 'simulated',
});
const about = {
  memory: { letter: 'B', name: 'Evening', checksum: 1, hasFilters: true },
  generator: project.live.generator,
  isAverage: false,
};

it('a curve comes back as it was packed, to single precision', () => {
  const frequency = liveGrid(48_000);
  const curve = {
    frequency,
    re: frequency.map((f) => (f < 30 ? NaN : Math.cos(f))),
    im: frequency.map((f) => (f < 30 ? NaN : Math.sin(f))),
    coherence: frequency.map((f) => (f < 100 ? NaN : 0.5)),
  };
  const back = unpackCurve(packCurve('x', curve, 48_000));
  frequency.forEach((f, n) => {
    expect(Math.abs(back.frequency[n]! / f - 1)).toBeLessThan(1e-7);
    if (f < 30) expect(back.re[n]).toBeNaN();
    else expect(back.re[n]).toBeCloseTo(curve.re[n]!, 6);
  });
  expect(back.coherence[0]).toBeNaN();
  expect(packCurve('x', curve, 48_000).samples.every(Number.isFinite)).toBe(true);
});

it('knows everything about where it comes from, and a name that says it', () => {
  const origin = originOf(project, 'measurement-1', { delayS: 0.0123, blocks: 17 }, about)!;
  expect(origin).toMatchObject({
    input: 1,
    reference: 2,
    delayS: 0.0123,
    blocks: 17,
    microphoneId: 'microphone-1',
    position: project.place.spots[0]!.position,
    rigName: expect.stringContaining('simulated') as string,
  });
  const channel = project.place.loudspeakers[0]!.name;
  const name = keptName(project, 'Row 4', origin);
  expect(name).toContain('Row 4');
  expect(name).toContain(channel);
  expect(name).toContain('memory B');
  const kept = [{ name } as (typeof project.kept)[number]];
  expect(keptName({ ...project, kept }, 'Row 4', origin)).not.toBe(name);
  expect(originOf(project, 'gone', { delayS: 0, blocks: 1 }, about)).toBeNull();
});
