import type { ExaminedModel } from '@pebble-hall/core/drawings';

const [WIDE, HIGH] = [480, 440];
const PAD = 16;

/** A model seen from above, its outline marked where one was found, and where it is open. */
export function ModelSketch({ seen }: { seen: ExaminedModel }) {
  const { ends, openEnds, size, outline } = seen;
  const scale = Math.min((WIDE - 2 * PAD) / (size.x || 1), (HIGH - 2 * PAD) / (size.y || 1));
  const at = (x: number, y: number) =>
    `${(WIDE / 2 + scale * x).toFixed(1)} ${(HIGH / 2 - scale * y).toFixed(1)}`;
  const path = (pairs: Float32Array) => {
    const parts: string[] = [];
    for (let i = 0; i + 5 < pairs.length; i += 6)
      parts.push(`M${at(pairs[i]!, pairs[i + 1]!)}L${at(pairs[i + 3]!, pairs[i + 4]!)}`);
    return parts.join('');
  };
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label="The drawing from above"
      style={{ width: '100%', background: 'var(--sand)', borderRadius: 8 }}
    >
      {outline ? (
        <path
          d={`M${outline.corners.map((c) => at(c.x, c.y)).join('L')}Z`}
          fill="var(--kelp-soft)"
          stroke="var(--kelp)"
          strokeWidth={5}
          strokeOpacity={0.55}
          strokeLinejoin="round"
        />
      ) : null}
      <path d={path(ends)} stroke="var(--ink)" strokeWidth={0.9} fill="none" />
      <path d={path(openEnds)} stroke="var(--buoy)" strokeWidth={2.4} fill="none" />
    </svg>
  );
}
