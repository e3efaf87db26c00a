import { freeName, newReading, type KeptTrace, type Reading } from '@pebble-hall/core/project';
import type { ReadOptions, ShapeReading, WantedShape } from '@pebble-hall/core/shapes';
import type { LibraryCurve } from '@pebble-hall/core/traces';
import { projectNow } from '../store';
import { changeProject } from './changeProject';
import { newTrace } from './newTrace';
import { useJob } from './useJob';
import type { DerivedState } from './useDerived';

/** Changes one reading of the open project, undoably. */
export const changeReading = (
  label: string,
  id: string,
  change: (reading: Reading) => Reading,
): Promise<boolean> =>
  changeProject(label, (p) => ({ ...p, readings: p.readings.map((r) => (r.id === id ? change(r) : r)) }));

export const removeReading = (id: string): Promise<boolean> =>
  changeProject('reading removed', (p) => ({ ...p, readings: p.readings.filter((r) => r.id !== id) }));

/**
 * A new reading of a trace of the library.
 * @param like looks for the same shapes, of which the same is published; a peaking section when absent
 * @returns its id; null where it could not be stored, which is told
 */
export async function addReading(traceId: string, name: string, like?: Reading): Promise<string | null> {
  const id = crypto.randomUUID();
  const isStored = await changeProject(`${name} is read`, (p) => {
    const taken = p.readings.map((r) => r.name);
    const reading = newReading(id, freeName(name.slice(0, 180), taken), traceId);
    return {
      ...p,
      readings: [...p.readings, like ? { ...like, id, name: reading.name, traceId } : reading],
    };
  });
  return isStored ? id : null;
}

/** A kept trace over the one that was kept with everything flat, as a trace of its own; null where it could not be stored. */
export async function keptOverFlat(trace: KeptTrace, flatId: string): Promise<KeptTrace | null> {
  const { kept } = projectNow();
  if (!kept.some((k) => k.id === flatId)) return null;
  const over = newTrace({
    kind: 'transfer function',
    name: freeName(
      `${trace.name}, over flat`.slice(0, 180),
      kept.map((k) => k.name),
    ),
    arrayId: null,
    origin: { by: 'computed', formula: { op: 'ratio', of: [trace.id, flatId] } },
  });
  const isStored = await changeProject(`${over.name} computed`, (p) => ({
    ...p,
    // what it is made of stays in the library, out of sight
    kept: [
      ...p.kept.map((k) => (k.id === trace.id ? { ...k, view: { ...k.view, isShown: false } } : k)),
      over,
    ],
  }));
  return isStored ? over : null;
}

export interface AskedReading extends ReadOptions {
  curve: LibraryCurve;
  wanted: WantedShape[];
}

/** What is found in a trace; worked out anew when the trace, or what is looked for, is another one. */
export const useShapeReading = (asked: AskedReading | null): DerivedState<ShapeReading> =>
  useJob('shapes.read', asked);

export const askedOf = (
  { wanted, from, to, levelIsFree, rate }: Reading,
  curve: LibraryCurve | null | undefined,
): AskedReading | null => (curve ? { curve, wanted, from, to, levelIsFree, rate } : null);
