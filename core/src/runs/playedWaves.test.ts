import { expect, it } from 'vitest';
import { speedOfSound } from '../room/index.js';
import { sceneOf } from '../tracing/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { boxWaves } from '../waves/index.js';
import { lowsPlayed, playedWaves, wavesFrom, type PlayedRoom } from './index.js';

const size = { x: 5.6, y: 4.1, z: 2.6 };
const walls = [0.2, 0.3, 0.15, 0.25, 0.2, 0.3];
const faces = boxFaces(size, walls, 0.1);
const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const room: PlayedRoom = { faces, scene: sceneOf(faces), volume: 59.7, air, mirrored: 3 };
const plan = { upToHz: 110, stepM: 0.16 };
const points = [
  { x: 0.7, y: 0.9, z: 1.1 },
  { x: 5, y: 3.6, z: 0.4 },
  { x: 9, y: 2, z: 1 },
];
const receiver = { x: 3.6, y: 2.5, z: 1.2 };
const speed = speedOfSound(20);
const into = { rate: 1000, size: 2048, speed };
const cells = playedWaves(room, plan, receiver)!;
const heard = wavesFrom(room, cells, receiver, points, 0.9)!;

it('brings from two points together what the modes of the box bring, delayed and turned over as asked', () => {
  const played = [
    { index: 0, delayS: 0, gain: 1 },
    { index: 1, delayS: 0.004, gain: -0.5 },
  ];
  const [lows] = lowsPlayed(heard, played, into).octaves;
  const [modal] = boxWaves(
    { size, absorption: walls.map((a) => Array<number>(8).fill(a)) as never, air },
    played.map(({ index, ...rest }) => ({ ...rest, position: points[index]! })),
    receiver,
    { ...into, upToHz: 120, octaves: 1 },
  );
  const db = (of: typeof lows, k: number) => 20 * Math.log10(Math.hypot(of!.re[k]!, of!.im[k]!));
  const errors: number[] = [];
  for (let k = 51; k < 225; k++) errors.push(Math.abs(db(lows, k) - db(modal!, k)));
  expect(errors.reduce((a, b) => a + b) / errors.length).toBeLessThan(1);
});

it('a point outside brings nothing; a receiver outside hears nothing', () => {
  const [lows] = lowsPlayed(heard, [{ index: 2, delayS: 0, gain: 1 }], into).octaves;
  expect(lows!.re.every((v) => v === 0)).toBe(true);
  expect(wavesFrom(room, cells, { x: 9, y: 1, z: 1 }, points, 0.9)).toBeNull();
});

it('a room that is not closed has no cells', () => {
  const holed = { ...room, scene: sceneOf(faces.slice(0, 5)) };
  expect(playedWaves(holed, plan, receiver)).toBeNull();
});
