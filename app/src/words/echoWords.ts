import type { EchoSignal } from '@pebble-hall/core/acoustics';
import type { Flutter, Focus } from '@pebble-hall/core/runs';

const ms = (s: number) => `${(1000 * s).toFixed(0)} ms`;

/** A share of listeners as text. */
export const shareText = (share: number): string =>
  Number.isFinite(share) ? `${Math.round(100 * share)} %` : 'not known';

/** An arrival that makes an echo: the faces that it met. */
export interface EchoFrom {
  laterS: number;
  faces: readonly number[];
}

/** Whether it echoes at a place, for whom, and what makes it. @param names of faces */
export function echoSentence(
  signal: EchoSignal,
  { largest, atS }: { largest: number; atS: number },
  from: EchoFrom | null,
  names: readonly string[],
  tenth = signal === 'speech' ? 0.9 : 1.5,
): string {
  if (largest < tenth)
    return `No echo for ${signal} here: fewer than one listener in ten would be disturbed.`;
  const half = signal === 'speech' ? 1 : 1.8;
  const who = largest >= half ? 'more than half of the listeners' : 'one listener in ten or more';
  const met = from?.faces.map((f) => names[f] ?? `face ${f + 1}`) ?? [];
  const way =
    met.length === 0
      ? 'and no single surface makes it'
      : `off ${met.join(', then ')}, ${ms(from!.laterS)} after the direct sound`;
  return `An echo at ${ms(atS)} disturbs ${who}, ${way}.`;
}

/** A train of pulses between two faces. */
export function flutterSentence(flutter: Flutter | null, names: readonly string[]): string {
  if (!flutter) return 'No two surfaces throw the sound back and forth so that it is heard.';
  const [a, b] = flutter.faces.map((f) => names[f] ?? `face ${f + 1}`);
  return `Between ${a} and ${b} it flutters: ${flutter.pulses} pulses, one every ${(1000 * flutter.periodS).toFixed(1)} ms, stand out by up to ${flutter.standsOutDb.toFixed(0)} dB.`;
}

/** What a curved surface gathers at a place. @param names of faces */
export function focusSentence(focus: Focus | null, names: readonly string[]): string {
  if (!focus) return 'No curved surface gathers sound here.';
  const parts = new Set(focus.faces.map((f) => names[f] ?? `face ${f + 1}`));
  const [first] = parts;
  const what =
    parts.size === 1 ? first : `${first} and the ${focus.faces.length - 1} faces it goes over into`;
  return `Curved, ${what} gathers sound here: ${focus.arrivals} arrivals within ${(1000 * focus.withinS).toFixed(1)} ms, ${ms(focus.laterS)} after the direct sound, together ${focus.gainDb.toFixed(1)} dB above one flat wall.`;
}
