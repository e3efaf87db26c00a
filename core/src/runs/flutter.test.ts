import { describe, expect, it } from 'vitest';
import { echoCriterion } from '../acoustics/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { sceneOf } from '../tracing/index.js';
import {
  echoMaker,
  findFlutter,
  heardInRun,
  partsOf,
  pressureResponse,
  sentBy,
  settingOfRun,
  traceGroup,
  tracedReceiver,
  type RoomRun,
} from './index.js';

/** A box whose faces in order of `boxFaces` (x, x, y, y, floor, ceiling) swallow so much. */
function heardIn(
  size: { x: number; y: number; z: number },
  absorption: number[],
  scattering: number,
  at = { source: { x: 2, y: 1.3, z: 1.5 }, receiver: { x: 4, y: 2.9, z: 1.4 } },
) {
  const run: RoomRun = {
    id: 'r',
    name: 'Run',
    madeAt: 1,
    faces: boxFaces(size, absorption, scattering).map((f, i) => ({
      name: `face ${i}`,
      corners: [...f.corners],
      absorption: f.absorption,
      scattering: f.scattering,
    })),
    volume: size.x * size.y * size.z,
    air: { temperatureC: 20, relativeHumidityPercent: 50 },
    sources: [{ id: 'o', name: 'One', kind: 'omnidirectional', position: at.source }],
    receivers: [{ id: 'a', name: 'Seat', position: at.receiver, azimuthDeg: 180 }],
    mirrored: 3,
    lengthS: 0.6,
    raysPerGroup: 1500,
    groups: 4,
    seed: 3,
    noiseLevelsDb: null,
    tracedBy: 'browser',
    isHeld: false,
  };
  const sent = sentBy(run.sources[0]!, null);
  const scene = sceneOf(run.faces);
  const rows = Array.from({ length: 4 }, (_, g) => traceGroup(run, scene, 0, g, sent));
  const parts = partsOf(run, rows);
  const receiver = tracedReceiver(run.receivers[0]!);
  const { all } = heardInRun(settingOfRun(run), parts, receiver, 0);
  return { run, all, receiver, flutter: findFlutter(settingOfRun(run), parts[0]!.source, receiver, all) };
}

describe('flutter', () => {
  it('is heard between two hard walls when all else swallows, with the period of the way there and back', () => {
    const { flutter } = heardIn({ x: 6, y: 4.2, z: 3 }, [0.8, 0.8, 0.03, 0.03, 0.8, 0.8], 0.02);
    expect(flutter?.faces).toEqual([2, 3]);
    expect(flutter!.periodS).toBeCloseTo(8.4 / 343.2, 4);
    expect(flutter!.pulses).toBeGreaterThanOrEqual(4);
  });
  it('is not heard where walls scatter, or one of them swallows', () => {
    expect(heardIn({ x: 6, y: 4.2, z: 3 }, [0.8, 0.8, 0.03, 0.03, 0.8, 0.8], 0.6).flutter).toBeNull();
    expect(heardIn({ x: 6, y: 4.2, z: 3 }, [0.8, 0.8, 0.03, 0.7, 0.8, 0.8], 0.02).flutter).toBeNull();
  });
  it('is not heard in a room that rings all around', () => {
    expect(heardIn({ x: 6, y: 4.2, z: 3 }, [0.1, 0.1, 0.1, 0.1, 0.1, 0.1], 0.2).flutter).toBeNull();
  });
});

it('the wall that makes an echo is named: a hard one far behind, everything else soft', () => {
  const { run, all } = heardIn({ x: 22, y: 9, z: 6 }, [0.95, 0.02, 0.95, 0.95, 0.95, 0.95], 0.05, {
    source: { x: 2, y: 4, z: 1.6 },
    receiver: { x: 8, y: 5, z: 1.3 },
  });
  const { samples, zero } = pressureResponse(all, {
    rate: 16_000,
    volume: run.volume,
    speed: 343.2,
    seed: 1,
  });
  const echo = echoCriterion(samples, 16_000, zero, 'speech');
  // off the wall at x = 22: (20 + 14) m against 6.1 m
  const way = Math.hypot(34, 1, 0.3) - Math.hypot(6, 1, 0.3);
  expect(echo.largest).toBeGreaterThan(0.9);
  expect(Math.abs(echo.atS - way / 343.2)).toBeLessThan(0.012);
  expect(echoMaker(all, echo, 'speech')).toMatchObject({ faces: [1] });
});
