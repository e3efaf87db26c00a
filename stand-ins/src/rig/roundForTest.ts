import { describeNoise, findMisfits, type PlannedChannel } from '@pebble-hall/core/commissioning';
import { distanceBetween } from '@pebble-hall/core/geometry';
import { speedOfSound } from '@pebble-hall/core/room';
import { exponentialSweep } from '@pebble-hall/core/signal';
import { expect } from 'vitest';
import { NET_LOFT_LOUDSPEAKERS } from '../net-loft/index.js';
import { noFaults, SimulatedRoom, type Faults } from './index.js';
import { homeSpot, measure } from './measureForTest.js';

export const short = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 1, levelDbfs: -36 });
export const building = new SimulatedRoom(1);
export const siskin = { input: 1, position: homeSpot, serial: 4417, incidenceDeg: 0 as const, gainDb: 0 };

/** One short round over all channels at the home spot. */
export function round(room: SimulatedRoom, faults: Partial<Faults> = {}) {
  return NET_LOFT_LOUDSPEAKERS.map((l) => {
    const analysed = measure(room, l.output, homeSpot, undefined, { ...noFaults(), ...faults }, short);
    const distance = distanceBetween(homeSpot, l.position);
    const { band } = analysed.verdict;
    const planned: PlannedChannel = {
      id: l.id,
      role: l.role,
      travelS: distance / speedOfSound(20),
      delayS: 0,
      arrivalS: band ? (analysed.polarity?.arrivalS ?? null) : null,
      band,
    };
    return { id: l.id, ...analysed, planned };
  });
}

/** A healthy hour of the room: no channel is called faulty, none misfits the plan, and nothing is said of its silence. */
export function expectHealthy(seed: number) {
  const room = building.another(seed);
  const channels = round(room);
  for (const { verdict, polarity, id, distortionDb } of channels) {
    expect(verdict.reasons, id).toEqual([]);
    expect(polarity!.reversed, id).toBe(false);
    expect(polarity!.certainty, id).toBeGreaterThan(1.2);
    expect(distortionDb, id).toBeLessThan(-30);
  }
  expect(findMisfits(channels.map((c) => c.planned))).toEqual([]);
  const silence = room.listen(siskin, noFaults(), seed * 100_000, 96000);
  expect(describeNoise(silence, 48000).filter((t) => t.kind !== 'rumble')).toEqual([]);
}
