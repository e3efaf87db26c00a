/** Ground, half-way and loudest colour: from the page's own ground through kelp to ink, so that lightness tells the level. */
const LIGHT = [
  [251, 249, 244],
  [99, 166, 158],
  [176, 77, 23],
] as const;
const DARK = [
  [38, 44, 47],
  [48, 116, 112],
  [247, 178, 120],
] as const;

/** Colour of a level between 0 (nothing) and 1 (loudest); what is outside is cut. */
export function heatColour(share: number, dark: boolean): [number, number, number] {
  const stops = dark ? DARK : LIGHT;
  const s = 2 * Math.min(1, Math.max(0, share));
  const at = Math.min(1, Math.floor(s));
  const mix = (i: number) => Math.round(stops[at]![i]! + (s - at) * (stops[at + 1]![i]! - stops[at]![i]!));
  return [mix(0), mix(1), mix(2)];
}
