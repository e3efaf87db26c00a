import type { Project } from '@pebble-hall/core/project';
import { writeCurveText } from '@pebble-hall/core/traces';
import { traceName, type SeenTrace } from '../../../services/libraryCurves';
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

/** Saves traces as text files, each with everything known of it in its head. */
export function exportText(
  project: Project,
  ids: readonly string[],
  seen: ReadonlyMap<string, SeenTrace>,
): void {
  const done = ids.filter((id) => {
    const curve = seen.get(id)?.curve;
    if (!curve) return false;
    saveFile(
      fileName(traceName(project, id)!, 'txt'),
      writeCurveText(curve, aboutTrace(project, id)),
      'text/plain',
    );
    return true;
  });
  if (done.length === 0) notify('Nothing to export: what is chosen has no curve.');
}
