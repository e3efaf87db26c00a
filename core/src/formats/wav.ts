import type { RealArray } from '../signal/index.js';
import { FormatError } from './formatError.js';

/** Sound as read from a WAV file: one array per channel, all equally long, full scale = 1. */
export interface WavSound {
  rate: number;
  channels: Float64Array[];
  /** what the samples were stored as */
  encoding: 'pcm' | 'float';
  bits: number;
  /** what its comment says (LIST INFO ICMT); empty for none */
  comment: string;
}

/** Of all channels, read as 64-bit numbers: a quarter of a gigabyte. */
const MOST_SAMPLES = 1 << 25;

/**
 * Reads a WAV file: PCM of 16, 24 or 32 bits, float of 32 or 64, with the plain or the extensible header, any number of
 * channels; chunks it does not know are passed over.
 * @throws FormatError with the reason; NaN and infinite samples are refused, not repaired
 */
export function readWav(bytes: Uint8Array): WavSound {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const name = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length === 0) throw new FormatError('The file is empty.');
  if (bytes.length < 12 || name(0) !== 'RIFF' || name(8) !== 'WAVE') {
    throw new FormatError('This is not a WAV file: it does not start with a RIFF/WAVE header.');
  }
  let comment = '';
  let format: { code: number; channels: number; rate: number; bits: number } | undefined;
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = view.getUint32(at + 4, true);
    const body = at + 8;
    if (name(at) === 'fmt ') {
      if (size < 16 || body + size > bytes.length)
        throw new FormatError('The format header of the WAV file is cut off.');
      const extensible = view.getUint16(body, true) === 0xfffe && size >= 26;
      format = {
        code: extensible ? view.getUint16(body + 24, true) : view.getUint16(body, true),
        channels: view.getUint16(body + 2, true),
        rate: view.getUint32(body + 4, true),
        bits: view.getUint16(body + 14, true),
      };
    } else if (name(at) === 'LIST') {
      comment = commentIn(bytes, body, size) || comment;
    } else if (name(at) === 'data') {
      if (!format) throw new FormatError('The WAV file has sound data before its format header.');
      // recorders that were cut off leave 0 or the largest number here: then the data go on to the end
      const open = size === 0xffffffff || (size === 0 && body < bytes.length);
      if (!open && body + size > bytes.length) {
        throw new FormatError(
          `The WAV file is cut off: its header promises ${size} bytes of sound, ${bytes.length - body} are there.`,
        );
      }
      return { ...decode(view, body, open ? bytes.length - body : size, format), comment };
    }
    at = body + size + (size & 1);
  }
  throw new FormatError(`The WAV file has no ${format ? 'sound data' : 'format header'}.`);
}

function decode(
  view: DataView,
  from: number,
  length: number,
  { code, channels, rate, bits }: { code: number; channels: number; rate: number; bits: number },
): Omit<WavSound, 'comment'> {
  const encoding = code === 1 ? 'pcm' : code === 3 ? 'float' : undefined;
  const known = encoding === 'pcm' ? [16, 24, 32] : [32, 64];
  if (!encoding || !known.includes(bits)) {
    throw new FormatError(
      `The WAV file holds ${bits} bit samples of type ${code}; PCM of 16, 24 or 32 bits and float of 32 or 64 can be read.`,
    );
  }
  if (channels < 1 || !(rate >= 1000 && rate <= 768000)) {
    throw new FormatError(`The WAV file claims ${channels} channels at ${rate} Hz; that cannot be right.`);
  }
  const width = bits / 8;
  const frames = Math.floor(length / (width * channels));
  if (frames === 0) throw new FormatError('The WAV file holds no samples.');
  if (frames * channels > MOST_SAMPLES)
    throw new FormatError('The WAV file is too long to be an impulse response.');
  const read = {
    pcm16: (at: number) => view.getInt16(at, true) / 0x8000,
    pcm24: (at: number) => ((view.getInt8(at + 2) << 16) | view.getUint16(at, true)) / 0x800000,
    pcm32: (at: number) => view.getInt32(at, true) / 0x80000000,
    float32: (at: number) => view.getFloat32(at, true),
    float64: (at: number) => view.getFloat64(at, true),
  }[`${encoding}${bits}` as 'pcm16'];
  const out = Array.from({ length: channels }, () => new Float64Array(frames));
  for (let i = 0; i < frames; i++) {
    for (let c = 0; c < channels; c++) {
      const value = read(from + (i * channels + c) * width);
      if (!Number.isFinite(value)) {
        throw new FormatError(`Sample ${i + 1} of channel ${c + 1} in the WAV file is not a number.`);
      }
      out[c]![i] = value;
    }
  }
  return { rate, channels: out, encoding, bits };
}

/**
 * Writes a WAV file: 32- or 64-bit float (any value) or 24-bit PCM (clipped to full scale, rounded).
 * @param channels at least one, equally long
 * @param comment goes in as LIST INFO ICMT, ahead of the sound
 */
export function writeWav(
  channels: RealArray[],
  rate: number,
  kind: 'float32' | 'float64' | 'pcm24' = 'float32',
  comment = '',
): Uint8Array {
  const frames = channels[0]?.length ?? 0;
  if (channels.length === 0 || channels.some((c) => c.length !== frames)) {
    throw new RangeError(`writeWav: channels of ${channels.map((c) => c.length).join(', ')} samples`);
  }
  const width = { float32: 4, float64: 8, pcm24: 3 }[kind];
  const isFloat = kind !== 'pcm24';
  const dataSize = frames * channels.length * width;
  const pad = dataSize & 1;
  // float wants the fact chunk (RIFF, new multimedia types, 1994)
  const note = comment === '' ? new Uint8Array(0) : infoChunk(comment);
  const extra = (isFloat ? 2 + 12 : 0) + note.length;
  const bytes = new Uint8Array(44 + extra + dataSize + pad);
  const view = new DataView(bytes.buffer);
  let at = 0;
  const text = (s: string) => [...s].forEach((c) => view.setUint8(at++, c.charCodeAt(0)));
  const u32 = (v: number) => (view.setUint32(at, v, true), (at += 4));
  const u16 = (v: number) => (view.setUint16(at, v, true), (at += 2));
  text('RIFF');
  u32(bytes.length - 8);
  text('WAVEfmt ');
  u32(isFloat ? 18 : 16);
  u16(isFloat ? 3 : 1);
  u16(channels.length);
  u32(rate);
  u32(rate * channels.length * width);
  u16(channels.length * width);
  u16(width * 8);
  if (isFloat) {
    u16(0);
    text('fact');
    u32(4);
    u32(frames);
  }
  bytes.set(note, at);
  at += note.length;
  text('data');
  u32(dataSize);
  for (let i = 0; i < frames; i++) {
    for (const channel of channels) {
      const v = channel[i]!;
      if (kind === 'float32') view.setFloat32(at, v, true);
      else if (kind === 'float64') view.setFloat64(at, v, true);
      else {
        const whole = Math.max(-0x800000, Math.min(0x7fffff, Math.round(v * 0x800000)));
        view.setUint16(at, whole & 0xffff, true);
        view.setInt8(at + 2, whole >> 16);
      }
      at += width;
    }
  }
  return bytes;
}

/** A comment as a chunk of its own: LIST, INFO, ICMT, ended by a zero, of even length. */
function infoChunk(comment: string): Uint8Array {
  const body = new TextEncoder().encode(`${comment}\0`);
  const size = body.length + (body.length & 1);
  const chunk = new Uint8Array(8 + 4 + 8 + size);
  const view = new DataView(chunk.buffer);
  chunk.set(new TextEncoder().encode('LIST'), 0);
  view.setUint32(4, 12 + size, true);
  chunk.set(new TextEncoder().encode('INFOICMT'), 8);
  view.setUint32(16, body.length, true);
  chunk.set(body, 20);
  return chunk;
}

/** The comment in a LIST INFO chunk; empty where it has none. */
function commentIn(bytes: Uint8Array, from: number, size: number): string {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = Math.min(bytes.length, from + size);
  const name = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (name(from) !== 'INFO') return '';
  for (let at = from + 4; at + 8 <= end;) {
    const length = view.getUint32(at + 4, true);
    if (name(at) === 'ICMT')
      return new TextDecoder()
        .decode(bytes.subarray(at + 8, Math.min(end, at + 8 + length)))
        .replace(/\0.*$/s, '');
    at += 8 + length + (length & 1);
  }
  return '';
}
