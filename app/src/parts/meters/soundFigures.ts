/** A level as a figure, the calibration added; a dash while nothing is heard. */
export const figureOf = (levelDb: number | undefined, offsetDb: number | null): string =>
  levelDb === undefined || !Number.isFinite(levelDb)
    ? '–'
    : (levelDb + (offsetDb ?? 0)).toFixed(1).replace('-', '\u2212');
