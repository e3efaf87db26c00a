// Computation: one 5 s sweep analysed, 7 channels x 3 spots designed and predicted. Uses the built core, as a script does.
// Times are told in units of a plain transform there and back, made in the same run, so that machines compare.
import { analyseSweep, powerOnGrid } from '../core/dist/measure/index.js';
import { fineSpectrum } from '../core/dist/path/index.js';
import { inverseRealFft, realFft } from '../core/dist/signal/index.js';
import { plainTransform } from './plainTransform.mjs';
import {
  designChannel,
  exactChannel,
  excessPhase,
  measuredChannel,
  STARTING_FILTER,
  STARTING_GOAL,
} from '../core/dist/correct/index.js';
import { exponentialSweep, logGrid, whiteNoise } from '../core/dist/signal/index.js';

/** @param {() => void} work @param {number} times */
function median(work, times) {
  const taken = [];
  for (let i = 0; i < times; i++) {
    const from = performance.now();
    work();
    taken.push(performance.now() - from);
  }
  return taken.sort((a, b) => a - b)[times >> 1] ?? NaN;
}

/** Milliseconds of a plain transform there and back, beside ours; the two agree. @param {number} size */
function thereAndBack(size) {
  const signal = Float64Array.from(whiteNoise(size, size));
  const plain = plainTransform(size);
  const [ours, theirs] = [realFft(signal), plain.forward(signal)];
  const off = ours.re.reduce((most, v, k) => Math.max(most, Math.abs(v - (theirs.re[k] ?? NaN))), 0);
  if (!(off < 1e-8)) throw new Error(`the two transforms differ by ${off}`);
  const plainMs = median(() => void plain.inverse(plain.forward(signal)), 15);
  const oursMs = median(() => void inverseRealFft(realFft(signal)), 15);
  console.log(
    `transform of ${size} there and back: ${oursMs.toFixed(2)} ms, plain ${plainMs.toFixed(2)} ms, ratio ${(plainMs / oursMs).toFixed(2)}`,
  );
  return plainMs;
}

export async function benchCore() {
  const sweep = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 5, levelDbfs: -20 });
  const silence = 28800;
  const length = silence + sweep.samples.length + 57600;
  const noise = whiteNoise(length, 1);
  const play = (/** @type {number} */ delay, /** @type {number} */ gain) =>
    Float32Array.from(
      { length },
      (_, i) => gain * (sweep.samples[i - silence - delay] ?? 0) + 1e-4 * (noise[i] ?? 0),
    );
  const recording = { microphone: play(900, 0.3), loopback: play(574, 1), rate: 48000, silenceS: 0.6 };
  const unit = { long: thereAndBack(524288), short: thereAndBack(65536) };
  const perSweep = median(() => void analyseSweep(recording, sweep), 15);
  console.log(
    `analyse one 5 s sweep (${length} samples x 2): ${(perSweep / unit.long).toFixed(2)} plain transforms of 524288 (bar 4); ` +
      `${perSweep.toFixed(0)} ms, ${(1000 / perSweep).toFixed(1)} a second`,
  );

  const grid = logGrid();
  const founds = Array.from({ length: 7 }, (_, c) =>
    measuredChannel(
      grid,
      [0, 1, 2].map((spot) => {
        const shape = whiteNoise(grid.length, 3 * c + spot + 5);
        return grid.map((f, k) => 10 ** ((4 * (shape[k] ?? 0) - 20 * Math.log10(1 + (50 / f) ** 3)) / 10));
      }),
    ),
  );
  const goal = { id: '', ...STARTING_GOAL, span: null, targetOffsetDb: null };
  const designs = () => founds.map((found) => designChannel(grid, goal, found));
  const quick = median(() => void designs(), 41);
  console.log(
    `design and predict 7 channels x 3 spots on the grid: ${quick.toFixed(1)} ms, ${(1000 / quick).toFixed(0)} a second`,
  );
  const first = designs()[0];
  if (!first) throw new Error('nothing was designed');
  const processor = {
    rate: 48000,
    mostTaps: 8192,
    mostSections: 24,
    gainStepDb: 0.1,
    frequencyStepHz: 1,
    qStep: 0.01,
    leastQ: 0.05,
    mostQ: 100,
    sectionKinds: /** @type {('peak' | 'low shelf' | 'high shelf')[]} */ ([
      'peak',
      'low shelf',
      'high shelf',
    ]),
    leastSectionDb: -30,
    mostSectionDb: 15,
  };
  const shared = { radians: grid.map((f) => Math.sin(f / 90)), agreement: grid.map(() => 0.95) };
  for (const style of /** @type {const} */ (['minimum', 'mixed'])) {
    const choice = { ...STARTING_FILTER, style };
    const exact = median(() => void exactChannel(grid, first, STARTING_GOAL, choice, processor, shared), 15);
    console.log(
      `exact ${style}-phase filter of 8192 taps: ${(exact / unit.short).toFixed(1)} plain transforms of 65536 (bar 12 for mixed); ` +
        `${exact.toFixed(0)} ms, ${(1000 / exact).toFixed(1)} a second`,
    );
  }

  // from impulse responses: what the worker does when a project is opened, and the exact filters of all channels
  const decay = whiteNoise(28800, 9);
  const responses = Array.from({ length: 105 }, (_, n) => ({
    samples: Float32Array.from(
      { length: 28800 },
      (_, i) => (decay[(i + 97 * n) % 28800] ?? 0) * Math.exp(-i / 4000),
    ),
    rate: 48000,
    zero: 0,
  }));
  const from = performance.now();
  for (let c = 0; c < 7; c++) {
    const spots = responses.slice(15 * c, 15 * c + 15);
    const traces = spots.map((r) => {
      const spectrum = fineSpectrum(r);
      return { power: powerOnGrid(r, grid, 48, spectrum), excess: excessPhase(r, grid, spectrum) };
    });
    const found = measuredChannel(
      grid,
      traces.map((t) => t.power),
      [],
      undefined,
      traces.map((t) => t.excess),
    );
    const design = designChannel(grid, goal, found);
    exactChannel(
      grid,
      design,
      STARTING_GOAL,
      { ...STARTING_FILTER, style: 'mixed' },
      processor,
      found.shared,
    );
  }
  console.log(
    `7 channels x 15 spots designed from their impulse responses, exact mixed-phase filters and all: ${((performance.now() - from) / 1000).toFixed(2)} s (bar 5 s)`,
  );
  for (const form of /** @type {const} */ (['sections', 'both'])) {
    const one = median(
      () => void exactChannel(grid, first, STARTING_GOAL, { ...STARTING_FILTER, form }, processor),
      3,
    );
    console.log(
      `exact filter of 10 ${form === 'both' ? 'sections and a FIR' : 'sections'}: ${one.toFixed(0)} ms`,
    );
  }
}
