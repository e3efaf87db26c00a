// Level maps: redraws a second while something is dragged, the exact map of thirty thirds, and how both grow.
import { levelMap, THIRDS } from '../core/dist/coverage/index.js';
import { axesOf } from '../core/dist/geometry/index.js';
import { signalPath } from '../core/dist/path/index.js';

const MODEL = {
  name: 'Bench',
  about: '',
  axis: {
    kind: /** @type {const} */ ('filters'),
    low: { frequency: 60, order: 4 },
    high: { frequency: 18_000, order: 2 },
    resonances: [],
  },
  radiation: {
    kind: /** @type {const} */ ('ways'),
    ways: [
      {
        radiator: /** @type {const} */ ({ kind: 'cap', radiusM: 0.13, sphereM: 0.22 }),
        ...{ ahead: 0, left: 0, up: -0.12, gainDb: 0 },
        filters: [
          { kind: /** @type {const} */ ('low-pass'), frequency: 1400, order: /** @type {const} */ (4) },
        ],
      },
      {
        radiator: /** @type {const} */ ({ kind: 'opening', widthM: 0.16, heightM: 0.1, sphereM: 0.2 }),
        ...{ ahead: 0, left: 0, up: 0.12, gainDb: 0 },
        filters: [
          { kind: /** @type {const} */ ('high-pass'), frequency: 1400, order: /** @type {const} */ (4) },
        ],
      },
    ],
  },
  largestDb: 130,
  sensitivityDb: 97,
};

/** @param {number} count @param {number} shift */
const channels = (count, shift) =>
  Array.from({ length: count }, (_, i) => ({
    id: String(i),
    model: MODEL,
    boxes: [
      {
        position: { x: 0.5 * i + shift, y: 2 + (i % 7), z: 4 },
        axes: axesOf(3 * i, -10),
        delayMs: 0.3 * i,
        inverted: false,
      },
    ],
    path: signalPath(48_000),
  }));
/** @param {number} count */
const points = (count) =>
  Float64Array.from({ length: 3 * count }, (_, i) => [7 + (i % 31), i % 12, 1.2][i % 3] ?? 0);
const AIR = { temperatureC: 20, relativeHumidityPercent: 50 };
/** @param {number} sources @param {number} at @param {import('../core/dist/coverage/index.js').MapBand} band @param {number} shift */
const map = (sources, at, band, shift = 0) =>
  levelMap({
    channels: channels(sources, shift),
    points: points(at),
    ...{ band, how: /** @type {const} */ ('coherent'), signalDbfs: -20, speed: 343, air: AIR, ground: null },
  });

/** @param {() => void} run @param {number} times */
function ms(run, times) {
  run();
  const from = performance.now();
  for (let i = 0; i < times; i++) run();
  return (performance.now() - from) / times;
}

export function benchCoverage() {
  const at = /** @type {const} */ ({ kind: 'frequency', centre: 2000 });
  let shift = 0;
  const one = ms(() => map(40, 2000, at, (shift += 0.05)), 20);
  const all = () => {
    for (const centre of THIRDS) map(40, 2000, { kind: 'third', centre });
  };
  const exact = ms(all, 1);
  const twice = ms(() => map(80, 2000, at, (shift += 0.05)), 10);
  const wide = ms(() => map(40, 4000, at, (shift += 0.05)), 10);
  console.log(
    `Level map of 40 sources on 2,000 points: ${(1000 / one).toFixed(0)} a second at one frequency (bar 20), 30 thirds exactly in ${(exact / 1000).toFixed(2)} s (bar 1); twice the sources take ${(twice / one).toFixed(2)} times as long, twice the points ${(wide / one).toFixed(2)}`,
  );
}
