import { needWithin } from '../limits/index.js';

/** Share that a locally reacting surface of a real admittance swallows of sound from everywhere (Paris 1928; Kuttruff, Room Acoustics). @param admittance against that of air, 0 to 1 */
export function swallowedBy(admittance: number): number {
  needWithin('swallowedBy', 'admittance', admittance, 0, 1);
  if (admittance < 1e-9) return 8 * admittance;
  const impedance = 1 / admittance;
  return (8 / impedance) * (1 + 1 / (1 + impedance) - (2 / impedance) * Math.log(1 + impedance));
}

/** More is swallowed of sound from everywhere by no real admittance: where it is matched best. */
const MOST_SWALLOWED = 0.9512;
const MOST_ADMITTANCE = 0.638;

/** The real admittance of a surface that swallows a share of sound from everywhere; of the two that do the smaller. @param absorption 0 to 1; what none reaches counts as the most that is reached */
export function admittanceOf(absorption: number): number {
  needWithin('admittanceOf', 'absorption', absorption, 0, 1);
  if (absorption >= MOST_SWALLOWED) return MOST_ADMITTANCE;
  let [low, high] = [0, MOST_ADMITTANCE];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (swallowedBy(middle) < absorption) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
