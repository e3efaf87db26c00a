import {
  variantOf,
  withCorrection,
  type Correction,
  type Project,
  measuredKey,
} from '@pebble-hall/core/project';
import { useState } from 'react';
import { changeProject, type Change } from '../../services/changeProject';

export type Edit = (label: string, next: Partial<Correction>, done?: boolean) => void;

/** The correction of the current variant while a hand may be on it, and what changes it. */
export function useCorrection(project: Project): { correction: Correction; edit: Edit; change: Change } {
  const change = changeProject;
  const stored = variantOf(project).correction;
  /** the correction while a hand is on it; what is stored otherwise */
  const [held, setHeld] = useState<{ on: Correction; next: Correction } | null>(null);
  const correction = held?.on === stored ? held.next : stored;
  const edit: Edit = (label, next, done = true) => {
    setHeld({ on: stored, next: { ...correction, ...next } });
    if (!done) return;
    void change(label, (p) => {
      const changed = withCorrection(p, (c) => ({ ...c, ...next }));
      return {
        ...changed,
        variants: changed.variants.map((v) =>
          v.id === changed.variantId ? { ...v, restsOn: { roundId: p.roundId, key: measuredKey(p) } } : v,
        ),
      };
    }).then((ok) => !ok && setHeld(null));
  };
  return { correction, edit, change };
}
