import { dbOfGain } from '../signal/index.js';
import type { LibraryCurve } from './libraryCurve.js';

/**
 * A curve as text: comment lines with everything known, then frequency, level, phase and coherence, as far as they are known, apart by
 * tabs, with decimal points.
 * @param about lines for its head, without marks
 */
export function writeCurveText(curve: LibraryCurve, about: readonly string[]): string {
  const { frequency, re, im, coherence, hasPhase } = curve;
  const isKnown = (n: number) => Math.hypot(re[n]!, im[n]!) > 0;
  const hasCoherence = coherence.every((c, n) => !Number.isNaN(c) || !isKnown(n));
  const head = [
    'frequency in Hz',
    'level in dB',
    ...(hasPhase ? ['phase in degrees'] : []),
    ...(hasCoherence ? ['coherence'] : []),
  ];
  const rows: string[] = [];
  frequency.forEach((f, n) => {
    const size = Math.hypot(re[n]!, im[n]!);
    // what is not known is left out: a row says something or is not there
    if (!(size > 0)) return;
    const phase = (Math.atan2(im[n]!, re[n]!) * 180) / Math.PI;
    rows.push(
      [
        f.toFixed(4),
        dbOfGain(size).toFixed(4),
        ...(hasPhase ? [phase.toFixed(3)] : []),
        ...(hasCoherence ? [coherence[n]!.toFixed(4)] : []),
      ].join('\t'),
    );
  });
  const clean = (line: string) => line.replace(/[\r\n]+/g, ' ');
  return [...about.map((l) => `# ${clean(l)}`), `# ${head.join('\t')}`, ...rows, ''].join('\n');
}
