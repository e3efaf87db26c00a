import { flacHead, flacLength, FormatError } from '@pebble-hall/core/formats';

/** Of all channels together. */
const MOST_SAMPLES = 1 << 25;

/** The sound of a FLAC file by the browser's own decoder, at the rate of the file. @throws FormatError */
export async function decodeFlac(
  bytes: Uint8Array,
): Promise<{ channels: Float64Array[]; rate: number; comment: string }> {
  const { rate, channels, comment } = flacHead(bytes);
  // what a few bytes unpack to is counted before they are
  if (channels * flacLength(bytes) > MOST_SAMPLES)
    throw new FormatError(
      'The FLAC file unpacks to more than a response has: this is a recording, or made to burst.',
    );
  let sound: AudioBuffer;
  try {
    // a context of the file's own rate resamples nothing
    sound = await new OfflineAudioContext(channels, 1, rate).decodeAudioData(bytes.slice().buffer);
  } catch {
    throw new FormatError('This browser cannot decode the FLAC file. Save it as WAV instead.');
  }
  return {
    rate,
    channels: Array.from({ length: sound.numberOfChannels }, (_, c) =>
      Float64Array.from(sound.getChannelData(c)),
    ),
    comment,
  };
}
