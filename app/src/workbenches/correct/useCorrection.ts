import {
  measuredKey,
  variantOf,
  withCorrection,
  type Correction,
  type Project,
} from '@pebble-hall/core/project';
import { useCallback, useState } from 'react';
import { changeProject } from '../../services/changeProject';
import { projectNow } from '../../store';

/** What an edit changes: values that are set whatever there was, or a function of the correction as it is stored. */
export type CorrectionChange = Partial<Correction> | ((now: Correction) => Partial<Correction>);
export type Edit = (label: string, change: CorrectionChange, done?: boolean) => void;

export const changed = (now: Correction, change: CorrectionChange): Correction => ({
  ...now,
  ...(typeof change === 'function' ? change(now) : change),
});

/** The correction of the current variant while a hand may be on it, and what changes it. */
export function useCorrection(project: Project): { correction: Correction; edit: Edit } {
  const stored = variantOf(project).correction;
  /** the correction while a hand is on it; what is stored otherwise */
  const [held, setHeld] = useState<{ on: Correction; next: Correction } | null>(null);
  const correction = held?.on === stored ? held.next : stored;
  const edit: Edit = useCallback((label, change, done = true) => {
    const on = variantOf(projectNow()).correction;
    setHeld((before) => ({ on, next: changed(before?.on === on ? before.next : on, change) }));
    if (!done) return;
    void changeProject(label, (p) => {
      const edited = withCorrection(p, (c) => changed(c, change));
      const restsOn = { roundId: p.roundId, key: measuredKey(p) };
      return {
        ...edited,
        variants: edited.variants.map((v) => (v.id === edited.variantId ? { ...v, restsOn } : v)),
      };
    }).then((ok) => !ok && setHeld(null));
  }, []);
  return { correction, edit };
}
