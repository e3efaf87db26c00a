/** The part of a piece that is heard, seconds. */
export interface Section {
  fromS: number;
  toS: number;
}

/** All candidates of a section are rendered beforehand, so it ends somewhere. */
export const MOST_SECTION_S = 60;
export const LEAST_SECTION_S = 0.5;

/** The section that a piece begins with: the whole of it, or as much as can be heard at once. */
export const firstSection = (lengthS: number): Section => ({
  fromS: 0,
  toS: Math.min(lengthS, MOST_SECTION_S),
});

/** A section with one end moved: within the piece, and the other end follows where it would become too long or too short. */
export function movedSection(section: Section, next: Partial<Section>, lengthS: number): Section {
  const { fromS, toS } = { ...section, ...next };
  if (next.fromS !== undefined) {
    const from = Math.max(0, Math.min(fromS, lengthS - LEAST_SECTION_S));
    return {
      fromS: from,
      toS: Math.min(lengthS, Math.max(from + LEAST_SECTION_S, Math.min(toS, from + MOST_SECTION_S))),
    };
  }
  const to = Math.max(LEAST_SECTION_S, Math.min(toS, lengthS));
  return { fromS: Math.max(0, to - MOST_SECTION_S, Math.min(fromS, to - LEAST_SECTION_S)), toS: to };
}
