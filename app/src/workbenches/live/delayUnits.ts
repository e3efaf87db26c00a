import { speedOfSound } from '@pebble-hall/core/room';
import type { LiveView } from './liveView';

const FOOT_M = 0.3048;

/** How a delay is written and typed: so many of a unit to a second. */
export function delayScale(
  unit: LiveView['delayUnit'],
  { rate, temperatureC }: { rate: number; temperatureC: number },
): { perSecond: number; digits: number; step: number } {
  switch (unit) {
    case 'ms':
      return { perSecond: 1000, digits: 3, step: 0.1 };
    case 'm':
      return { perSecond: speedOfSound(temperatureC), digits: 3, step: 0.05 };
    case 'ft':
      return { perSecond: speedOfSound(temperatureC) / FOOT_M, digits: 2, step: 0.1 };
    case 'samples':
      return { perSecond: rate, digits: 2, step: 1 };
  }
}
