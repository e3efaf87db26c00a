import { sweepForTest } from '../../../../demo/sweepForTest';
import { type Project } from '@pebble-hall/core/project';
import { whiteNoise } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import { knockedSpots } from './useKnocked';

const empty = netLoftProject();
const order = empty.place.loudspeakers.map((l) => l.id);
const place = (seed: number) => Float32Array.from(whiteNoise(2048, seed));
/** What the click became at the microphone, by name: a little noise on what the place makes of it. */
const answer = (name: string): Float32Array => {
  const [where, take] = name.split(' ');
  const noise = whiteNoise(2048, 100 + Number(take));
  return place(Number(where)).map((v, i) => v + 0.05 * noise[i]!);
};
const read = async (id: string) => (id.startsWith('lost') ? null : answer(id));
/** One sweep of every channel at the home spot, the click's answers in that order. */
const taken = (answers: (string | null)[], failed: number[] = []): Project => ({
  ...empty,
  sweeps: answers.map((referenceId, i) =>
    sweepForTest('home', order[i]!, {
      takenAt: 10 + i,
      referenceId,
      verdict: { state: failed.includes(i) ? 'failed' : 'good', reasons: [], snrDb: 40, band: null },
    }),
  ),
});
const told = async (project: Project) =>
  (await knockedSpots(project, read)).map((k) => [k.spot.id, k.sweeps.map((s) => s.loudspeakerId)]);

describe('a knocked stand', () => {
  it('is not told of while the click keeps its sound', async () => {
    expect(await told(taken(['1 1', '1 2', '1 3', '1 4']))).toEqual([]);
  });

  it('is told from the sweep on where the click changed, with all that came after it', async () => {
    expect(await told(taken(['1 1', '1 2', '2 3', '2 4']))).toEqual([['home', [order[2], order[3]]]]);
  });

  it('goes by the order in which sweeps were taken, not by that of the channels', async () => {
    const { sweeps } = taken(['2 1', '1 2', '1 3']);
    const project = { ...empty, sweeps: sweeps.map((s, i) => ({ ...s, takenAt: i === 0 ? 99 : s.takenAt })) };
    expect(await told(project)).toEqual([['home', [order[0]]]]);
  });

  it('does not count sweeps without a click, failed ones, and answers that are lost', async () => {
    expect(await told(taken([null, '1 2', null, '1 4']))).toEqual([]);
    expect(await told(taken(['1 1', '2 2', '1 3'], [1]))).toEqual([]);
    expect(await told(taken(['1 1', 'lost', '1 3']))).toEqual([]);
  });

  it('at one spot says nothing of another', async () => {
    const home = taken(['1 1', '1 2']).sweeps;
    const other = taken(['2 3', '2 4']).sweeps.map((s) => ({ ...s, id: `o${s.id}`, spotId: 'spot-2' }));
    expect(await told({ ...empty, sweeps: [...home, ...other] })).toEqual([]);
  });
});
