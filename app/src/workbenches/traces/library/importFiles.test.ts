import { readAes69Responses, readNumbers, writeImpulseText, writeWav } from '@pebble-hall/core/formats';
import { expect, it } from 'vitest';
import { unpackCurve } from '../../../services/keepTrace';
import { candidateOf as candidateIn, importedImpulses, importedTrace, withMeanings } from './importFiles';

const candidateOf = (of: Parameters<typeof candidateIn>[0]) =>
  candidateIn(of, { numbers: readNumbers, set: readAes69Responses });
const bytes = (name: string, of: Uint8Array) => ({
  name,
  size: of.length,
  text: async () => new TextDecoder().decode(of),
  arrayBuffer: async () => of.slice().buffer,
});
const file = (name: string, text: string) => bytes(name, new TextEncoder().encode(text));
const rows = [100, 200, 400, 800].map((f) => `${f}\t-3\t10`).join('\n');

it('a text file becomes a trace with its name, its columns and what it said of itself', async () => {
  const candidate = await candidateOf(file('hall, row 4.txt', `# measured on Tuesday\n${rows}`));
  expect(candidate).toMatchObject({ name: 'hall, row 4', problem: null });
  const { trace, array } = importedTrace(candidate, ['hall, row 4'])!;
  expect(trace.name).not.toBe('hall, row 4');
  expect(trace.origin).toMatchObject({ by: 'file', hasPhase: true, notes: ['measured on Tuesday'] });
  const { re, im } = unpackCurve(array);
  expect(20 * Math.log10(Math.hypot(re[5]!, im[5]!))).toBeCloseTo(-3, 3);
});

it('what is misunderstood is mapped by hand, what cannot be is told', async () => {
  const candidate = await candidateOf(file('a.csv', '1,100,5\n2,200,5\n4,400,5\n5,800,5'));
  const mapped = withMeanings(candidate, ['nothing', 'frequency in Hz', 'level in dB']);
  expect(mapped.problem).toBeNull();
  const { array } = importedTrace(mapped, [])!;
  expect(unpackCurve(array).frequency[0]).toBeGreaterThan(99);
  expect(withMeanings(candidate, ['nothing', 'nothing', 'level in dB']).problem).toMatch(/frequency/);
  const broken = await candidateOf(file('b.txt', 'no numbers here'));
  expect(broken.problem).toMatch(/No rows/);
  expect(importedTrace(broken, [])).toBeNull();
  expect((await candidateOf({ ...file('c.txt', ''), size: 40e6 })).problem).toMatch(/8 MB/);
});

const click = (at: number, gain: number) => {
  const samples = new Float64Array(4096);
  samples[at] = gain;
  return samples;
};

it('a sound file of two channels becomes two traces, time zero where the sound sets in', async () => {
  const wav = writeWav([click(100, 0.5), click(100, -0.25)], 96_000);
  const candidate = await candidateOf(bytes('desk.wav', wav));
  expect(candidate).toMatchObject({ problem: null, zero: { by: 'onset' } });
  const made = importedImpulses(candidate, ['desk, channel A']);
  expect(made.map((m) => m.trace.name)).toEqual(['desk, channel A 2', 'desk, channel B']);
  const { re, im } = unpackCurve(made[1]!.array);
  // a click of -0.25: -12 dB and inverted at all frequencies
  expect(re[200]).toBeCloseTo(-0.25, 4);
  expect(im[200]).toBeCloseTo(0, 4);
  expect(made[0]!.trace.origin).toMatchObject({ hasPhase: true, columns: [] });
});

it('text says its rate and time zero, or has them set by hand', async () => {
  const text = writeImpulseText({ samples: click(500, 1), rate: 44_100, zero: 450 }, ['Left']);
  const candidate = await candidateOf(file('left.txt', text));
  expect(candidate.impulse).toMatchObject({ rate: 44_100, rateIsKnown: true, saidZero: 450 });
  const bare = await candidateOf(file('bare.txt', [...click(3, 1)].join('\n')));
  expect(bare.impulse).toMatchObject({ rate: 48_000, rateIsKnown: false, saidZero: null });
});

it('what is no sound, silent or cut off is told', async () => {
  expect((await candidateOf(bytes('a.wav', writeWav([new Float64Array(4096)], 48_000)))).problem).toMatch(
    /silent/,
  );
  expect((await candidateOf(file('b.wav', 'RIFF'))).problem).toMatch(/not a WAV/);
  expect(
    (await candidateOf(bytes('c.wav', writeWav([click(0, 1)], 48_000).subarray(0, 900)))).problem,
  ).toMatch(/cut off/);
  expect((await candidateOf(file('d.flac', 'nothing of the kind, and long enough'))).problem).toMatch(
    /not a FLAC/,
  );
});
