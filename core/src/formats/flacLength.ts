/** Samples of a channel, by the block size codes that name them (RFC 9639, 9.1.1). */
const BLOCK = (code: number): number | null =>
  code === 1 ? 192 : code >= 2 && code <= 5 ? 144 << code : code >= 8 ? 1 << code : null;

/** CRC-8 of a frame's head, x^8 + x^2 + x + 1 (RFC 9639, 9.1.8). */
const CRC8 = Uint8Array.from({ length: 256 }, (_, byte) => {
  let crc = byte;
  for (let bit = 0; bit < 8; bit++) crc = ((crc << 1) ^ (crc & 0x80 ? 0x07 : 0)) & 0xff;
  return crc;
});

/**
 * How many samples of each channel the frames of a FLAC file unpack to, by their heads alone: what the file claims in its own
 * head need not be so, and a few bytes can stand for 65,535 samples. Never less than a decoder would give.
 */
export function flacLength(bytes: Uint8Array): number {
  let samples = 0;
  for (let at = 0; at + 6 <= bytes.length; at++) {
    if (bytes[at] !== 0xff || (bytes[at + 1]! & 0xfe) !== 0xf8) continue;
    const size = frameAt(bytes, at);
    if (size !== null) samples += size;
  }
  return samples;
}

/** @returns samples of the frame whose head is here; null where there is none */
function frameAt(bytes: Uint8Array, from: number): number | null {
  const [sizes, kinds] = [bytes[from + 2]!, bytes[from + 3]!];
  const [sizeCode, rateCode] = [sizes >> 4, sizes & 15];
  if (sizeCode === 0 || rateCode === 15 || (kinds & 1) === 1) return null;
  // the number of the frame, as long as its first byte says
  const first = bytes[from + 4]!;
  let more = 0;
  while (more < 7 && first & (0x80 >> more)) more++;
  if (more === 1) return null;
  let at = from + 4 + Math.max(1, more);
  const sizeBytes = sizeCode === 6 ? 1 : sizeCode === 7 ? 2 : 0;
  const size =
    sizeBytes === 0
      ? BLOCK(sizeCode)
      : sizeBytes === 1
        ? bytes[at]! + 1
        : ((bytes[at]! << 8) | bytes[at + 1]!) + 1;
  at += sizeBytes + (rateCode === 12 ? 1 : rateCode >= 13 ? 2 : 0);
  if (at >= bytes.length) return null;
  let crc = 0;
  for (let i = from; i < at; i++) crc = CRC8[crc ^ bytes[i]!]!;
  return crc === bytes[at] ? size : null;
}
