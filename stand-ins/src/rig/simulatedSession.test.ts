import { generatorSource, LiveDesk, type LiveMeasurement } from '@pebble-hall/core/live';
import { plainOutput } from '@pebble-hall/core/processing';
import { describe, expect, it } from 'vitest';
import { BURROW } from './burrow.js';
import { noFaults, type Faults } from './faults.js';
import { SimulatedRoom } from './simulatedRoom.js';
import { SimulatedSession } from './simulatedSession.js';

const BLOCK = 1024;
const room = new SimulatedRoom();
const near = {
  input: 1,
  position: { x: 2.6, y: 2.2, z: 1.2 },
  serial: 7,
  incidenceDeg: 0 as const,
  gainDb: 0,
};
const far = { ...near, input: 3, position: { x: 2.6, y: 4.4, z: 1.2 } };
const outputs = Array.from({ length: 8 }, () => plainOutput());
const filters = outputs.map(() => new Float32Array(0));
const waysOf = (faults: Faults, microphones = [near, far]) =>
  room.ways({ played: [1], microphones, outputs, filters, faults, device: null });

function session(faults: Faults = noFaults(), microphones = [near, far]) {
  const made = new SimulatedSession(BLOCK, [1, 2, 3]);
  made.set(microphones, faults);
  made.change(waysOf(faults, microphones));
  return made;
}
const pink = generatorSource({ kind: 'pink', period: 65_536 }, BURROW.rate);
const rmsDb = (x: Float32Array) => 10 * Math.log10(x.reduce((sum, v) => sum + v * v, 0) / x.length);

function run(of: SimulatedSession, seconds: number): { channels: Float32Array[]; generator: Float32Array } {
  const blocks = Math.ceil((seconds * BURROW.rate) / BLOCK);
  const channels = [0, 1, 2].map(() => new Float32Array(blocks * BLOCK));
  const generator = new Float32Array(blocks * BLOCK);
  for (let b = 0; b < blocks; b++) {
    const played = new Float32Array(BLOCK);
    of.next(played).forEach((c, i) => channels[i]!.set(c, b * BLOCK));
    generator.set(played, b * BLOCK);
  }
  return { channels, generator };
}
const measurement = (change: Partial<LiveMeasurement>): LiveMeasurement => ({
  id: 'a',
  name: '',
  input: 1,
  reference: 2,
  delayS: 0,
  gainDb: 0,
  inverted: false,
  isTracked: false,
  ...change,
});
function deskFor(measurements: LiveMeasurement[], { channels, generator }: ReturnType<typeof run>): LiveDesk {
  const desk = new LiveDesk(BURROW.rate, [1, 2, 3], {
    measurements,
    blockLength: 'merged',
    averaging: { kind: 'for ever' },
    levels: 'complex',
    average: 'none',
    pairs: [],
    soundInput: null,
    spectrum: null,
  });
  desk.take({ fromFrame: 0, channels, generator });
  return desk;
}

/** `npm run bars` hears all of them. */
const ALL_DRAWS = process.env['PEBBLE_HALL_DRAWS'] === 'all';

describe('the simulated rig while it streams', () => {
  it('hears silence as the room is, and the generator much louder', () => {
    const of = session();
    const quiet = run(of, 1).channels;
    expect(rmsDb(quiet[0]!)).toBeCloseTo(-68, 0);
    expect(rmsDb(quiet[1]!)).toBeCloseTo(-96, 0);
    of.play({ source: pink, gain: 0.05, alternateS: null }, [1]);
    run(of, 1);
    const loud = run(of, 1).channels;
    expect(rmsDb(loud[1]!)).toBeCloseTo(-26, 0);
    expect(rmsDb(loud[0]!)).toBeGreaterThan(-50);
  });

  it('has the response and the delay that sweeps of the same room have', () => {
    const of = session();
    of.play({ source: pink, gain: 0.05, alternateS: null }, [1]);
    const desk = deskFor(
      [measurement({}), measurement({ id: 'b', input: 2, reference: 'generator' })],
      run(of, 9),
    );
    expect(desk.find('b')!.delayS * BURROW.rate).toBeCloseTo(BURROW.latency, 1);
    // what the same rig gives of an impulse, loopback divided out by its latency
    const samples = new Float32Array(1 << 17);
    samples[0] = 0.5;
    const faults = noFaults();
    const recorded = room.record({
      signals: [{ output: 1, samples }],
      lengthFrames: samples.length,
      microphones: [near],
      outputs,
      filters,
      faults,
      take: 1,
    });
    let first = 0;
    recorded[0]!.forEach((v, i) => (Math.abs(v) > Math.abs(recorded[0]![first]!) ? (first = i) : 0));
    const found = desk.find('a')!;
    expect(Math.abs(found.delayS * BURROW.rate - (first - BURROW.latency))).toBeLessThan(3);
    expect(found.sure).toBeGreaterThan(0.3);
  });

  it('two loudspeakers together are the sum of each alone', () => {
    const together = room.ways({
      played: [1, 2],
      microphones: [near],
      outputs,
      filters,
      faults: noFaults(),
      device: null,
    });
    const heard = (on: number[]) => {
      const of = new SimulatedSession(BLOCK, [1, 2, 3]);
      of.set([], noFaults());
      of.change(together);
      of.play({ source: pink, gain: 0.05, alternateS: null }, on);
      run(of, 3);
      return deskFor([measurement({})], run(of, 6)).read().measured[0]!.curve!;
    };
    const [one, two, both] = [heard([1]), heard([2]), heard([1, 2])];
    let judged = 0;
    both.frequency.forEach((f, n) => {
      if (f < 60 || f > 400 || both.coherence[n]! < 0.95) return;
      judged++;
      const size = Math.hypot(both.re[n]!, both.im[n]!);
      const off = Math.hypot(one.re[n]! + two.re[n]! - both.re[n]!, one.im[n]! + two.im[n]! - both.im[n]!);
      expect(off / Math.max(size, 0.2), `${f} Hz`).toBeLessThan(0.15);
    });
    expect(judged).toBeGreaterThan(60);
  });

  it('lets a microphone walk: what is heard changes, and nothing clicks', () => {
    const of = session();
    of.play(
      { source: generatorSource({ kind: 'sine', hz: 200 }, BURROW.rate), gain: 0.05, alternateS: null },
      [1],
    );
    run(of, 2);
    const before = run(of, 0.5).channels[0]!;
    of.change(waysOf(noFaults(), [{ ...near, position: far.position }, far]));
    const moved = run(of, 2).channels[0]!;
    const after = run(of, 0.5).channels[0]!;
    expect(Math.abs(rmsDb(before) - rmsDb(after))).toBeGreaterThan(0.3);
    // no step larger than either tone makes by itself, twice over for noise
    const steepest = (x: Float32Array) =>
      x.reduce((m, v, i) => (i > 0 ? Math.max(m, Math.abs(v - x[i - 1]!)) : m), 0);
    expect(steepest(moved)).toBeLessThan(2 * Math.max(steepest(before), steepest(after)));
  });

  it('loses the loopback with its cable, and the loudspeaker with its output', () => {
    const of = session({ ...noFaults(), loopbackOut: true, silentOutputs: [1] });
    of.play({ source: pink, gain: 0.05, alternateS: null }, [1]);
    const { channels } = run(of, 2);
    expect(rmsDb(channels[1]!)).toBeLessThan(-90);
    expect(rmsDb(channels[0]!)).toBeLessThan(-60);
  });

  it.each(ALL_DRAWS ? (['audience', 'bar', 'fan', 'train'] as const) : (['audience'] as const))(
    'hears the %s, and each microphone its own',
    (sound) => {
      const { channels } = run(session({ ...noFaults(), sounds: [sound] }), 14);
      const tail = channels.map((c) => c.subarray(10 * BURROW.rate));
      expect(rmsDb(tail[0]!)).toBeGreaterThan(-62);
      let product = 0;
      tail[0]!.forEach((v, i) => (product += v * tail[2]![i]!));
      const alike = product / tail[0]!.length / 10 ** ((rmsDb(tail[0]!) + rmsDb(tail[2]!)) / 20);
      expect(Math.abs(alike)).toBeLessThan(0.5);
    },
  );
});
