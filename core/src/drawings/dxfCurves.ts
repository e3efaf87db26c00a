/** Points on curves of a DXF drawing, as flat lists x, y, z. A full circle is drawn with so many sides. */
const SIDES = 48;

const stepsFor = (angle: number) => Math.max(1, Math.ceil((Math.abs(angle) / (2 * Math.PI)) * SIDES));

/** From one angle to another about a centre, both ends among the points, radians. */
export function arcPoints(
  centre: { x: number; y: number; z?: number },
  radius: number,
  from: number,
  to: number,
): number[] {
  const steps = stepsFor(to - from);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = from + ((to - from) * i) / steps;
    return [centre.x + radius * Math.cos(angle), centre.y + radius * Math.sin(angle), centre.z ?? 0];
  }).flat();
}

/**
 * What lies between two corners of a polyline that bulges: points of the arc without its ends. The bulge is the tangent of a
 * quarter of the angle that the arc spans, counter-clockwise where positive (DXF reference, group code 42).
 */
export function bulgePoints(
  a: { x: number; y: number },
  b: { x: number; y: number },
  bulge: number,
): [number, number][] {
  if (!bulge) return [];
  const angle = 4 * Math.atan(bulge);
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  // the centre lies on the perpendicular through the middle of the chord
  const off = (1 - bulge * bulge) / (4 * bulge);
  const [cx, cy] = [(a.x + b.x) / 2 - off * dy, (a.y + b.y) / 2 + off * dx];
  const begin = Math.atan2(a.y - cy, a.x - cx);
  const radius = Math.hypot(a.x - cx, a.y - cy);
  const steps = stepsFor(angle);
  return Array.from({ length: steps - 1 }, (_, i) => {
    const at = begin + (angle * (i + 1)) / steps;
    return [cx + radius * Math.cos(at), cy + radius * Math.sin(at)];
  });
}

/** An ellipse by the end of its longer half-axis, relative to its centre, and the ratio of the shorter to it. */
export function ellipsePoints(
  centre: { x: number; y: number; z?: number },
  major: { x: number; y: number },
  ratio: number,
  from: number,
  to: number,
): number[] {
  const steps = stepsFor(to - from);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const t = from + ((to - from) * i) / steps;
    const [c, s] = [Math.cos(t), ratio * Math.sin(t)];
    return [centre.x + c * major.x - s * major.y, centre.y + c * major.y + s * major.x, centre.z ?? 0];
  }).flat();
}

/** A B-spline by de Boor's algorithm. @param knots as many as there are control points, and the degree and one more */
export function splinePoints(
  control: { x: number; y: number; z?: number }[],
  knots: number[],
  degree: number,
): number[] {
  if (!(degree >= 1) || knots.length !== control.length + degree + 1) return [];
  const [from, to] = [knots[degree]!, knots[control.length]!];
  const steps = 4 * control.length;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const t = from + ((to - from) * i) / steps;
    let span = degree;
    while (span < control.length - 1 && t >= knots[span + 1]!) span++;
    const d = Array.from({ length: degree + 1 }, (_, j) => {
      const c = control[j + span - degree]!;
      return [c.x, c.y, c.z ?? 0];
    });
    for (let r = 1; r <= degree; r++)
      for (let j = degree; j >= r; j--) {
        const [lo, hi] = [knots[j + span - degree]!, knots[j + 1 + span - r]!];
        const a = hi > lo ? (t - lo) / (hi - lo) : 0;
        d[j] = d[j]!.map((v, k) => (1 - a) * d[j - 1]![k]! + a * v);
      }
    return d[degree]!;
  }).flat();
}
