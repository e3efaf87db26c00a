import { laidAt } from '@pebble-hall/core/drawings';
import type { Underlay } from '@pebble-hall/core/project';
import { memo } from 'react';
import type { Projection } from './projection';

/** A drawing by somebody else as it looks: where the picture is to be had, or the edges of the model, its middle at the origin. */
export type SeenUnderlay =
  { kind: 'picture'; url: string } | { kind: 'model'; ends: Float32Array; openEnds: Float32Array };

/** It lies under everything: a picture seen from above, a model from everywhere. */
export const UnderlayShape = memo(function UnderlayShape({
  underlay,
  look,
  projection,
  isChosen,
}: {
  underlay: Underlay;
  look: SeenUnderlay;
  projection: Projection;
  isChosen: boolean;
}) {
  const { at, scale, view } = projection;
  if (underlay.kind === 'picture' && look.kind === 'picture') {
    if (view !== 'above') return null;
    const [u, v] = at(underlay.at);
    const wide = underlay.widthPx * underlay.metresPerPixel * scale;
    const high = underlay.heightPx * underlay.metresPerPixel * scale;
    const box = { x: -wide / 2, y: -high / 2, width: wide, height: high };
    return (
      <g transform={`translate(${u},${v}) rotate(${-underlay.turnDeg})`}>
        <image {...box} href={look.url} opacity={underlay.opacity} preserveAspectRatio="none" />
        {isChosen ? (
          <rect {...box} fill="transparent" stroke="var(--kelp)" strokeWidth={2} strokeDasharray="6 4" />
        ) : null}
      </g>
    );
  }
  if (underlay.kind !== 'model' || look.kind !== 'model') return null;
  const d = edgePath(look.ends, underlay, projection);
  return (
    <>
      {isChosen ? <path d={d} stroke="transparent" strokeWidth={14} fill="none" /> : null}
      <path
        d={d}
        stroke={isChosen ? 'var(--kelp)' : 'var(--soft)'}
        strokeWidth={isChosen ? 1.8 : 0.9}
        strokeOpacity={isChosen ? 1 : 0.75}
        fill="none"
      />
      {isChosen && look.openEnds.length > 0 ? (
        <path
          d={edgePath(look.openEnds, underlay, projection)}
          stroke="var(--buoy)"
          strokeWidth={2.6}
          fill="none"
        >
          <title>Open here: one face only has this edge</title>
        </path>
      ) : null}
    </>
  );
});

function edgePath(ends: Float32Array, underlay: Underlay, { at }: Projection): string {
  const lay = laidAt(underlay);
  const parts: string[] = [];
  for (let i = 0; i + 5 < ends.length; i += 6) {
    const [u1, v1] = at(lay(ends[i]!, ends[i + 1]!, ends[i + 2]!));
    const [u2, v2] = at(lay(ends[i + 3]!, ends[i + 4]!, ends[i + 5]!));
    parts.push(`M${u1.toFixed(1)} ${v1.toFixed(1)}L${u2.toFixed(1)} ${v2.toFixed(1)}`);
  }
  return parts.join('');
}
