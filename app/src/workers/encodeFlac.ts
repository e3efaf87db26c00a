import { withFlacComment } from '@pebble-hall/core/formats';
import { dbOfGain, gainOfDb } from '@pebble-hall/core/signal';

/** Of each sample, bits. */
const DEPTH = 24;
/** The highest sample is brought here, so that little is lost to whole numbers, and nothing is cut off. */
const PEAK = 0.5;

/**
 * Samples as a FLAC file of 24 bits, by the reference encoder.
 * @param comment for its head, given the gain that the samples were written with, dB
 */
export async function encodeFlac(
  channels: readonly Float64Array[],
  rate: number,
  comment: (gainDb: number) => string,
): Promise<Uint8Array<ArrayBuffer>> {
  const Flac = (await import('libflacjs/dist/libflac.js')).default;
  if (!Flac.isReady()) await new Promise<void>((resolve) => Flac.on('ready', () => resolve()));
  let peak = 0;
  for (const samples of channels) for (const v of samples) peak = Math.max(peak, Math.abs(v));
  // as exact as the comment tells it
  const gainDb = peak > 0 ? Number(dbOfGain(PEAK / peak).toFixed(4)) : 0;
  const scale = gainOfDb(gainDb) * (2 ** (DEPTH - 1) - 1);
  const whole = channels.map((samples) => Int32Array.from(samples, (v) => Math.round(scale * v)));
  const length = whole[0]!.length;
  const encoder = Flac.create_libflac_encoder(rate, channels.length, DEPTH, 5, length, false);
  if (encoder === 0) throw new RangeError(`encodeFlac: no FLAC of ${channels.length} channels at ${rate} Hz`);
  const parts: Uint8Array[] = [];
  try {
    const isOpen =
      Flac.init_encoder_stream(encoder, (data: Uint8Array) => void parts.push(data.slice())) === 0;
    if (
      !isOpen ||
      !Flac.FLAC__stream_encoder_process(encoder, whole, length) ||
      !Flac.FLAC__stream_encoder_finish(encoder)
    )
      throw new RangeError('encodeFlac: the encoder refused the samples');
  } finally {
    Flac.FLAC__stream_encoder_delete(encoder);
  }
  const out = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return withFlacComment(out, comment(gainDb));
}
