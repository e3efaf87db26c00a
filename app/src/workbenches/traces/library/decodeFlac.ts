import { FormatError } from '@pebble-hall/core/formats';

/** Rate and channels as the head of a FLAC file tells them (RFC 9639, 8.2). @throws FormatError where it is none */
export function flacHead(bytes: Uint8Array): { rate: number; channels: number } {
  if (bytes.length < 26 || String.fromCharCode(...bytes.subarray(0, 4)) !== 'fLaC')
    throw new FormatError('This is not a FLAC file: it does not start with its mark.');
  // behind mark and block header: block sizes 4, frame sizes 6, then 20 bits of rate and 3 of channels less one
  const at = 4 + 4 + 10;
  const rate = (bytes[at]! << 12) | (bytes[at + 1]! << 4) | (bytes[at + 2]! >> 4);
  const channels = ((bytes[at + 2]! >> 1) & 7) + 1;
  if (rate === 0) throw new FormatError('The FLAC file does not tell its rate.');
  return { rate, channels };
}

/** The sound of a FLAC file by the browser's own decoder, at the rate of the file. @throws FormatError */
export async function decodeFlac(
  bytes: Uint8Array,
): Promise<{ channels: Float64Array[]; rate: number; comment: string }> {
  const { rate, channels } = flacHead(bytes);
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
    comment: '',
  };
}
