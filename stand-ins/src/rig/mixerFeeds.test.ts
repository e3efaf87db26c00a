import { generatorSource, LiveDesk, toneFigures, quietFigures } from '@pebble-hall/core/live';
import { gainOfDb } from '@pebble-hall/core/signal';
import { shapesLevelDb } from '@pebble-hall/core/shapes';
import { expect, it } from 'vitest';
import { tidepoolChannels } from '../mixer/index.js';
import { noFaults } from './faults.js';
import { SimulatedRoom } from './simulatedRoom.js';
import { SimulatedSession } from './simulatedSession.js';

const rate = 48_000;
const BLOCK = 2048;

function bench(knobs: Record<string, number>) {
  const session = new SimulatedSession(BLOCK, [2, 7, 8]);
  session.set([], noFaults());
  const device = { output: 8, inputs: [7, 8], knobs };
  const ways = new SimulatedRoom().ways({
    played: [8],
    microphones: [],
    outputs: [],
    filters: [],
    faults: noFaults(),
    device,
  });
  session.change(ways);
  return session;
}

function heard(
  session: SimulatedSession,
  seconds: number,
  take: (channels: Float32Array[], from: number, generator: Float32Array) => void,
) {
  for (let from = 0; from < seconds * rate; from += BLOCK) {
    const generator = new Float32Array(BLOCK);
    take(session.next(generator), from, generator);
  }
}

it('a mixer on the bench is measured as its circuits are, against the loopback', () => {
  const knobs = { '1.low': 9, '1.mid': -6, '1.sweep': 800 };
  const session = bench(knobs);
  const source = generatorSource({ kind: 'pink', period: 65_536 }, rate);
  session.play({ source, gain: gainOfDb(-24), alternateS: null }, [8]);
  const measurement = (id: string, input: number) => ({
    id,
    name: id,
    input,
    reference: 2,
    delayS: 0,
    gainDb: 0,
    inverted: false,
    isTracked: false,
  });
  const desk = new LiveDesk(rate, [2, 7, 8], {
    measurements: [measurement('a', 7), measurement('b', 8)],
    blockLength: 'merged',
    averaging: { kind: 'for ever' },
    levels: 'complex',
    average: 'none',
    pairs: [],
    soundInput: null,
    spectrum: null,
  });
  heard(session, 12, (channels, fromFrame, generator) => desk.take({ fromFrame, channels, generator }));
  const { curve } = desk.read().measured[0]!;
  const [channel] = tidepoolChannels(knobs);
  const expected = shapesLevelDb(channel!.shapes, curve!.frequency);
  const gainDb = 20 * Math.log10(channel!.gain * channel!.left);
  curve!.frequency.forEach((f, n) => {
    if (f < 40 || f > 16_000) return;
    const db = 20 * Math.log10(Math.hypot(curve!.re[n]!, curve!.im[n]!));
    expect(Math.abs(db - expected[n]! - gainDb)).toBeLessThan(0.15);
  });
});

it('it is quiet at rest, clean at a working level, and ends softly when it is driven', () => {
  const listen = (levelDb: number | null, knobs: Record<string, number>) => {
    const session = bench(knobs);
    if (levelDb !== null)
      session.play(
        {
          source: generatorSource({ kind: 'sine', hz: 1000 }, rate),
          gain: gainOfDb(levelDb),
          alternateS: null,
        },
        [8],
      );
    const samples: number[] = [];
    heard(session, 3, ([, left], from) => {
      if (from > rate) samples.push(...left!);
    });
    return Float64Array.from(samples);
  };
  const { levelDb } = quietFigures(listen(null, {}), rate);
  expect(levelDb).toBeGreaterThan(-97);
  expect(levelDb).toBeLessThan(-85);
  expect(toneFigures(listen(-20, {}), rate, 1000)!.distortionDb).toBeLessThan(-70);
  const driven = toneFigures(listen(-20, { '1.trim': 20, '1.fader': -20 }), rate, 1000)!;
  expect(driven.distortionDb).toBeGreaterThan(-40);
  // nothing is clipped at the input: the device itself ends
  expect(driven.levelDb).toBeLessThan(-15);
});
