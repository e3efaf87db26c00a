import { describe, expect, it } from 'vitest';
import { crc32, FormatError, readWav, writeWav } from './index.js';

/** A WAV file put together by hand: format code, bits, and raw sample bytes. */
function wav(code: number, bits: number, channels: number, data: number[], extensible = false): Uint8Array {
  const fmt = extensible ? 40 : 16;
  const bytes = new Uint8Array(12 + 8 + fmt + 8 + data.length);
  const view = new DataView(bytes.buffer);
  const text = (at: number, s: string) => [...s].forEach((c, i) => (bytes[at + i] = c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, fmt, true);
  view.setUint16(20, extensible ? 0xfffe : code, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, 48000, true);
  view.setUint16(32, (channels * bits) / 8, true);
  view.setUint16(34, bits, true);
  if (extensible) view.setUint16(44, code, true);
  text(20 + fmt, 'data');
  view.setUint32(24 + fmt, data.length, true);
  bytes.set(data, 28 + fmt);
  return bytes;
}
const bytesOf = (...values: Float32Array[] | Float64Array[]) =>
  values.flatMap((v) => [...new Uint8Array(v.buffer)]);

describe('readWav', () => {
  it('reads PCM of 16, 24 and 32 bits at full scale', () => {
    expect(readWav(wav(1, 16, 1, [0x00, 0x80, 0xff, 0x7f])).channels[0]).toEqual(
      Float64Array.of(-1, 32767 / 32768),
    );
    expect(readWav(wav(1, 24, 1, [0, 0, 0x80, 0, 0, 0x40, 0xff, 0xff, 0xff])).channels[0]).toEqual(
      Float64Array.of(-1, 0.5, -1 / 0x800000),
    );
    expect(readWav(wav(1, 32, 1, [0, 0, 0, 0x80, 0, 0, 0, 0x20])).channels[0]).toEqual(
      Float64Array.of(-1, 0.25),
    );
  });

  it('reads float of 32 and 64 bits, beyond full scale too, plain and extensible', () => {
    expect(readWav(wav(3, 32, 1, bytesOf(Float32Array.of(1.5, -2)))).channels[0]).toEqual(
      Float64Array.of(1.5, -2),
    );
    const wide = readWav(wav(3, 64, 2, bytesOf(Float64Array.of(0.1, 0.2, 0.3, 0.4)), true));
    expect(wide.channels).toEqual([Float64Array.of(0.1, 0.3), Float64Array.of(0.2, 0.4)]);
    expect(wide).toMatchObject({ rate: 48000, encoding: 'float', bits: 64 });
  });

  it.each<[string, Uint8Array, RegExp]>([
    ['nothing', new Uint8Array(0), /empty/],
    ['words', new TextEncoder().encode('this is a letter to my aunt'), /not a WAV/],
    ['no samples', wav(1, 16, 1, []), /no samples|no sound/],
    ['8 bits', wav(1, 8, 1, [1, 2]), /8 bit samples/],
    ['a compressed type', wav(85, 16, 1, [1, 2]), /type 85/],
    ['NaN', wav(3, 32, 1, bytesOf(Float32Array.of(0, NaN))), /Sample 2 of channel 1/],
    ['a cut-off file', wav(1, 16, 1, [1, 2, 3, 4]).subarray(0, 46), /cut off/],
    ['a cut-off header', wav(1, 16, 1, [1, 2]).subarray(0, 30), /header .* cut off/],
  ])('refuses %s with its reason', (_, bytes, reason) => {
    expect(() => readWav(bytes)).toThrow(FormatError);
    expect(() => readWav(bytes)).toThrow(reason);
  });
});

describe('writeWav', () => {
  it('comes back exactly as float 32, several channels', () => {
    const channels = [Float32Array.of(0.1, -3, 1e-9), Float32Array.of(1, 2, 3)];
    const back = readWav(writeWav(channels, 96000));
    expect(back.rate).toBe(96000);
    back.channels.forEach((c, i) => expect(Float32Array.from(c)).toEqual(channels[i]));
  });

  it('comes back within half a step as PCM 24, and clips', () => {
    const back = readWav(writeWav([Float64Array.of(0.123456789, -1, 2)], 48000, 'pcm24')).channels[0]!;
    expect(Math.abs(back[0]! - 0.123456789)).toBeLessThanOrEqual(0.5 / 0x800000);
    expect(back[1]).toBe(-1);
    expect(back[2]).toBeCloseTo(1, 6);
    expect(() => writeWav([Float64Array.of(1), Float64Array.of(1, 2)], 48000)).toThrow(/1, 2 samples/);
  });
});

it('computes CRC-32 as the standard check value, in pieces too', () => {
  const bytes = new TextEncoder().encode('123456789');
  expect(crc32(bytes)).toBe(0xcbf43926);
  expect(crc32(bytes.subarray(4), crc32(bytes.subarray(0, 4)))).toBe(0xcbf43926);
});

it('writes 64-bit floats that read back exactly', () => {
  const samples = Float64Array.of(0.1, -1e-9, 3.5);
  const back = readWav(writeWav([samples], 96000, 'float64'));
  expect(back).toMatchObject({ rate: 96000, encoding: 'float', bits: 64 });
  expect([...back.channels[0]!]).toEqual([...samples]);
});
