import { isAsItWas, type SweepLook } from '@pebble-hall/core/project';

const signed = (value: number, digits: number) =>
  `${value > 0 ? '+' : '\u2212'}${Number(Math.abs(value).toFixed(digits))}`;

/** What the eye changed of a trace, in a few words; empty for one that is seen as it was. */
export function lookWords(look: SweepLook | null): string {
  if (!look || isAsItWas(look)) return '';
  const { gainDb, delayS, inverted, window, calibrationId, shapes, smoothing } = look;
  return [
    gainDb === 0 ? '' : `${signed(gainDb, 1)} dB`,
    delayS === 0 ? '' : `${signed(1000 * delayS, 3)} ms`,
    inverted ? 'inverted' : '',
    window ? `window ${Number((1000 * window.afterS).toFixed(1))} ms` : '',
    calibrationId === null ? '' : 'less a microphone',
    shapes.length === 0 ? '' : shapes.length === 1 ? 'a shape' : `${shapes.length} shapes`,
    smoothing === null ? '' : `1/${smoothing} oct`,
  ]
    .filter(Boolean)
    .join(', ');
}
