import type { KeptTrace, Project } from '@pebble-hall/core/project';
import { plainView } from '@pebble-hall/core/project';
import type { LibraryCurve } from '@pebble-hall/core/traces';
import { useEffect, useState } from 'react';
import { projectNow, repository, sentenceOf, sharedTraces, type SharedTrace } from '../store';
import { formulaSentence } from '../words/formulaWords';
import { changeProject } from './changeProject';
import { packCurve } from './keepTrace';
import { traceName } from './libraryCurves';
import { notify, notifyProblem } from './notify';
import { SHELF } from './references';

/** What is computed is kept at the rate that sessions run at; a curve over frequency has none of its own. */
const RATE = 48_000;

/** What stands on the shelf of all projects. */
export function useSharedShelf(): readonly SharedTrace[] {
  const [shared, setShared] = useState<readonly SharedTrace[]>([]);
  useEffect(() => sharedTraces.watch(setShared), []);
  return shared;
}

/** A trace as it stands on the shelf: with samples of its own, as it rests on nothing there. */
async function sharedOf(
  project: Project,
  trace: KeptTrace,
  curve: LibraryCurve | null,
): Promise<SharedTrace | null> {
  const { origin, id } = trace;
  if (origin.by !== 'computed') {
    const array = await repository().array(trace.arrayId!);
    return array ? { id, trace: { ...trace, folder: SHELF }, array } : null;
  }
  if (!curve) return null;
  const array = packCurve(crypto.randomUUID(), curve, RATE);
  const said = formulaSentence(origin.formula, (source) => traceName(project, source));
  const file = {
    by: 'file' as const,
    fileName: project.name,
    columns: [],
    hasPhase: curve.hasPhase,
    notes: [said],
  };
  // it is put there as it is seen
  return {
    id,
    trace: { ...trace, folder: SHELF, arrayId: array.id, origin: file, view: plainView() },
    array,
  };
}

/**
 * Puts a trace of the open project on the shelf of all projects.
 * @param curve as it is seen, of a trace that is computed
 */
export async function putOnShelf(trace: KeptTrace, curve: LibraryCurve | null): Promise<void> {
  try {
    const shared = await sharedOf(projectNow(), trace, curve);
    if (!shared) return notify(`${trace.name} has no curve to put on the shelf.`);
    await sharedTraces.put(shared);
  } catch (error) {
    return notifyProblem(`Not put on the shelf: ${trace.name}. ${sentenceOf(error)}`);
  }
  await changeProject(`${trace.name} put on the shelf`, (p) => ({
    ...p,
    kept: p.kept.map((k) => (k.id === trace.id ? { ...k, folder: SHELF } : k)),
  }));
}

/** Takes a trace off the shelf of all projects; projects that took it in keep it. */
export async function takeOffShelf({ id, trace }: SharedTrace): Promise<void> {
  try {
    await sharedTraces.remove(id);
  } catch (error) {
    notifyProblem(`Still on the shelf: ${trace.name}. ${sentenceOf(error)}`);
  }
}

/** Brings a trace of the shelf into the open project, with samples of its own, and shows it. */
export async function bringFromShelf({ trace, array }: SharedTrace): Promise<void> {
  const own = { ...array, id: crypto.randomUUID() };
  await changeProject(
    `${trace.name} from the shelf`,
    (p) =>
      p.kept.some((k) => k.id === trace.id)
        ? p
        : {
            ...p,
            kept: [
              ...p.kept,
              // files of microphones stay with the project that it came from
              { ...trace, arrayId: own.id, view: { ...trace.view, isShown: true, calibrationId: null } },
            ],
          },
    { arrays: [own] },
  );
}
