import { findMisfits, indistinguishable, type PlannedChannel } from '../commissioning/index.js';
import type { Reason } from '../measure/index.js';
import { LIMIT_DB, LOUD_ENOUGH_DB, POLARITY_SNR_DB, UNCLEAR } from './channelLimits.js';
import { fittedOf } from './progress.js';
import { travelS, wayM } from './travel.js';
import type { Loudspeaker, Project } from './types.js';

/** Something that the check of a channel found, besides how loud it is. */
export type Finding =
  | { kind: 'reason'; reason: Reason }
  | { kind: 'shared'; output: number; others: string[] }
  | { kind: 'silent'; perhapsOn: { name: string; output: number } | null }
  | { kind: 'reversed' }
  | { kind: 'polarity unclear' }
  | { kind: 'misfit'; wrongBand: boolean; lateS: number; couldBe: string[] }
  | { kind: 'distorted'; percent: number; limitPercent: number };

const percent = (db: number) => 100 * 10 ** (db / 20);

/** What the last check of every fitted channel found; nothing of channels that were not checked. */
export function channelFindings(project: Project): Map<string, Finding[]> {
  const { checks } = project.rig;
  const fitted = fittedOf(project);
  const home = project.place.spots[0]!.position;
  const planned = fitted.flatMap((l): PlannedChannel[] => {
    const check = checks[l.id];
    if (!check) return [];
    const { arrivalS, delayS, verdict } = check;
    const travel = travelS(project, l, home);
    return [{ id: l.id, role: l.role, travelS: travel, delayS, arrivalS, band: verdict.band }];
  });
  const nameOf = (id: string) => fitted.find((l) => l.id === id)!.name;
  const misfits = new Map(findMisfits(planned).map((m) => [m.id, m]));
  return new Map(
    fitted.map((l) => {
      const found: Finding[] = [];
      const others = fitted.filter((o) => o !== l && o.output === l.output).map((o) => o.name);
      if (others.length > 0) found.push({ kind: 'shared', output: l.output, others });
      const check = checks[l.id];
      // together on one output, nothing can be said of either
      if (!check || others.length > 0) return [l.id, found] as const;
      const { verdict, reversed, certainty, distortionDb } = check;
      for (const reason of verdict.reasons) {
        if (reason.kind === 'silent') found.push({ kind: 'silent', perhapsOn: twinOf(project, l) });
        else if (reason.kind !== 'near noise') found.push({ kind: 'reason', reason });
      }
      const isHeard = !verdict.reasons.some((r) => r.kind === 'silent' || r.kind === 'clipped');
      if (!isHeard) return [l.id, found] as const;
      const isTold = verdict.snrDb >= POLARITY_SNR_DB[l.role];
      if (certainty !== null && (certainty < UNCLEAR || (reversed && !isTold)))
        found.push({ kind: 'polarity unclear' });
      else if (reversed) found.push({ kind: 'reversed' });
      const misfit = misfits.get(l.id);
      if (misfit) {
        const { wrongBand, lateS, couldBe } = misfit;
        found.push({ kind: 'misfit', wrongBand, lateS, couldBe: couldBe.map(nameOf) });
      }
      const limit = LIMIT_DB[l.role];
      if (distortionDb > limit && verdict.snrDb > LOUD_ENOUGH_DB)
        found.push({ kind: 'distorted', percent: percent(distortionDb), limitPercent: percent(limit) });
      return [l.id, found] as const;
    }),
  );
}

/** A loudspeaker of the same model that is heard: a silent one may hang on its output. */
function twinOf(project: Project, silent: Loudspeaker): { name: string; output: number } | null {
  const twin = fittedOf(project).find((l) => {
    const check = project.rig.checks[l.id];
    return (
      l !== silent &&
      l.model === silent.model &&
      l.role === 'subwoofer' &&
      check &&
      check.verdict.state !== 'failed'
    );
  });
  return twin && twin.output !== silent.output ? { name: twin.name, output: twin.output } : null;
}

/** Pairs whose cables could be exchanged without the check noticing, by name. */
export function untellable(project: Project): { a: string; b: string; metres: [number, number] }[] {
  const home = project.place.spots[0]!.position;
  const fitted = fittedOf(project);
  const planned = fitted.map((l) => ({
    id: l.id,
    role: l.role,
    travelS: travelS(project, l, home),
    delayS: 0,
    arrivalS: null,
    band: null,
  }));
  const byId = (id: string) => fitted.find((l) => l.id === id)!;
  const metres = (id: string) => wayM(project.place, byId(id), home);
  return indistinguishable(planned).map(([a, b]) => ({
    a: byId(a).name,
    b: byId(b).name,
    metres: [metres(a), metres(b)],
  }));
}
