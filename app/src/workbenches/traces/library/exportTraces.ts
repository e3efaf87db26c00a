import type { Project } from '@pebble-hall/core/project';
import type { ImpulseResponse } from '@pebble-hall/core/signal';
import { impulseHead, writeAes69Responses, writeImpulseText, writeWav } from '@pebble-hall/core/formats';
import { writeCurveText } from '@pebble-hall/core/traces';
import { traceName, type SeenTrace } from '../../../services/libraryCurves';
import { runJob } from '../../../services/jobs';
import { notify } from '../../../services/notify';
import { saveFile } from '../../../services/saveFile';
import { formulaSentence } from '../../../words/formulaWords';
import { originLines } from '../../../words/traceOrigin';

/** What is known of a trace, line by line: for the head of a file. */
export function aboutTrace(project: Project, id: string): string[] {
  const kept = project.kept.find((k) => k.id === id);
  return [
    traceName(project, id)!,
    `${project.name}, ${project.place.name}`,
    ...(kept ? originLines(project, kept) : []),
    ...(kept?.origin.by === 'computed'
      ? [formulaSentence(kept.origin.formula, (source) => traceName(project, source))]
      : []),
    ...(kept?.note ? [kept.note] : []),
  ];
}

export const fileName = (name: string, ending: string): string =>
  `${name.replace(/[^\p{L}\p{N} ,.-]+/gu, '-')}.${ending}`;

/** What traces go out as. */
export const EXPORTS = [
  'Text',
  'Impulse response, WAV',
  'Impulse response, FLAC',
  'Impulse response, text',
  'All in one WAV',
  'All in one AES69 set',
] as const;
export type Export = (typeof EXPORTS)[number];
export const EXPORT_RATES = [44_100, 48_000, 88_200, 96_000, 192_000] as const;

/** About 5.5 s at 48 kHz, and as long at other rates: its bins lie closer than the points of the library. */
const sizeAt = (rate: number): number => 1 << Math.round(Math.log2(262_144 * (rate / 48_000)));

/** Saves traces as files, with everything known of each in its head; what cannot go out so is told. */
export async function exportTraces(
  project: Project,
  ids: readonly string[],
  seen: ReadonlyMap<string, SeenTrace>,
  as: Export,
  rate: number,
): Promise<void> {
  const left: string[] = [];
  const impulses: { id: string; name: string; about: string[]; impulse: ImpulseResponse }[] = [];
  let saved = 0;
  for (const id of ids) {
    const curve = seen.get(id)?.curve;
    const name = traceName(project, id)!;
    const about = aboutTrace(project, id);
    if (!curve || (as !== 'Text' && !curve.hasPhase)) {
      left.push(name);
      continue;
    }
    saved++;
    if (as === 'Text') saveFile(fileName(name, 'txt'), writeCurveText(curve, about), 'text/plain');
    else
      impulses.push({
        id,
        name,
        about,
        impulse: await runJob('shapes.impulse', { curve, rate, size: sizeAt(rate) }),
      });
  }
  const wav = (of: typeof impulses, name: string) =>
    saveFile(
      fileName(name, 'wav'),
      writeWav(
        of.map((i) => i.impulse.samples),
        rate,
        'float32',
        [...of.flatMap((i) => i.about), ...impulseHead(of[0]!.impulse)].join('\n'),
      ),
      'audio/wav',
    );
  if (as === 'All in one WAV' && impulses.length > 0) wav(impulses, project.name);
  else if (as === 'All in one AES69 set' && impulses.length > 0) {
    const bytes = await writeAes69Responses(
      `${project.name}, traces`,
      impulses.flatMap((i) => i.about),
      rate,
      impulses.map(({ id, name, impulse }) => {
        const origin = project.kept.find((k) => k.id === id)?.origin;
        return {
          name,
          channels: [Float64Array.from(impulse.samples)],
          zero: impulse.zero,
          listener: origin?.by === 'live' ? origin.position : null,
        };
      }),
    );
    saveFile(fileName(project.name, 'sofa'), bytes, 'application/x-hdf5');
  } else
    for (const one of impulses) {
      if (as === 'Impulse response, WAV') wav([one], one.name);
      else if (as === 'Impulse response, FLAC')
        saveFile(
          fileName(one.name, 'flac'),
          await runJob('shapes.flac', { impulses: [one.impulse], about: one.about }),
          'audio/flac',
        );
      else saveFile(fileName(one.name, 'ir.txt'), writeImpulseText(one.impulse, one.about), 'text/plain');
    }
  if (left.length > 0)
    notify(
      saved === 0
        ? 'Nothing to export: what is chosen has no curve, or no phase for an impulse response.'
        : `Left out, without a phase or a curve: ${left.join(', ')}.`,
    );
}
