import { distanceBetween, type Point } from '@pebble-hall/core/geometry';
import { LOW_DISTANCE_M, travelDifference } from '@pebble-hall/core/commissioning';
import { speedOfSound } from '@pebble-hall/core/room';
import { exponentialSweep } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { NET_LOFT_LOUDSPEAKERS } from '../net-loft/index.js';
import { SimulatedRoom } from './index.js';
import { homeSpot, measure } from './measureForTest.js';

const NEAR_M = 0.1;
const short = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 1, levelDbfs: -46 });

const room = new SimulatedRoom(3);

it('distances from a close microphone to the home spot, within 3 cm, of subwoofers within what is said of them', () => {
  for (const l of NET_LOFT_LOUDSPEAKERS) {
    const angle = (l.aimDeg * Math.PI) / 180;
    const front: Point = {
      ...l.position,
      x: l.position.x + NEAR_M * Math.cos(angle),
      y: l.position.y + NEAR_M * Math.sin(angle),
    };
    const near = measure(room, l.output, front, undefined, undefined, short);
    const far = measure(room, l.output, homeSpot, undefined, undefined, short);
    const difference = travelDifference(near.impulse, far.impulse, near.verdict.band!)!;
    const metres = difference * speedOfSound(20) + NEAR_M;
    const truth = distanceBetween(homeSpot, l.position);
    expect(Math.abs(metres - truth), l.id).toBeLessThan(l.role === 'subwoofer' ? LOW_DISTANCE_M : 0.03);
  }
});
