import { flacHead, FormatError } from '@pebble-hall/core/formats';

/** The sound of a FLAC file by the browser's own decoder, at the rate of the file. @throws FormatError */
export async function decodeFlac(
  bytes: Uint8Array,
): Promise<{ channels: Float64Array[]; rate: number; comment: string }> {
  const { rate, channels, comment } = flacHead(bytes);
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
