import { expect, it } from 'vitest';
import { levelAdvice, type Project } from './index.js';

/** A project whose channels were checked at a level, with so much above the noise in every third octave. */
function checked(
  levelDbfs: number,
  checks: Record<string, { at: number; snrDb: number; clipped?: boolean }>,
) {
  const margins = (snrDb: number) =>
    [100, 1000, 10000].map((centre) => ({ centre, noiseDb: -90, signalDb: -90 + snrDb, snrDb }));
  return {
    place: { loudspeakers: Object.keys(checks).map((id) => ({ id, name: id, fitted: true })) },
    rig: {
      levelDbfs,
      checks: Object.fromEntries(
        Object.entries(checks).map(([id, { at, snrDb, clipped }]) => [
          id,
          {
            levelDbfs: at,
            margins: margins(snrDb),
            verdict: {
              band: { from: 100, to: 10000 },
              reasons: clipped ? [{ kind: 'clipped', count: 22257, atS: 1 }] : [],
            },
          },
        ]),
      ),
    },
  } as unknown as Pick<Project, 'place' | 'rig'>;
}

it('brings the weakest channel to 30 dB and 14 to spare in one step, and stays there', () => {
  // 20 dB at -48 dBFS want 24 dB more
  const quiet = levelAdvice(checked(-48, { left: { at: -48, snrDb: 30 }, sub: { at: -48, snrDb: 20 } }))!;
  expect(quiet).toMatchObject({ suggestedDbfs: -24, weakest: { name: 'sub', snrDb: 20 }, clipped: null });
  const then = levelAdvice(checked(-24, { left: { at: -24, snrDb: 54 }, sub: { at: -24, snrDb: 44 } }))!;
  expect(then.suggestedDbfs).toBe(-24);
  expect(levelAdvice(checked(-24, {}))).toBeNull();
});

it('never goes near a level at which an input has clipped', () => {
  const loud = levelAdvice(checked(-23, { left: { at: -23, snrDb: 20, clipped: true } }))!;
  expect(loud.suggestedDbfs).toBe(-33);
  expect(loud.clipped).toEqual({ name: 'left', levelDbfs: -23 });
  expect(levelAdvice(checked(-33, { left: { at: -23, snrDb: 60, clipped: true } }))!.suggestedDbfs).toBe(-33);
});
