import type { Loudspeaker, Project } from '@pebble-hall/core/project';
import { pinkNoise } from '@pebble-hall/core/signal';
import { SimulatedRig } from '../ports/rig';
import { wordsFor } from '../words/spokenWords';
import { microphoneOf, rigOf, placeMicrophones } from './theRig';

/** Test sounds are soft: this RMS at the most, and never above the test level. */
const SOFT_DBFS = -42;
const GAP_S = 0.08;
const NOISE_S = 1.6;
const RAMP_S = 0.5;

/** The spoken name of a channel, at a rate, peak 0.7. */
export const spokenName = ({ name, output }: Loudspeaker, rate: number): Promise<Float32Array> =>
  spokenSound(wordsFor(name, output), rate);

/** Words that ship as sound, one after the other. */
async function spokenSound(words: string[], rate: number): Promise<Float32Array> {
  const decoder = new OfflineAudioContext(1, 1, rate);
  const parts = await Promise.all(
    words.map(async (word) => {
      const response = await fetch(`/spoken/${word}.flac`);
      if (!response.ok) throw new Error(`The spoken word "${word}" is missing. Run "npm run build" again.`);
      return (await decoder.decodeAudioData(await response.arrayBuffer())).getChannelData(0);
    }),
  );
  const gap = Math.round(GAP_S * rate);
  const out = new Float32Array(parts.reduce((sum, p) => sum + p.length + gap, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length + gap;
  }
  return out;
}

/** Speaks words through the output of this computer. */
export async function speakWords(words: string[], signal = new AbortController().signal): Promise<void> {
  const rate = 48000;
  await hear(await spokenSound(words, rate), rate, signal);
}

/** Soft pink noise that swells and sinks. */
export function softNoise(rate: number): Float32Array {
  const length = Math.round(NOISE_S * rate);
  const ramp = RAMP_S * rate;
  return Float32Array.from(pinkNoise(length, rate, 11), (v, i) => {
    const edge = Math.min(1, i / ramp, (length - i) / ramp);
    return v * Math.sin((Math.PI / 2) * edge) ** 2;
  });
}

function atLevel(samples: Float32Array, rmsDbfs: number): Float32Array {
  let sum = 0;
  let peak = 0;
  for (const v of samples) {
    sum += v * v;
    peak = Math.max(peak, Math.abs(v));
  }
  const gain = Math.min(10 ** (rmsDbfs / 20) / Math.sqrt(sum / samples.length || 1), 1 / (peak || 1));
  return samples.map((v) => gain * v);
}

/**
 * Plays a channel's name or a soft noise from its output. On the simulated rig it is heard as the microphone at the home
 * spot hears it, through the output of this computer.
 */
export async function playFrom(
  project: Project,
  loudspeaker: Loudspeaker,
  what: 'name' | 'noise',
  signal: AbortSignal,
): Promise<void> {
  const rig = rigOf(project);
  const { rate } = await rig.open();
  placeMicrophones(rig, project, project.place.spots[0]!.position);
  const sound = what === 'name' ? await spokenName(loudspeaker, rate) : softNoise(rate);
  const samples = atLevel(sound, Math.min(SOFT_DBFS, project.rig.levelDbfs));
  const { channels } = await rig.playAndRecord(
    {
      signals: [{ output: loudspeaker.output, samples }],
      inputs: [microphoneOf(project).input],
      lengthFrames: samples.length + Math.round(0.4 * rate),
    },
    { signal },
  );
  if (rig instanceof SimulatedRig) await hear(atLevel(channels[0]!, -24), rate, signal);
}

/** Plays a stored response through the output of this computer: a click as the room answers it, softly. */
export async function hearTrace(
  { samples, rate }: { samples: Float32Array; rate: number },
  signal: AbortSignal,
) {
  const peak = samples.reduce((most, v) => Math.max(most, Math.abs(v)), 1e-9);
  await hear(
    samples.map((v) => (0.2 * v) / peak),
    rate,
    signal,
  );
}

/** Plays through the output of this computer, until it is over or silenced. */
async function hear(samples: Float32Array, rate: number, signal: AbortSignal): Promise<void> {
  const context = new AudioContext();
  try {
    const buffer = context.createBuffer(1, samples.length, rate);
    buffer.copyToChannel(Float32Array.from(samples), 0);
    const source = context.createBufferSource();
    source.buffer = buffer;
    source.connect(context.destination);
    await new Promise<void>((resolve) => {
      source.onended = () => resolve();
      signal.addEventListener('abort', () => resolve(), { once: true });
      // a machine without sound never ends what it plays
      setTimeout(resolve, (1000 * samples.length) / rate + 1500);
      source.start();
    });
  } finally {
    await context.close();
  }
}
