import { FormatError } from './formatError.js';

const MARK = [0x66, 0x4c, 0x61, 0x43];
const STREAM_INFO = 0;
const COMMENT = 4;
/** Comments of other programs stand under names of their own; ours is the one that the format calls `DESCRIPTION`. */
const NAME = 'DESCRIPTION=';
const MAKER = 'Pebble Hall';
const MOST_BLOCKS = 128;
const MOST_COMMENT = 1 << 20;

interface Block {
  type: number;
  /** of the block's data */
  from: number;
  to: number;
  isLast: boolean;
}

/** Metadata blocks of a FLAC file (RFC 9639, 8.1). @throws FormatError where it is none, or cut off */
function blocksOf(bytes: Uint8Array): Block[] {
  if (bytes.length < 42 || MARK.some((v, i) => bytes[i] !== v))
    throw new FormatError('This is not a FLAC file: it does not start with its mark.');
  const blocks: Block[] = [];
  let at = 4;
  for (;;) {
    if (at + 4 > bytes.length || blocks.length > MOST_BLOCKS)
      throw new FormatError('The FLAC file ends within its head: it was cut off, or is damaged.');
    const length = (bytes[at + 1]! << 16) | (bytes[at + 2]! << 8) | bytes[at + 3]!;
    const isLast = bytes[at]! >= 0x80;
    blocks.push({ type: bytes[at]! & 0x7f, from: at + 4, to: at + 4 + length, isLast });
    at += 4 + length;
    if (isLast) return blocks;
  }
}

/**
 * Rate, channels and comments as the head of a FLAC file tells them (RFC 9639, 8.2 and 8.6).
 * @returns comments without the names of their fields, a line each; empty for none
 * @throws FormatError where it is none
 */
export function flacHead(bytes: Uint8Array): { rate: number; channels: number; comment: string } {
  const blocks = blocksOf(bytes);
  const info = blocks[0]!;
  if (info.type !== STREAM_INFO || info.to - info.from < 34)
    throw new FormatError('The FLAC file does not begin with what it holds.');
  // behind block sizes 4 and frame sizes 6: 20 bits of rate and 3 of channels less one
  const at = info.from + 10;
  const rate = (bytes[at]! << 12) | (bytes[at + 1]! << 4) | (bytes[at + 2]! >> 4);
  const channels = ((bytes[at + 2]! >> 1) & 7) + 1;
  if (rate === 0) throw new FormatError('The FLAC file does not tell its rate.');
  const block = blocks.find((b) => b.type === COMMENT);
  return { rate, channels, comment: block ? commentIn(bytes.subarray(block.from, block.to)) : '' };
}

/** What is broken in a comment costs the comment, not the sound. */
function commentIn(block: Uint8Array): string {
  const view = new DataView(block.buffer, block.byteOffset, block.byteLength);
  const lines: string[] = [];
  try {
    let at = 4 + view.getUint32(0, true);
    const count = view.getUint32(at, true);
    at += 4;
    for (let i = 0; i < Math.min(count, 1000); i++) {
      const length = view.getUint32(at, true);
      const text = new TextDecoder().decode(block.subarray(at + 4, at + 4 + length));
      if (at + 4 + length > block.length) break;
      lines.push(text.slice(text.indexOf('=') + 1));
      at += 4 + length;
    }
  } catch {
    return lines.join('\n');
  }
  return lines.join('\n');
}

/** A FLAC file with another comment in place of whatever comments it has. @throws FormatError where it is none */
export function withFlacComment(bytes: Uint8Array, comment: string): Uint8Array<ArrayBuffer> {
  const blocks = blocksOf(bytes);
  const kept = blocks.filter((b) => b.type !== COMMENT);
  const encoder = new TextEncoder();
  const [maker, text] = [encoder.encode(MAKER), encoder.encode(NAME + comment).subarray(0, MOST_COMMENT)];
  const made = new Uint8Array(4 + maker.length + 4 + 4 + text.length);
  const view = new DataView(made.buffer);
  view.setUint32(0, maker.length, true);
  made.set(maker, 4);
  view.setUint32(4 + maker.length, 1, true);
  view.setUint32(8 + maker.length, text.length, true);
  made.set(text, 12 + maker.length);
  const sound = bytes.subarray(blocks.at(-1)!.to);
  const parts = [
    ...kept.map((b) => [b.type, bytes.subarray(b.from, b.to)] as const),
    [COMMENT, made] as const,
  ];
  const out = new Uint8Array(4 + parts.reduce((sum, [, data]) => sum + 4 + data.length, 0) + sound.length);
  out.set(MARK);
  let at = 4;
  parts.forEach(([type, data], i) => {
    const isLast = i === parts.length - 1;
    out.set(
      [type | (isLast ? 0x80 : 0), data.length >> 16, (data.length >> 8) & 0xff, data.length & 0xff],
      at,
    );
    out.set(data, at + 4);
    at += 4 + data.length;
  });
  out.set(sound, at);
  return out;
}
