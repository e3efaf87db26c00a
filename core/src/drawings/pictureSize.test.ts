import { describe, expect, it } from 'vitest';
import { bytesOfText } from '../formats/index.js';
import { pictureSize } from './pictureSize.js';

/** The head of a PNG file: signature and IHDR (PNG specification, 11.2.2). */
function png(width: number, height: number): Uint8Array {
  const bytes = new Uint8Array(45);
  bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]);
  const view = new DataView(bytes.buffer);
  view.setUint32(16, width);
  view.setUint32(20, height);
  bytes.set([8, 2, 0, 0, 0], 24);
  return bytes;
}

/** A JPEG with a frame header only (ITU-T T.81, B.2.2). */
const jpeg = (width: number, height: number) =>
  Uint8Array.from([
    ...[0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 0, 0, 1, 0, 1, 0, 0],
    ...[
      0xff,
      0xc0,
      0,
      17,
      8,
      height >> 8,
      height & 255,
      width >> 8,
      width & 255,
      3,
      1,
      0x22,
      0,
      2,
      0x11,
      1,
      3,
      0x11,
      1,
    ],
    ...[0xff, 0xd9],
  ]);

describe('pictureSize', () => {
  it('reads width and height from the head of the file', () => {
    expect(pictureSize(png(1200, 800))).toEqual({ type: 'image/png', width: 1200, height: 800 });
    expect(pictureSize(jpeg(640, 480))).toEqual({ type: 'image/jpeg', width: 640, height: 480 });
    const svg = bytesOfText('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 150"/>');
    expect(pictureSize(svg)).toEqual({ type: 'image/svg+xml', width: 300, height: 150 });
  });

  it('refuses 200 megapixels, other formats and what is cut off, and says what to do', () => {
    expect(() => pictureSize(png(16_000, 12_500))).toThrow(/200 megapixels.*smaller/);
    expect(() => pictureSize(bytesOfText('GIF89a\u0010\u0000\u0010\u0000'))).toThrow(/not from GIF/);
    expect(() => pictureSize(bytesOfText('no picture'))).toThrow(/PNG, JPEG or SVG/);
    expect(() => pictureSize(png(10, 10).subarray(0, 12))).toThrow(/cut off/);
  });
});
