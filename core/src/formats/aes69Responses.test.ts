import * as hdf from 'h5wasm';
import { expect, it } from 'vitest';
import { FormatError, readAes69Responses, writeAes69Responses } from './index.js';

let count = 0;
type Data = Record<string, { values: number[]; shape: number[] }>;
/** An AES69 file with what it is given, and nothing else. */
async function file(data: Data, attributes: Record<string, string> = {}): Promise<Uint8Array> {
  const { FS } = await hdf.ready;
  const path = `/set-${++count}`;
  const made = new hdf.File(path, 'w');
  const all = { Conventions: 'SOFA', SOFAConventions: 'GeneralFIR', Title: 'Slip', ...attributes };
  for (const [name, value] of Object.entries(all)) made.create_attribute(name, value);
  for (const [name, { values, shape }] of Object.entries(data))
    made.create_dataset({ name, data: Float64Array.from(values), shape });
  made.close();
  const bytes = (FS.readFile(path) as Uint8Array).slice();
  FS.unlink(path);
  return bytes;
}
const rate = { values: [44_100], shape: [1] };

it('impulse responses by measurement and receiver, with their delays and places', async () => {
  const { title, responses } = await readAes69Responses(
    await file({
      'Data.IR': { values: Array.from({ length: 2 * 2 * 4 }, (_, i) => i), shape: [2, 2, 4] },
      'Data.SamplingRate': rate,
      'Data.Delay': { values: [10, 20], shape: [1, 2] },
      ListenerPosition: { values: [1, 0, 0, 2, 0, 0], shape: [2, 3] },
      ReceiverPosition: { values: [0, 0.1, 0, 0, -0.1, 0], shape: [2, 3, 1] },
      SourcePosition: { values: [5, 1, 1], shape: [1, 3] },
    }),
  );
  expect(title).toBe('Slip');
  expect(responses.map((r) => r.name)).toEqual([
    'measurement 1, receiver 1',
    'measurement 1, receiver 2',
    'measurement 2, receiver 1',
    'measurement 2, receiver 2',
  ]);
  expect(responses[3]).toMatchObject({
    source: { x: 5, y: 1, z: 1 },
    listener: { x: 2, y: -0.1, z: 0 },
    response: { kind: 'impulse', rate: 44_100, zero: -20, samples: Float64Array.of(12, 13, 14, 15) },
  });
});

it('emitters are told apart, and pressures over frequency are read as such', async () => {
  const emitters = await readAes69Responses(
    await file({
      'Data.IR': { values: [1, 2, 3, 4, 5, 6], shape: [1, 1, 3, 2] },
      'Data.SamplingRate': rate,
    }),
  );
  expect(emitters.responses.map((r) => r.name)).toEqual(['emitter 1', 'emitter 2']);
  expect(emitters.responses[1]!.response).toMatchObject({ samples: Float64Array.of(2, 4, 6), zero: -0 });
  expect(emitters.notes.join()).toMatch(/no delay/);
  const pressures = await readAes69Responses(
    await file({
      'Data.Real': { values: [1, 2, 3], shape: [1, 1, 3] },
      'Data.Imag': { values: [0, -1, -2], shape: [1, 1, 3] },
      N: { values: [0, 100, 200], shape: [3] },
    }),
  );
  expect(pressures.responses[0]!.response).toEqual({
    kind: 'spectrum',
    frequency: Float64Array.of(100, 200),
    re: Float64Array.of(2, 3),
    im: Float64Array.of(-1, -2),
  });
});

it.each<[string, Data, Record<string, string>, RegExp]>([
  ['no AES69', {}, { Conventions: 'CF' }, /none of AES69/],
  ['nothing in it', {}, {}, /neither impulse responses/],
  ['no rate', { 'Data.IR': { values: [1, 2], shape: [1, 1, 2] } }, {}, /sampling rate/],
  [
    'another form',
    { 'Data.IR': { values: [1, 2], shape: [1, 2] }, 'Data.SamplingRate': rate },
    {},
    /form 1 x 2/,
  ],
  ['NaN', { 'Data.IR': { values: [1, NaN], shape: [1, 1, 2] }, 'Data.SamplingRate': rate }, {}, /no numbers/],
  [
    'frequencies for other pressures',
    {
      'Data.Real': { values: [1], shape: [1, 1, 1] },
      'Data.Imag': { values: [1], shape: [1, 1, 1] },
      N: { values: [1, 2], shape: [2] },
    },
    {},
    /contradicts itself/,
  ],
])('refuses %s with what is wrong', async (_, data, attributes, reason) => {
  const bytes = await file(data, attributes);
  await expect(readAes69Responses(bytes)).rejects.toThrow(FormatError);
  await expect(readAes69Responses(bytes)).rejects.toThrow(reason);
});

it('what is written comes back sample by sample, with its time and place', async () => {
  const bytes = await writeAes69Responses('Two seats', ['a note'], 48_000, [
    { name: 'Row 1', channels: [Float64Array.of(0, 1, 0.5)], zero: 1, listener: { x: 3, y: 2, z: 1.2 } },
    { name: 'Row 2', channels: [Float64Array.of(0, 0, -1, 2)], zero: 2, listener: null },
  ]);
  const { title, responses } = await readAes69Responses(bytes);
  expect(title).toBe('Two seats');
  expect(responses[0]).toMatchObject({
    listener: { x: 3, y: 2, z: 1.2 },
    response: { rate: 48_000, zero: 1, samples: Float64Array.of(0, 1, 0.5, 0) },
  });
  expect(responses[1]!.response).toMatchObject({ zero: 2, samples: Float64Array.of(0, 0, -1, 2) });
  await expect(writeAes69Responses('none', [], 48_000, [])).rejects.toThrow(/no response/);
});
