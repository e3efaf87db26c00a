import { roomFigures } from '@pebble-hall/core/acoustics';
import { channelEmission } from '@pebble-hall/core/coverage';
import { boxesOf, roomFacets, roomVolume } from '@pebble-hall/core/place';
import { signalPath } from '@pebble-hall/core/path';
import { OCTAVES, speedOfSound } from '@pebble-hall/core/room';
import {
  energyByWaves,
  gridOfRun,
  heardInRun,
  lowsOf,
  lowsOfRunSteps,
  lowsPlan,
  octavesByWaves,
  partsOf,
  readReceiver,
  sentBy,
  settingOfRun,
  suggestRun,
  traceGroup,
  tracedReceiver,
  type RoomRun,
} from '@pebble-hall/core/runs';
import { sceneOf } from '@pebble-hall/core/tracing';
import { expect, it } from 'vitest';
import { radiatingOf } from '../loudspeakers/index.js';
import { SimulatedRoom } from './index.js';
import { measure, spots } from './measureForTest.js';
import { NET_LOFT_PLACE } from './simulatedPlace.js';

const at = spots.slice(0, 6);
const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const faces = roomFacets(NET_LOFT_PLACE).map(({ name, corners, absorption, scattering }) => ({
  name,
  corners,
  absorption,
  scattering,
}));
const scene = sceneOf(faces);

/** T20 per octave at the spots, as the room model tells it of a run from a loudspeaker. */
function modelled(id: string): number[][] {
  const loudspeaker = NET_LOFT_PLACE.loudspeakers.find((l) => l.id === id)!;
  const run: RoomRun = {
    id: 'run',
    name: 'Run',
    madeAt: 0,
    faces,
    volume: roomVolume(NET_LOFT_PLACE),
    air,
    sources: [
      {
        id,
        name: loudspeaker.name,
        position: loudspeaker.position,
        kind: 'loudspeaker',
        loudspeakerId: id,
        signalDbfs: -20,
        setting: '',
      },
    ],
    receivers: at.map((position, i) => ({ id: `${i}`, name: `${i}`, position, azimuthDeg: 180 })),
    ...suggestRun({ meanFreePathM: 2.48, timeS: 0.5, faces: faces.length }, 'fine'),
    seed: 5,
    noiseLevelsDb: null,
    tracedBy: 'browser',
    isHeld: false,
  };
  const speed = speedOfSound(air.temperatureC);
  const sent = sentBy(
    run.sources[0]!,
    channelEmission(
      {
        id,
        model: radiatingOf(loudspeaker.model, loudspeaker.role),
        boxes: boxesOf(loudspeaker),
        path: signalPath(48_000),
      },
      speed,
    ),
  );
  const rows = Array.from({ length: run.groups }, (_, g) => traceGroup(run, scene, 0, g, sent));
  const parts = partsOf(run, rows);
  const plan = lowsPlan(run, scene);
  const grid = gridOfRun(run, scene, plan);
  if (typeof grid === 'string') throw new Error(grid);
  const steps = lowsOfRunSteps(run, plan, grid);
  let next = steps.next();
  while (!next.done) next = steps.next();
  const lows = next.value;
  const sources = [{ powerDb: OCTAVES.map(() => 0), delayS: 0 }];
  return run.receivers.map((receiver, i) => {
    const heard = heardInRun(settingOfRun(run), parts, tracedReceiver(receiver), i);
    const byWaves = energyByWaves(
      heard.all,
      { volume: run.volume, speed, seed: i },
      (into) => lowsOf(lows[i]!, 'one ear', 0, { ...into, directS: heard.all.directS, sources, speed })[0]!,
      octavesByWaves(plan),
    );
    return readReceiver(parts, heard, null, byWaves).figures.map((f) => f.t20);
  });
}

const mean = (rows: number[][]) =>
  OCTAVES.map((_, o) => {
    const known = rows.map((r) => r[o]!).filter(Number.isFinite);
    return known.reduce((a, b) => a + b, 0) / known.length;
  });

it('the Net Loft decays as measured in rehearsal and as modelled alike, within 10 % in each octave', () => {
  const room = new SimulatedRoom(4);
  const [measuredRows, modelledRows]: [number[][], number[][]] = [[], []];
  for (const [id, output] of [
    ['left', 1],
    ['centre', 3],
  ] as const) {
    modelledRows.push(...modelled(id));
    for (const spot of at)
      measuredRows.push(
        roomFigures(measure(room, output, spot).impulse)!.map(({ t20 }) => (t20.found ? t20.value : NaN)),
      );
  }
  const [measured, model] = [mean(measuredRows), mean(modelledRows)];
  OCTAVES.forEach((hz, o) =>
    expect(Math.abs(measured[o]! / model[o]! - 1), `${hz} Hz: ${measured[o]} and ${model[o]} s`).toBeLessThan(
      0.1,
    ),
  );
});
