import type { KeptTrace, LiveOrigin, Project, TogetherOrigin } from '@pebble-hall/core/project';
import { settingWords } from './alignWords';
import { knobsText } from './deviceWords';
import { memoryWords } from './memoryName';

const SIGNALS = {
  pink: 'pink noise',
  white: 'white noise',
  band: 'pink noise in a band',
  sine: 'a sine',
  'multi-tone': 'a tone in each third',
  sweep: 'sweeps',
  file: 'a sound file',
};

const date = (at: number) => new Date(at).toISOString().slice(0, 16).replace('T', ' ');
const db = (v: number) => `${v > 0 ? '+' : ''}${v.toFixed(1)} dB`.replace('-', '\u2212');

/** Everything known about where a trace comes from, line by line: for its card, and for the head of a file. */
export function originLines(
  project: Pick<Project, 'place' | 'rig'>,
  { origin, keptAt, kind }: KeptTrace,
): string[] {
  if (origin.by === 'file')
    return [
      `From ${origin.fileName || 'a file'}, imported ${date(keptAt)} UTC`,
      ...(origin.columns.length > 0 ? [`Columns: ${origin.columns.join('; ')}`] : []),
      origin.hasPhase
        ? 'Absolute time and level are those of the file: nothing here can check them.'
        : 'It has no phase; absolute level is that of the file.',
      ...origin.notes.slice(0, 6),
    ];
  if (origin.by === 'computed') return [];
  if (origin.by === 'together') return togetherLines(origin, keptAt);
  return [
    `Measured live ${date(keptAt)} UTC with ${origin.rigName}`,
    `Input ${origin.input}${kind === 'spectrum' ? '' : ` against ${origin.reference === 'generator' ? 'the generator' : `input ${origin.reference}`}`}${
      origin.calibration ? `, corrected by ${origin.calibration}` : ', not corrected'
    }`,
    kind === 'spectrum' ? spectrumLine(origin) : transferLine(origin),
    playedLine(project, origin),
    ...(origin.position
      ? [
          `Microphone at x ${origin.position.x.toFixed(2)} m, y ${origin.position.y.toFixed(2)} m, z ${origin.position.z.toFixed(2)} m; ${origin.temperatureC} °C`,
        ]
      : []),
    ...(origin.device ? [`On the bench: ${origin.device.name}${knobsText(origin.device.knobs)}`] : []),
    ...(origin.memory ? [`In the chain: ${memoryWords(origin.memory)}`] : []),
  ];
}

function togetherLines(origin: TogetherOrigin, keptAt: number): string[] {
  const { x, y, z } = origin.position;
  return [
    `Swept all at once ${date(keptAt)} UTC with ${origin.rigName}, ${db(origin.levelDbfs).replace('+', '')} re full scale`,
    ...origin.parts.map((p) => `${p.name}: ${settingWords(p.as)}`),
    `At ${origin.spotName}: microphone at x ${x.toFixed(2)} m, y ${y.toFixed(2)} m, z ${z.toFixed(2)} m; ${origin.temperatureC} °C`,
    origin.calibration ? `Corrected by ${origin.calibration}` : 'Not corrected',
    `In the chain: ${memoryWords(origin.memory)}`,
  ];
}

function transferLine({
  blockLength,
  averaging,
  levels,
  blocks,
  delayS,
  gainDb,
  inverted,
  average,
  floor,
}: LiveOrigin): string {
  const over =
    averaging.kind === 'exponential'
      ? `over the last ${averaging.seconds} s`
      : averaging.kind === 'fixed'
        ? `over the first ${averaging.blocks} blocks`
        : 'over all since restarted';
  return [
    blockLength === 'merged' ? 'Merged blocks' : `Blocks of ${blockLength / 1024} k`,
    `${over}, as much as ${blocks.toFixed(1)} blocks`,
    ...(levels === 'power' ? ['levels by power'] : levels === 'coherence' ? ['blocks by coherence'] : []),
    ...(floor
      ? [
          `below ${Math.round(floor.crossoverHz)} Hz by the floor's input ${floor.input}, raised by ${db(floor.levelDb)} and ${(1000 * floor.delayS).toFixed(2).replace('-', '\u2212')} ms later`,
        ]
      : []),
    ...(average === 'none' ? [] : [`average of all, ${average}`]),
    `${(1000 * delayS).toFixed(3)} ms taken off`,
    ...(gainDb === 0 ? [] : [db(gainDb)]),
    ...(inverted ? ['inverted'] : []),
  ].join(', ');
}

function spectrumLine({ spectrum }: LiveOrigin): string {
  if (!spectrum) return 'Spectrum';
  const { bands, weighting, seconds, splOffsetDb } = spectrum;
  return `${bands === 'narrow' ? 'Bands of 3 Hz' : bands === 1 ? 'Octaves' : `1/${bands} octave`}, weighting ${weighting}, ${
    seconds === null ? 'all since restarted' : `the last ${seconds} s`
  }, ${splOffsetDb === null ? 'dB re full scale, not calibrated' : `${db(splOffsetDb)} to sound pressure level`}`;
}

function playedLine({ place }: Pick<Project, 'place'>, { generator }: LiveOrigin): string {
  if (!generator) return 'The generator was silent';
  const channels = generator.loudspeakerIds.flatMap(
    (id) => place.loudspeakers.find((l) => l.id === id)?.name ?? [],
  );
  return `Played: ${SIGNALS[generator.signal.kind]} at ${generator.levelDbfs} dBFS${channels.length > 0 ? ` on ${channels.join(' and ')}` : ''}`;
}
