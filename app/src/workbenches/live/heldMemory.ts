import { curvesApart, type LiveFrame, type TransferCurve } from '@pebble-hall/core/live';
import type { PlannedMeasurement } from '@pebble-hall/core/project';
import { signedDb } from '../../charts/chartMath';

/** What was measured through another memory of the processor, held beside what is measured now. */
export interface HeldMemory {
  letter: string;
  /** by the ids of measurements */
  curves: ReadonlyMap<string, TransferCurve>;
}

/** The curves of a frame, held; null where there are none. */
export function heldFrom(letter: string, frame: LiveFrame | null): HeldMemory | null {
  const curves = new Map(
    (frame?.measured ?? []).flatMap(({ id, curve }) => (curve ? [[id, curve] as const] : [])),
  );
  return curves.size > 0 ? { letter, curves } : null;
}

/** How the memory that plays differs from the one that is held, at the chosen measurement; null while that is not known. */
export function memorySentence(
  held: HeldMemory,
  letter: string,
  { id, name }: PlannedMeasurement,
  frame: LiveFrame | null,
): string | null {
  const [before, now] = [held.curves.get(id), frame?.measured.find((m) => m.id === id)?.curve];
  const apart = before && now && curvesApart(now, before, { from: 100, to: 5000 });
  if (!apart) return null;
  return `${name}: memory ${letter} less memory ${held.letter}, 100 Hz to 5 kHz: ${signedDb(apart.meanDb)} dB, and ${apart.rmsDb.toFixed(1)} dB RMS around that.`;
}
