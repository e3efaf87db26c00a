import {
  curvesApart,
  incoherentStretch,
  type LiveFrame,
  type MeasuredNow,
  type SeenDelay,
} from '@pebble-hall/core/live';
import type { LiveRecord, PlannedMeasurement, Project } from '@pebble-hall/core/project';
import { formatHz, signedDb } from '../charts/chartMath';
import { listed } from './listed';

/** One thing that is heard. */
export interface LiveSentence {
  text: string;
  /** whether somebody should do something about it */
  attention: boolean;
}

const RANGE = { from: 30, to: 16_000 };

/** What a measurement is held against, by its name. */
export function referenceName(
  reference: PlannedMeasurement['reference'],
  loopbackInput: number | null,
): string {
  return reference === 'generator'
    ? 'the generator'
    : reference === loopbackInput
      ? 'the loopback'
      : `input ${reference}`;
}

const STATES = {
  silent: 'is silent, or its reference is: check the cable, and that something plays',
  clipped: 'is clipped: lower the gain of the input, or the level',
  broken: 'brings no numbers: check the interface',
} as const;

const milliseconds = (s: number) => `${(1000 * s).toFixed(2)} ms`;
const seconds = (s: number) => (s < 0.95 ? `${Math.max(1, Math.round(1000 * s))} ms` : `${s.toFixed(1)} s`);

/** What is heard, in plain sentences: what wants attention first. */
export function liveSentences(
  frame: LiveFrame,
  live: Pick<LiveRecord, 'measurements'>,
  { loopbackInput }: Pick<Project['rig'], 'loopbackInput'>,
  rate: number,
): LiveSentence[] {
  const found: LiveSentence[] = [];
  const { measurements } = live;
  const nowOf = (id: string) => frame.measured.find((m) => m.id === id);
  if (frame.lostSamples > 0)
    found.push({
      text: `${seconds(frame.lostSamples / rate)} of sound were lost on the way since the session began; no block reaches over the gaps.`,
      attention: true,
    });
  for (const m of measurements) {
    const now = nowOf(m.id);
    if (now && now.state in STATES)
      found.push({ text: `${m.name} ${STATES[now.state as keyof typeof STATES]}.`, attention: true });
  }
  const delays = measurements.flatMap((m) => {
    const now = nowOf(m.id);
    return now?.curve && now.seen ? [{ m, now, seen: now.seen }] : [];
  });
  const settled = delays.filter(({ now, seen }) => !isOff(now, seen) && seen.holds);
  const one = settled[0]?.m.reference;
  const together = settled.length > 1 && settled.every(({ m }) => m.reference === one) ? settled : [];
  if (together.length > 0)
    found.push({
      text: `After ${referenceName(one!, loopbackInput)}: ${listed(together.map(({ m, seen }) => `${m.name} ${milliseconds(seen.delayS)}`))}; all hold still.`,
      attention: false,
    });
  for (const delay of delays)
    if (!together.includes(delay))
      found.push(delaySentence(delay.m, delay.now, delay.seen, loopbackInput, rate));
  for (const m of measurements) {
    const curve = nowOf(m.id)?.curve;
    const noise = curve && incoherentStretch(curve, RANGE);
    if (!noise) continue;
    const where =
      noise.from < 1.1 * RANGE.from
        ? `Below ${formatHz(noise.to)}`
        : noise.to > RANGE.to / 1.1
          ? `Above ${formatHz(noise.from)}`
          : `Between ${formatHz(noise.from)} and ${formatHz(noise.to)}`;
    found.push({
      text: `${m.name}: ${where} coherence is below 0.5. That is noise, not response.`,
      attention: true,
    });
  }
  const [first, ...others] = measurements.flatMap((m) => {
    const curve = nowOf(m.id)?.curve;
    return curve ? [{ name: m.name, curve }] : [];
  });
  for (const other of first ? others : []) {
    const apart = curvesApart(other.curve, first!.curve, { from: 100, to: 5000 });
    if (!apart || apart.share < 0.5) continue;
    found.push({
      text: `${other.name} less ${first!.name}, 100 Hz to 5 kHz: ${signedDb(apart.meanDb)} dB, and ${apart.rmsDb.toFixed(1)} dB RMS around that.`,
      attention: false,
    });
  }
  return found.sort((a, b) => Number(b.attention) - Number(a.attention));
}

/** What the phase shows as a slope: a twentieth of a millisecond turns 1 kHz by 18 degrees. */
const isOff = ({ delayS }: MeasuredNow, seen: SeenDelay): boolean => Math.abs(seen.delayS - delayS) > 5e-5;

function delaySentence(
  m: PlannedMeasurement,
  now: MeasuredNow,
  seen: SeenDelay,
  loopbackInput: number | null,
  rate: number,
): LiveSentence {
  const against = referenceName(m.reference, loopbackInput);
  const size = milliseconds(Math.abs(seen.delayS));
  const place =
    Math.abs(seen.delayS) < 0.5 / rate
      ? `arrives together with ${against}`
      : `is ${size} ${seen.delayS > 0 ? 'after' : 'before'} ${against}`;
  const holds = seen.holds ? ' and holds still' : '';
  return isOff(now, seen)
    ? {
        text: `${m.name} ${place}${holds}; ${milliseconds(now.delayS)} are taken off. Find its delay.`,
        attention: true,
      }
    : { text: `${m.name} ${place}${holds}.`, attention: false };
}
