import { loudspeakerById } from './loudspeakers.js';
import type { Project, Sweep } from './types.js';
import { speedOfSound } from '../room/index.js';
import { expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';
import { staleSweeps } from './staleSweeps.js';
import { movedSpots } from './movedSpots.js';
import { conditionsNow } from './conditions.js';
import { oddSweeps } from './oddSweeps.js';
import { sweepForTest } from '../../../demo/sweepForTest';

const RIG = 'Burrow 8';
const empty = netLoftProject();
const c = speedOfSound(empty.place.temperatureC);

/** Every sweep of the round as the plan has it: -40 dB in three bands, on time. */
const taken = (change: (sweep: Sweep) => Partial<Sweep> = () => ({})): Project => ({
  ...empty,
  sweeps: empty.place.spots.flatMap((spot) =>
    empty.place.loudspeakers.map((loudspeaker): Sweep => {
      const [a, b] = [spot.position, loudspeaker.position];
      const sweep = sweepForTest(spot.id, loudspeaker.id, {
        id: `${spot.id} ${loudspeaker.id}`,
        verdict: { state: 'good', reasons: [], snrDb: 40, band: { from: 80, to: 125 } },
        margins: [80, 100, 125].map((centre) => ({ centre, noiseDb: -80, signalDb: -40, snrDb: 40 })),
        arrivalS: Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z) / c + 0.00125,
        conditions: conditionsNow(empty, spot, loudspeaker, RIG),
      });
      return { ...sweep, ...change(sweep) };
    }),
  ),
});
const at = (spotId: string, loudspeakerId: string, next: (s: Sweep) => Partial<Sweep>) => (s: Sweep) =>
  s.spotId === spotId && s.loudspeakerId === loudspeakerId ? next(s) : {};

it('finds nothing odd in a round as it should be', () => {
  expect(oddSweeps(taken())).toEqual([]);
});

it('finds what is much quieter, or later, than at the other spots; not a subwoofer by its onset', () => {
  const soft = (s: Sweep) => ({ margins: s.margins.map((m) => ({ ...m, signalDb: -60 })) });
  expect(oddSweeps(taken(at('spot-2', 'left', soft)))).toMatchObject([
    { kind: 'quieter', by: 20, sweep: { spotId: 'spot-2', loudspeakerId: 'left' } },
  ]);
  const late = (s: Sweep) => ({ arrivalS: s.arrivalS! + 0.005 });
  const [odd, ...more] = oddSweeps(taken(at('spot-3', 'centre', late)));
  expect(more).toEqual([]);
  expect(odd).toMatchObject({ kind: 'later', sweep: { spotId: 'spot-3', loudspeakerId: 'centre' } });
  expect(odd!.by).toBeCloseTo(5, 6);
  expect(oddSweeps(taken(at('spot-3', 'sub-1', late)))).toEqual([]);
});

it('tells which sweeps no longer belong together, and what has changed', () => {
  const now = taken();
  expect(staleSweeps(now, RIG)).toEqual([]);
  const place = (change: Partial<Project['place']>) => ({ ...now, place: { ...now.place, ...change } });
  const moved = place({
    loudspeakers: now.place.loudspeakers.map((l) =>
      l.id === 'left' ? { ...l, position: { ...l.position, y: l.position.y + 0.32 } } : l,
    ),
  });
  const [stale, ...more] = staleSweeps(moved, RIG);
  expect(more).toEqual([]);
  expect(stale).toMatchObject({ text: 'Left was moved by 0.32 m since' });
  expect(stale!.sweeps).toHaveLength(now.place.spots.length);
  expect(staleSweeps(place({ temperatureC: now.place.temperatureC + 8 }), RIG)[0]!.text).toMatch(
    /°C then and is/,
  );
  const next = {
    ...moved,
    rounds: [...moved.rounds, { id: 'r2', name: 'Second', startedAt: 1, note: '' }],
    roundId: 'r2',
  };
  expect(staleSweeps(next, RIG)).toEqual([]);
});

it('tells a microphone that was moved between two channels of a spot, and from where on', () => {
  expect(movedSpots(taken())).toEqual([]);
  // knocked by 20 cm before the surrounds, which are taken after the front
  const order = ['left', 'right', 'centre', 'surround-left', 'surround-right', 'sub-1', 'sub-2'];
  const moved = taken((s) => {
    const takenAt = order.indexOf(s.loudspeakerId);
    if (s.spotId !== 'spot-3' || takenAt < 3) return { takenAt };
    const [spot, loudspeaker] = [
      empty.place.spots.find((p) => p.id === s.spotId)!.position,
      loudspeakerById(empty.place, s.loudspeakerId)!.position,
    ];
    const way = Math.hypot(spot.x + 0.2 - loudspeaker.x, spot.y - loudspeaker.y, spot.z - loudspeaker.z);
    return { takenAt, arrivalS: way / c + 0.00125 };
  });
  const [found, ...more] = movedSpots(moved);
  expect(more).toEqual([]);
  expect(found!.spot.id).toBe('spot-3');
  expect(found!.sweeps.map((s) => s.loudspeakerId)).toEqual(['surround-left', 'surround-right']);
  expect(found!.byM).toBeGreaterThan(0.05);
});
