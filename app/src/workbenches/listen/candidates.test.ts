import { netLoftProject } from '../../../../demo/netLoftProject';
import { plainOutput } from '@pebble-hall/core/processing';
import type { Project } from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import {
  AS_FOUND,
  AS_LEFT,
  candidatesOf,
  HEADPHONES,
  headphoneCandidates,
  waysOf,
  playingOwnBass,
} from './candidates';

const project = netLoftProject();
const loaded: Project = {
  ...project,
  loads: [
    {
      id: 'load-1',
      letter: 'C',
      name: '',
      loadedAt: 1,
      checksum: 1,
      filters: {},
      spans: {},
      outputs: [plainOutput()],
      before: null,
      designKey: '',
      variantId: null,
      variantName: '',
      verdict: null,
    },
  ],
};

describe('what can be listened to', () => {
  it('is the room as found and every variant, and as left once something was loaded', () => {
    const variants = project.variants.map((v) => v.name);
    expect(candidatesOf(project).map((c) => c.name)).toEqual(['as found', ...variants]);
    expect(candidatesOf(loaded).map((c) => c.name)).toEqual(['as found', 'as left, memory C', ...variants]);
    expect(candidatesOf(loaded).map((c) => c.source)).toContain(AS_LEFT);
  });

  it('is nothing as left when an old load did not keep its settings', () => {
    const old = { ...loaded, loads: [{ ...loaded.loads[0]!, outputs: null }] };
    expect(candidatesOf(old)).toEqual(candidatesOf(project));
  });
});

it('says which loudspeakers give their bass to the subwoofers in a variant, and in what was loaded', () => {
  const highPass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 80 };
  const [first] = project.variants;
  const correction = { ...first!.correction, crossovers: { right: { highPass, lowPass: highPass } } };
  const crossed = { ...loaded, variants: [{ ...first!, correction }] };
  const both = { leftId: 'left', rightId: 'right' };
  expect(playingOwnBass(crossed, { source: first!.id }, both)).toEqual(['Right']);
  expect(playingOwnBass(crossed, { source: first!.id }, { leftId: 'left', rightId: 'left' })).toEqual([]);
  expect(playingOwnBass(crossed, { source: AS_FOUND }, both)).toEqual([]);
  expect(playingOwnBass(crossed, { source: AS_LEFT }, both)).toEqual([]);
  const outputs = [{ ...plainOutput(), bassFeed: { gainDb: 0, lowPass: highPass } }];
  const sent = { ...crossed, loads: [{ ...loaded.loads[0]!, outputs }] };
  expect(playingOwnBass(sent, { source: AS_LEFT }, both)).toEqual(['Left']);
});

describe('headphones', () => {
  const place = { spotId: 'home', leftId: 'left', rightId: 'right', through: 'headphones' as const };
  const corrected = {
    fir: Float32Array.of(0.5, 0.25),
    toneDb: 4.5,
    targetDb: new Float64Array(0),
    foundDb: new Float64Array(0),
    predictedDb: new Float64Array(0),
    distance: { before: 3, after: 1 },
  } as unknown as Parameters<typeof waysOf>[4];

  it('are compared as they are and corrected', () => {
    expect(headphoneCandidates('Knot 40, closed').map((c) => c.source)).toEqual([AS_FOUND, HEADPHONES]);
  });

  it('corrected are lowered by the largest gain of their correction, on both sides alike', async () => {
    const ways = await waysOf(project, { source: HEADPHONES }, place, null, corrected);
    expect(ways.map((w) => w.channel)).toEqual([0, 1]);
    for (const way of ways) {
      expect(way.fir).toBe(corrected!.fir);
      expect(way.after.trimDb - way.before.trimDb).toBeCloseTo(-4.5, 9);
      expect(way.impulse).toBeNull();
    }
  });

  it('as they are have nothing in the way but the trim of a chain', async () => {
    const chain = { strength: 1, style: 'minimum' as const, trimDb: -2 };
    const [way] = await waysOf(project, { source: AS_FOUND }, place, chain, corrected);
    expect(way).toMatchObject({ fir: null, feed: null });
    expect(way!.after.trimDb).toBe(-2);
  });

  it('say so when their correction is not there yet', async () => {
    await expect(waysOf(project, { source: HEADPHONES }, place)).rejects.toThrow('not ready yet');
  });
});
