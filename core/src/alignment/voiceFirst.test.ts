import { describe, expect, it } from 'vitest';
import { heardFirst, proposeVoiceFirst, voiceBoundDb, type VoiceAtSeats } from './index.js';

const C = 343;

/** Seats in a row from a talker, and loudspeakers at places along the row: levels by distance alone. */
function row(seatsM: number[], loudspeakersM: number[], loudspeakerDb: number, nearM = 0): VoiceAtSeats {
  const level = (far: number, at1: number) => at1 - 20 * Math.log10(Math.max(0.5, far));
  return {
    voiceDb: Float64Array.from(seatsM, (x) => level(x, 66)),
    voiceS: Float64Array.from(seatsM, (x) => x / C),
    levelDb: loudspeakersM.map((l) =>
      Float64Array.from(seatsM, (x) => level(Math.hypot(x - l, 3), loudspeakerDb)),
    ),
    arriveS: loudspeakersM.map((l) => Float64Array.from(seatsM, (x) => Math.hypot(x - l, 3) / C)),
    isNear: seatsM.map((x) => x < nearM),
  };
}
const seats = Array.from({ length: 30 }, (_, i) => 3 + i);

it('the bound: nothing at once, 10 dB from 5 to 30 ms, echoes after it', () => {
  expect(voiceBoundDb(-0.01)).toBe(-10);
  expect(voiceBoundDb(0.001)).toBe(0);
  expect(voiceBoundDb(0.003)).toBeCloseTo(5, 9);
  expect(voiceBoundDb(0.02)).toBe(10);
  expect(voiceBoundDb(0.055)).toBeCloseTo(0, 9);
  expect(voiceBoundDb(0.2)).toBe(-10);
});

describe('a talker and a loudspeaker overhead', () => {
  it('without a delay it is the loudspeaker that is heard, and far behind an echo when it comes late', () => {
    const at = row(seats, [20], 80);
    const now = heardFirst(at, [{ gainDb: 0, delayS: 0 }]);
    expect(now[17]).toMatchObject({ verdict: 'a loudspeaker', by: 0 });
    expect(now[17]!.laterS).toBeLessThan(0);
    const late = heardFirst(at, [{ gainDb: 0, delayS: 0.15 }]);
    expect(late[17]!.verdict).toBe('an echo');
    // soft enough it pulls nobody
    expect(heardFirst(at, [{ gainDb: -60, delayS: 0 }]).every((s) => s.verdict === 'the voice')).toBe(true);
  });

  it('as proposed the voice is heard at every seat, and is helped where it was weak', () => {
    const at = row(seats, [20], 80);
    const help = proposeVoiceFirst(at, { leadS: 0.01, louderDb: 6 });
    const heard = heardFirst(at, help);
    expect(heard.map((s) => s.verdict)).toEqual(seats.map(() => 'the voice'));
    expect(heard[help[0]!.seat]!.louderDb).toBeCloseTo(6, 6);
    // where it comes soonest after the voice among the seats where it counts, it is 10 ms later
    const counting = heard.filter((s) => s.louderDb >= -10);
    expect(Math.min(...counting.map((s) => s.laterS))).toBeCloseTo(0.01, 6);
  });
});

describe('two loudspeakers, one after the other', () => {
  const at = row(seats, [10, 24], 80);
  const help = proposeVoiceFirst(at, { leadS: 0.008, louderDb: 8 });
  it('the further one waits longer, by about the way of the voice between them', () => {
    const apart = help[1]!.delayS - help[0]!.delayS;
    expect(apart).toBeGreaterThan(8 / C);
    expect(apart).toBeLessThan(18 / C);
  });
  it('together they stay within the bound at every seat', () => {
    for (const s of heardFirst(at, help)) {
      expect(s.verdict).toBe('the voice');
      if (s.louderDb > -10)
        expect(s.louderDb).toBeLessThanOrEqual(Math.min(8, voiceBoundDb(s.laterS)) + 0.01);
    }
  });
});

it('seats near the talker are left out', () => {
  const at = row(seats, [4], 100, 8);
  const heard = heardFirst(at, proposeVoiceFirst(at, { leadS: 0.01, louderDb: 6 }));
  expect(heard.filter((s) => s.verdict === 'near')).toHaveLength(5);
  expect(heard.filter((s) => s.verdict !== 'near').every((s) => s.verdict === 'the voice')).toBe(true);
});

it('never a negative delay: what is further from the seats than the talker comes later anyway', () => {
  const at = row(seats, [-10], 80);
  expect(proposeVoiceFirst(at, { leadS: 0.005, louderDb: 3 })[0]!.delayS).toBe(0);
});

it('a loudspeaker that nobody hears is left as it is', () => {
  const at = row(seats, [10], -Infinity);
  expect(proposeVoiceFirst(at, { leadS: 0.01, louderDb: 6 })).toEqual([{ gainDb: 0, delayS: 0, seat: 0 }]);
  expect(heardFirst(at, [{ gainDb: 0, delayS: 0 }])[0]).toMatchObject({ by: -1, verdict: 'the voice' });
});

it('refuses wishes beyond the bound, and levels that are none', () => {
  const at = row(seats, [10], 80);
  expect(() => proposeVoiceFirst(at, { leadS: 0, louderDb: 6 })).toThrow(/lead/);
  expect(() => proposeVoiceFirst(at, { leadS: 0.01, louderDb: 20 })).toThrow(/louder/);
  at.voiceDb[3] = NaN;
  expect(() => proposeVoiceFirst(at, { leadS: 0.01, louderDb: 6 })).toThrow(/voice/);
});
