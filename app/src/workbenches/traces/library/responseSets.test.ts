import { readAes69Responses, readNumbers, writeAes69Responses } from '@pebble-hall/core/formats';
import { expect, it } from 'vitest';
import { unpackCurve } from '../../../services/keepTrace';
import { candidateOf as candidateIn } from './importFiles';
import { importedSet } from './responseSets';

const candidateOf = (of: Parameters<typeof candidateIn>[0]) =>
  candidateIn(of, { numbers: readNumbers, set: readAes69Responses });
const file = (name: string, of: Uint8Array) => ({
  name,
  size: of.length,
  text: async () => '',
  arrayBuffer: async () => of.slice().buffer,
});

it('a set becomes a trace of each response that is wanted, with its place and its time', async () => {
  const pulse = (gain: number, at: number) =>
    Float64Array.from({ length: 64 }, (_, i) => (i === at ? gain : 0));
  const bytes = await writeAes69Responses('Two seats', [], 48_000, [
    { name: 'Row 1', channels: [pulse(1, 20)], zero: 20, listener: { x: 3, y: 2, z: 1.2 } },
    { name: 'Row 2', channels: [pulse(-0.5, 44)], zero: 20, listener: null },
  ]);
  const candidate = await candidateOf(file('hall.sofa', bytes));
  expect(candidate).toMatchObject({ name: 'hall', problem: null, set: { from: 1, to: 2 } });
  const made = importedSet({ ...candidate, set: { ...candidate.set!, from: 2 } }, []);
  expect(made.map((m) => m.trace.name)).toEqual(['hall, measurement 2']);
  const { frequency, re, im } = unpackCurve(made[0]!.array);
  const n = frequency.findIndex((f) => f > 999);
  expect(20 * Math.log10(Math.hypot(re[n]!, im[n]!))).toBeCloseTo(-6.02, 2);
  // inverted, and half a millisecond late
  const turns = Math.atan2(im[n]!, re[n]!) / (2 * Math.PI) + frequency[n]! * 0.0005 - 0.5;
  expect(Math.abs(turns - Math.round(turns))).toBeLessThan(0.002);
  const [first] = importedSet({ ...candidate, set: candidate.set! }, []);
  expect(first!.trace.origin).toMatchObject({
    by: 'file',
    notes: expect.arrayContaining([expect.stringMatching(/^Receiver at x 3.00 m/)]),
  });
});

it('what is no set says so', async () => {
  const candidate = await candidateOf(file('no.sofa', new Uint8Array(200)));
  expect(candidate).toMatchObject({ set: null, problem: expect.stringMatching(/no AES69 file/) });
});
