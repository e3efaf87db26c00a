import { findMisfits, indistinguishable, type PlannedChannel } from '@pebble-hall/core/commissioning';
import type { Reason } from '@pebble-hall/core/measure';
import type { Loudspeaker, Project } from '@pebble-hall/core/project';
import { travelS } from './measuring';
import { fittedOf } from './progress';
import { reasonSentence } from './sentences';

/** Something that the check of a channel found, besides how loud it is. */
export type Finding =
  | { kind: 'reason'; reason: Reason }
  | { kind: 'shared'; output: number; others: string[] }
  | { kind: 'silent'; perhapsOn: { name: string; output: number } | null }
  | { kind: 'reversed' }
  | { kind: 'polarity unclear' }
  | { kind: 'misfit'; wrongBand: boolean; lateS: number; couldBe: string[] }
  | { kind: 'distorted'; percent: number; limitPercent: number };

/** More than this is no longer the loudspeaker's own: it is driven too hard, or broken. Noise counts too, so quiet checks do not tell. */
const LIMIT_DB = { 'full range': -26, subwoofer: -20 } as const;
const LOUD_ENOUGH_DB = 20;
const UNCLEAR = 1.1;

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
      if (certainty !== null && certainty < UNCLEAR) found.push({ kind: 'polarity unclear' });
      else if (reversed) found.push({ kind: 'reversed' });
      const misfit = misfits.get(l.id);
      if (misfit) {
        const { wrongBand, lateS, couldBe } = misfit;
        found.push({ kind: 'misfit', wrongBand, lateS, couldBe: couldBe.map(nameOf) });
      }
      const limit = LIMIT_DB[l.role];
      if (distortionDb > limit && verdict.marginDb > LOUD_ENOUGH_DB)
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
export function untellable(project: Project): [string, string][] {
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
  const nameOf = (id: string) => fitted.find((l) => l.id === id)!.name;
  return indistinguishable(planned).map(([a, b]) => [nameOf(a), nameOf(b)]);
}

/** The two likeliest; the list has them first. */
const or = (names: string[]) => names.slice(0, 2).join(' or ');

/** A finding in one line. */
export function findingSentence(finding: Finding): string {
  switch (finding.kind) {
    case 'reason':
      return reasonSentence(finding.reason);
    case 'shared':
      return `shares output ${finding.output} with ${finding.others.join(' and ')}: match them first, one at a time`;
    case 'silent':
      return 'nothing arrived';
    case 'reversed':
      return 'polarity is reversed: exchange + and \u2212 at the loudspeaker or its plug';
    case 'polarity unclear':
      return 'its polarity cannot be told from here';
    case 'misfit': {
      const what = finding.wrongBand
        ? 'plays in another band than the plan says'
        : `arrives ${Math.abs(1000 * finding.lateS).toFixed(1)} ms ${finding.lateS > 0 ? 'later' : 'earlier'} than the plan says`;
      return finding.couldBe.length > 0
        ? `${what}; this sounds like ${or(finding.couldBe)}: see whether the cables are exchanged`
        : `${what}: see whether it stands where the plan has it`;
    }
    case 'distorted':
      return `distorts by ${Math.round(finding.percent)} % (${Math.round(finding.limitPercent)} % is the limit): lower the level, then listen for a buzz`;
  }
}
