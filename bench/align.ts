// Ways to bring sources together, over seats in rooms made by chance: within a second for a pair, five for four sources.
import { findJoint, suggestAlignments, type AlignPoint, type JointPoint } from '@pebble-hall/core/alignment';
import { seededRandom, seedFrom, type ComplexTrace } from '@pebble-hall/core/signal';
import { LIBRARY_GRID } from '@pebble-hall/core/traces';

const SPOTS = 17;
/** As many points as Align reads of a source. */
const grid = LIBRARY_GRID;

/** Sources over seats: each arrives at its time at each, and a room of early reflections answers. */
function heardAt(seed: string, delayS: number, gain: number): ComplexTrace[] {
  const random = seededRandom(seedFrom(7, seed));
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  return Array.from({ length: SPOTS }, () => {
    const own = delayS + between(0, 0.004);
    const arrivals = [
      [gain, 0],
      ...Array.from({ length: 6 }, () => [between(-0.4, 0.4), between(0.003, 0.04)]),
    ];
    const re = new Float64Array(grid.length);
    const im = new Float64Array(grid.length);
    for (const [g, t] of arrivals as [number, number][])
      grid.forEach((f, n) => {
        re[n] = re[n]! + g * Math.cos(2 * Math.PI * f * (own + t));
        im[n] = im[n]! - g * Math.sin(2 * Math.PI * f * (own + t));
      });
    return { frequency: grid, re, im };
  });
}

/** The lows of a source below a crossover, its highs above it: second order, at a frequency. */
const passed = (of: ComplexTrace[], hz: number, kind: 'low' | 'high'): ComplexTrace[] =>
  of.map(({ frequency, re, im }) => {
    const gain = frequency.map((f) => (kind === 'low' ? 1 / (1 + (f / hz) ** 2) : 1 / (1 + (hz / f) ** 2)));
    return { frequency, re: re.map((v, n) => v * gain[n]!), im: im.map((v, n) => v * gain[n]!) };
  });

function seconds(run: () => unknown): number {
  const from = performance.now();
  run();
  return (performance.now() - from) / 1000;
}

export function benchAlign(): void {
  const main = passed(heardAt('main', 0.012, 1), 90, 'high');
  const sub = passed(heardAt('sub', 0.009, 1.1), 90, 'low');
  const pairs = main.map((reference, i): AlignPoint => ({ reference, moved: sub[i]!, weight: 1 }));
  const asked = {
    points: pairs,
    mostDelayS: 0.02,
    mostAllPasses: 2,
    aim: 'mean' as const,
    speedOfSound: 343,
  };
  console.log(
    `suggestions for a pair over ${SPOTS} spots with two all-passes: ${seconds(() => suggestAlignments(asked)).toFixed(2)} s (bar 1)`,
  );
  const four = ['a', 'b', 'c', 'd'].map((name, i) => heardAt(name, 0.003 * i, 1));
  const joint = Array.from({ length: SPOTS }, (_, p): JointPoint => ({
    sources: four.map((s) => s[p]!),
    weight: 1,
  }));
  console.log(
    `four sources at once over ${SPOTS} spots: ${seconds(() => findJoint(joint, 0.02)).toFixed(2)} s (bar 5)`,
  );
}
