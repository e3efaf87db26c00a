// A live session: what eight transfer functions cost while they are drawn twenty times a second, how long a delay takes to find, and
// from when on a change at the input is seen.
import { LiveDesk } from '../core/dist/live/index.js';
import { whiteNoise } from '../core/dist/signal/index.js';

const RATE = 48_000;
const BLOCK = 1024;
const SECONDS = 10;
const noise = Float32Array.from(whiteNoise(RATE * SECONDS, 1), (v) => 0.1 * v);
const inputs = [1, 2, 3, 4, 5, 6, 7, 8, 9];

/** @param {number} count @param {import('../core/dist/live/index.js').BlockLength} blockLength */
const deskOf = (count, blockLength) =>
  new LiveDesk(RATE, inputs, {
    measurements: Array.from({ length: count }, (_, i) => ({
      id: String(i),
      name: '',
      input: i + 1,
      reference: 9,
      delayS: 0.005 * i,
      gainDb: 0,
      inverted: false,
      isTracked: false,
    })),
    blockLength,
    averaging: { kind: 'exponential', seconds: 0.1 },
    levels: 'complex',
    average: 'power',
    pairs: [],
    soundInput: 1,
    spectrum: null,
  });

/** @param {LiveDesk} desk @param {number} at @param {number} gain */
const take = (desk, at, gain = 1) => {
  const reference = noise.subarray(at, at + BLOCK);
  const measured = gain === 1 ? reference : reference.map((v) => gain * v);
  desk.take({
    fromFrame: at,
    channels: inputs.map((n) => (n === 9 ? reference : measured)),
    generator: reference,
  });
};

/** Share of one core that eight of them take, read `perSecond` times a second. @param {number} perSecond */
function costOf(perSecond) {
  const desk = deskOf(8, 'merged');
  const every = RATE / perSecond;
  let [reads, next] = [0, every];
  const began = performance.now();
  for (let at = 0; at + BLOCK <= noise.length; at += BLOCK) {
    take(desk, at);
    desk.track();
    if (at < next) continue;
    desk.read();
    reads++;
    next += every;
  }
  return { share: (performance.now() - began) / 1000 / SECONDS, perSecond: reads / SECONDS };
}

/** Seconds of sound from a change of 6 dB at the input to 1 dB of it in the curve, in the mean from 1 to 10 kHz. @param {number} blockLength */
function seenAfter(blockLength) {
  const desk = deskOf(1, blockLength);
  const change = 4 * RATE - ((4 * RATE) % BLOCK);
  for (let at = 0; at + BLOCK <= noise.length; at += BLOCK) {
    take(desk, at, at >= change ? 2 : 1);
    if (at < change) continue;
    const curve = desk.read().measured[0]?.curve;
    let [sum, count] = [0, 0];
    curve?.frequency.forEach((f, n) => {
      if (f < 1000 || f > 10_000) return;
      sum += 20 * Math.log10(Math.hypot(curve.re[n] ?? 0, curve.im[n] ?? 0));
      count++;
    });
    if (sum / count > 1) return (at + BLOCK - change) / RATE;
  }
  return Infinity;
}

export function benchLive() {
  const { share, perSecond } = costOf(24);
  console.log(
    `live: eight transfer functions, merged blocks, 1/48 octave, ${perSecond.toFixed(1)} frames a second (bar 20) in ${(100 * share).toFixed(0)} % of one core`,
  );
  const desk = deskOf(1, 'merged');
  for (let at = 0; at + BLOCK <= noise.length; at += BLOCK) take(desk, at);
  const began = performance.now();
  desk.find('0');
  console.log(`live: a delay found in ${(performance.now() - began).toFixed(0)} ms`);
  for (const size of [4096, 16_384])
    console.log(
      `live: a change at the input is in the curve after ${(1000 * seenAfter(size)).toFixed(0)} ms with blocks of ${size / 1024} k, on screen up to 40 ms later (bar 150 with short blocks)`,
    );
}
