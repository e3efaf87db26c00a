import { expect, it } from 'vitest';
import { flacHead, FormatError, withFlacComment } from './index.js';

/** A FLAC file of nothing but its head and three bytes of sound. */
function file(rate: number, channels: number): Uint8Array {
  const bytes = new Uint8Array(4 + 4 + 34 + 3);
  bytes.set([0x66, 0x4c, 0x61, 0x43, 0x80, 0, 0, 34]);
  // 20 bits of rate, channels less one in three
  bytes.set([rate >> 12, (rate >> 4) & 0xff, ((rate & 0xf) << 4) | ((channels - 1) << 1)], 18);
  bytes.set([1, 2, 3], 42);
  return bytes;
}

it('the head tells rate and channels, and the comment that was put into it', () => {
  expect(flacHead(file(96_000, 2))).toEqual({ rate: 96_000, channels: 2, comment: '' });
  const once = withFlacComment(file(44_100, 1), 'Row 4, ± 0.2 dB\nmeasured on Tuesday');
  expect(flacHead(once)).toEqual({
    rate: 44_100,
    channels: 1,
    comment: 'Row 4, ± 0.2 dB\nmeasured on Tuesday',
  });
  expect([...once.slice(-3)]).toEqual([1, 2, 3]);
  // another one takes its place
  const again = withFlacComment(once, 'else');
  expect(flacHead(again).comment).toBe('else');
  expect([...again.slice(-3)]).toEqual([1, 2, 3]);
});

it('what is none, cut off, or without a rate is refused', () => {
  expect(() => flacHead(new Uint8Array(100))).toThrow(/not a FLAC/);
  expect(() => flacHead(file(0, 1))).toThrow(/rate/);
  const cut = withFlacComment(file(48_000, 1), 'a long comment that is cut off').slice(0, 44);
  cut[4] = 0; // the first block is not the last one any more
  expect(() => flacHead(cut)).toThrow(FormatError);
});

it('a comment that is damaged costs the comment only', () => {
  const bytes = withFlacComment(file(48_000, 1), 'whole');
  // its first length, of the maker's name, becomes too large
  bytes.set([255, 255, 255, 0], 4 + 4 + 34 + 4);
  expect(flacHead(bytes)).toEqual({ rate: 48_000, channels: 1, comment: '' });
});
