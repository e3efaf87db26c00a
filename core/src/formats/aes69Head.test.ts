import { beforeAll, describe, expect, it } from 'vitest';
import { FormatError, openAes69, readAes69Head, writeAes69Responses, type WrittenResponse } from './index.js';

const COUNT = 16;
const source = (i: number) => ({
  x: 2 * Math.cos((2 * Math.PI * i) / COUNT),
  y: 2 * Math.sin((2 * Math.PI * i) / COUNT),
  z: 0.5,
});
const [LEFT, RIGHT] = [
  { x: 0, y: 0.09, z: 0 },
  { x: 0, y: -0.09, z: 0 },
];
const heard = (i: number, more: Partial<WrittenResponse> = {}): WrittenResponse => ({
  name: `${i}`,
  channels: [Float64Array.of(1, i), Float64Array.of(2, i)],
  zero: 0,
  listener: { x: 0, y: 0, z: 0 },
  source: source(i),
  view: { x: 1, y: 0, z: 0 },
  ...more,
});
const all = (more: Partial<WrittenResponse> = {}, count = COUNT) =>
  Array.from({ length: count }, (_, i) => heard(i, more));
const written = (responses: WrittenResponse[], receivers = [LEFT, RIGHT]) =>
  writeAes69Responses('A head', [], 44_100, responses, receivers).then((b) => new Uint8Array(b));

describe('a head', () => {
  let whole: Uint8Array;
  beforeAll(async () => {
    whole = await written(all());
    const { file, close } = await openAes69(whole);
    expect(file.numbers('Data.IR')?.shape).toEqual([COUNT, 2, 2]);
    close();
  });

  it('is read by directions of unit length, whichever ear comes first', async () => {
    const head = await readAes69Head(whole);
    expect([head.title, head.rate, head.directions.length]).toEqual(['A head', 44_100, COUNT]);
    const length = Math.hypot(2, 0.5);
    expect(head.directions[0]!.x).toBeCloseTo(2 / length, 9);
    expect(head.directions[0]!.z).toBeCloseTo(0.5 / length, 9);
    expect(head.ears.map(([left]) => left.samples[0])).toEqual(all().map(() => 1));
    const turned = await readAes69Head(await written(all(), [RIGHT, LEFT]));
    expect(turned.ears.map(([left]) => left.samples[0])).toEqual(all().map(() => 2));
  });

  it('is refused with what is wrong with it', async () => {
    const one = all().map((r) => ({ ...r, channels: r.channels.slice(0, 1) }));
    for (const [bytes, why] of [
      [await written(one, [LEFT]), /two receivers.*this file has 1 receivers/],
      [await written(all({}, 5)), /12 directions at least/],
      [await written(all({ view: { x: 0, y: 1, z: 0 } })), /does not look along x/],
      [await written(all({ source: { x: 0, y: 0, z: 0 } })), /Direction 1 of the head is none/],
      [whole.slice(0, 900), /damaged or was cut off/],
      [new TextEncoder().encode('no head at all'), /no AES69 file/],
    ] as const) {
      const read = readAes69Head(bytes);
      await expect(read).rejects.toThrow(why);
      await expect(read).rejects.toBeInstanceOf(FormatError);
    }
  });
});
