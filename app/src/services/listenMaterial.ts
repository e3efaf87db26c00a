import type { NoiseBand } from '@pebble-hall/core/auralisation';
import { runJob } from './jobs';

export const RATE = 48000;
/** A file that is longer is refused: all of it is held in memory. */
export const MOST_S = 600;
/** The same of one that is rendered through a chain, in one go. */
export const MOST_RENDERED_S = 300;
const MOST_BYTES = 200e6;

export interface Material {
  name: string;
  channels: Float32Array[];
}

export const OWN_MATERIALS = [
  { value: 'story', label: 'Story, spoken' },
  { value: 'strings', label: 'Plucked strings' },
  { value: 'noise', label: 'Pink noise' },
  { value: 'band', label: 'Noise of a band' },
] as const;
export type MaterialKind = (typeof OWN_MATERIALS)[number]['value'];

async function decoded(bytes: ArrayBuffer): Promise<Float32Array[]> {
  const buffer = await new OfflineAudioContext(1, 1, RATE).decodeAudioData(bytes);
  return Array.from({ length: Math.min(2, buffer.numberOfChannels) }, (_, i) =>
    buffer.getChannelData(i).slice(),
  );
}

/** Material that ships with the application. @param band of the noise of a band, with its name */
export async function shippedMaterial(
  kind: MaterialKind,
  band: NoiseBand & { name: string },
): Promise<Material> {
  const name = OWN_MATERIALS.find((m) => m.value === kind)!.label;
  if (kind === 'band')
    return {
      name: band.name,
      channels: await runJob('listen.material', { from: band.from, to: band.to }),
    };
  if (kind !== 'story') return { name, channels: await runJob('listen.material', kind) };
  const response = await fetch('/listen/story.flac');
  if (response.status === 404) throw new Error('The spoken story is missing. Run "npm run build" again.');
  if (!response.ok)
    throw new Error(
      `The server did not give out the spoken story (${response.status}). Try again in a moment.`,
    );
  return { name, channels: await decoded(await response.arrayBuffer()) };
}

/**
 * A file of one's own, as the browser can read it.
 * @throws with a sentence when it is no sound, empty, too long, or too large
 */
export async function fileMaterial(file: File, mostS = MOST_S): Promise<Material> {
  if (file.size > MOST_BYTES)
    throw new Error(`${file.name} is larger than ${MOST_BYTES / 1e6} MB. Cut a piece out of it first.`);
  let channels: Float32Array[];
  try {
    channels = await decoded(await file.arrayBuffer());
  } catch {
    throw new Error(
      `${file.name} is no sound that this browser can read. Save it as WAV or FLAC and try again.`,
    );
  }
  if (!channels[0] || channels[0].length < RATE / 2)
    throw new Error(`${file.name} is shorter than half a second.`);
  if (channels[0].length > mostS * RATE)
    throw new Error(`${file.name} is longer than ${mostS / 60} minutes. Cut a piece out of it first.`);
  if (channels.some((c) => c.some((v) => !Number.isFinite(v))))
    throw new Error(`${file.name} holds samples that are no numbers.`);
  return { name: file.name.slice(0, 80), channels };
}
