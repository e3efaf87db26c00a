import type { LevelCheck } from '@pebble-hall/core/project';

/** A loudspeaker heard by itself. */
export type HeardAlone = LevelCheck & { role: 'full range' | 'subwoofer' };

const MATCHED_DB = 0.5;

/** Difference in level over the third octaves that both play, a minus b, dB; null when they share none. */
export function levelDifference(a: LevelCheck, b: LevelCheck): number | null {
  const within = (check: LevelCheck, centre: number) =>
    check.verdict.band !== null &&
    centre >= check.verdict.band.from * 0.99 &&
    centre <= check.verdict.band.to * 1.01;
  const pairs = a.margins.flatMap((m) => {
    const other = b.margins.find((o) => Math.abs(o.centre / m.centre - 1) < 0.01);
    return other && within(a, m.centre) && within(b, m.centre) && Number.isFinite(m.signalDb + other.signalDb)
      ? [m.signalDb - a.levelDbfs - (other.signalDb - b.levelDbfs)]
      : [];
  });
  return pairs.length === 0 ? null : pairs.reduce((x, y) => x + y, 0) / pairs.length;
}

/** Two loudspeakers of one output against each other: level, time, polarity, and what to do. */
export function compareAlone(nameA: string, a: HeardAlone, nameB: string, b: HeardAlone): string {
  const difference = levelDifference(a, b);
  if (difference === null)
    return 'One of them was not heard: see that its cable is in and the other one out.';
  const parts: string[] = [];
  const [louder, softer] = difference > 0 ? [nameA, nameB] : [nameB, nameA];
  const size = Math.abs(difference).toFixed(1);
  parts.push(
    Math.abs(difference) <= MATCHED_DB
      ? `Matched within ${Math.max(0.1, Number(size))} dB`
      : `${louder} is ${size} dB louder than ${softer}: turn it down by ${size} dB and hear it again`,
  );
  if (a.reversed !== null && b.reversed !== null && a.reversed !== b.reversed)
    parts.push('their polarities are opposite: turn one of them round');
  if (a.arrivalS !== null && b.arrivalS !== null) {
    const ms = 1000 * (a.arrivalS - b.arrivalS);
    if (Math.abs(ms) > 0.5)
      parts.push(
        `${ms > 0 ? nameA : nameB} arrives ${Math.abs(ms).toFixed(1)} ms later at the home spot, which one output cannot change`,
      );
  }
  return `${parts.join('; ')}.`;
}
