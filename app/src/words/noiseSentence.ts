import type { NoiseTrait } from '@pebble-hall/core/commissioning';
import { formatHz } from '../charts/chartMath';

/** What stands out of a noise floor, and what helps against it. */
export function noiseSentence(trait: NoiseTrait): string {
  switch (trait.kind) {
    case 'hum':
      return `Hum at ${trait.mainsHz} Hz and its multiples (${trait.multiples.slice(1, 4).join(', ')} Hz), ${Math.round(trait.riseDb)} dB over the rest: look for an earth loop or a dimmer.`;
    case 'tone':
      return `A steady tone at ${formatHz(trait.frequency)}, ${Math.round(trait.riseDb)} dB over the rest: a fan, a lamp or a screen.`;
    case 'rumble':
      return `Rumble below ${formatHz(trait.belowHz)}, ${Math.round(trait.riseDb)} dB over the rest: traffic, wind or ventilation.`;
  }
}
