import { useComputedColorScheme } from '@mantine/core';
import { inFrame, isoLines, type GridFrame, type LevelGrid } from '@pebble-hall/core/coverage';
import type { Corner, Point } from '@pebble-hall/core/geometry';
import { memo, useMemo } from 'react';
import type { Projection } from '../../../drawing';
import { colourAt, pictureOf, scaleOf, STEP_DB } from './mapColours';
import type { MapLines } from './mapLines';
import type { MadeMaps } from './makeMaps';

interface MapLayerProps {
  maps: MadeMaps;
  projection: Projection;
  /** taken off each level that is written, dB */
  zeroDb: number;
}

const pathOf = (lines: readonly Corner[][], frame: GridFrame, { at }: Projection) =>
  lines
    .map(
      (line) =>
        `M${line
          .map((c) =>
            at(inFrame(frame, c))
              .map((v) => v.toFixed(1))
              .join(' '),
          )
          .join('L')}`,
    )
    .join('');

/** The level over a surface: its colours, under everything else. */
export const MapColours = memo(function MapColours({ maps, projection }: Omit<MapLayerProps, 'zeroDb'>) {
  const scheme = useComputedColorScheme('light');
  const { grid } = maps;
  const url = useMemo(() => {
    const scale = scaleOf(maps);
    return scale && pictureOf(maps.levels, maps.grid, scale, scheme);
  }, [maps, scheme]);
  if (!url) return null;
  const { frame, x0, y0, step, columns, rows } = grid;
  const [u, v] = projection.at(inFrame(frame, { x: x0 - step / 2, y: y0 + (rows - 0.5) * step }));
  const [right, low] = projection.at(inFrame(frame, { x: x0 + (columns - 0.5) * step, y: y0 - step / 2 }));
  // a plane that goes away from who looks at it is narrower, and may go the other way
  const size = { width: Math.abs(right - u), height: low - v };
  return (
    <image
      {...size}
      transform={`translate(${u.toFixed(2)},${v.toFixed(2)}) scale(${right < u ? -1 : 1},1)`}
      href={url}
      preserveAspectRatio="none"
      role="img"
      aria-label="Level map"
    />
  );
});

/** Where along its line a level is written; neighbours differ. */
const WRITTEN_AT = [0.5, 0.3, 0.7, 0.4, 0.2, 0.6, 0.8];

/** Lines of equal level every 3 dB, with their figures, and the scale of the colours. */
export const MapIsobars = memo(function MapIsobars({ maps, projection, zeroDb }: MapLayerProps) {
  const scheme = useComputedColorScheme('light');
  const { grid } = maps;
  const { levels } = maps.even;
  const scale = useMemo(() => scaleOf(maps), [maps]);
  const isobars = useMemo(() => {
    if (!scale) return [];
    const found: { db: number; lines: Corner[][] }[] = [];
    // counted from what is shown, so that figures are whole
    const first = Math.ceil((scale.least - zeroDb) / STEP_DB) * STEP_DB;
    for (let db = first; db + zeroDb < scale.most; db += STEP_DB)
      found.push({ db, lines: isoLines(grid, levels, db + zeroDb) });
    return found.filter((f) => f.lines.length > 0);
  }, [grid, levels, scale, zeroDb]);
  if (!scale) return null;
  const { width, height } = projection;
  const bar = Array.from({ length: 24 }, (_, i) => colourAt((i + 0.5) / 24, scheme, scale.isTwoSided));
  return (
    <g pointerEvents="none">
      {isobars.map(({ db, lines }, nth) => {
        const longest = lines.reduce((a, b) => (b.length > a.length ? b : a));
        const written = longest[Math.floor(longest.length * WRITTEN_AT[nth % WRITTEN_AT.length]!)]!;
        const [u, v] = projection.at(inFrame(grid.frame, written));
        return (
          <g key={db}>
            <path
              d={pathOf(lines, grid.frame, projection)}
              fill="none"
              stroke="var(--ink)"
              strokeOpacity={0.4}
              strokeWidth={1}
            />
            <text
              x={u}
              y={v + 4}
              fontSize={12}
              textAnchor="middle"
              fill="var(--ink)"
              stroke="var(--card)"
              strokeWidth={3}
              paintOrder="stroke"
            >
              {Number(db.toFixed(0))}
            </text>
          </g>
        );
      })}
      {bar.map((rgb, i) => (
        <rect
          key={i}
          x={width + 14}
          y={height - ((i + 1) * height) / 24}
          width={11}
          height={height / 24 + 0.5}
          fill={`rgb(${rgb.join(',')})`}
        />
      ))}
      <rect x={width + 14} y={0} width={11} height={height} fill="none" stroke="var(--line)" />
      {[scale.most, scale.least].map((db, i) => (
        <text
          key={i}
          x={width + 20}
          y={i === 0 ? -5 : height + 14}
          fontSize={12}
          textAnchor="middle"
          fill="var(--soft)"
        >
          {(db - zeroDb).toFixed(0)}
        </text>
      ))}
    </g>
  );
});

/** How far channels reach, and where two maps are alike, with the places where they can be aligned. */
export function MapLinesLayer({
  lines,
  frame,
  projection,
}: {
  lines: MapLines;
  frame: GridFrame;
  projection: Projection;
}) {
  return (
    <g pointerEvents="none" fill="none">
      {lines.reach.map(({ id, name, lines: edge }) => (
        <path
          key={id}
          aria-label={`Reach of ${name}`}
          role="img"
          d={pathOf(edge, frame, projection)}
          stroke="var(--kelp)"
          strokeWidth={2.6}
          strokeDasharray="9 5"
        />
      ))}
      <path
        d={pathOf(lines.within, frame, projection)}
        stroke="var(--ink)"
        strokeWidth={1}
        strokeDasharray="2 4"
      />
      <path
        d={pathOf(lines.together, frame, projection)}
        stroke="var(--ink)"
        strokeWidth={2.2}
        strokeDasharray="9 6"
      />
      <path d={pathOf(lines.equal, frame, projection)} stroke="var(--buoy)" strokeWidth={2.8} />
      {lines.places.map(({ at }, i) => {
        const [u, v] = projection.at(inFrame(frame, at));
        return (
          <g key={i} transform={`translate(${u.toFixed(1)},${v.toFixed(1)})`}>
            <circle r={11} fill="var(--card)" stroke="var(--buoy)" strokeWidth={2} />
            <text y={4.5} fontSize={13} fontWeight={700} textAnchor="middle" fill="var(--ink)">
              {i + 1}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** The place that is looked at by itself. */
export function PinnedMark({ at, projection }: { at: Point; projection: Projection }) {
  const [u, v] = projection.at(at);
  return (
    <g
      transform={`translate(${u.toFixed(1)},${v.toFixed(1)})`}
      pointerEvents="none"
      role="img"
      aria-label="Pinned place"
    >
      <circle r={9} fill="none" stroke="var(--card)" strokeWidth={5} />
      <circle r={9} fill="none" stroke="var(--ink)" strokeWidth={2} />
      <circle r={2} fill="var(--ink)" />
    </g>
  );
}

/** Where an upright plane stands, seen from above. */
export function PlaneLine({ grid, projection }: { grid: LevelGrid; projection: Projection }) {
  const { frame, x0, step, columns, y0 } = grid;
  const [a, b] = [x0 - step / 2, x0 + (columns - 0.5) * step].map((x) =>
    projection.at(inFrame(frame, { x, y: y0 })),
  );
  return (
    <path
      d={`M${a!.join(' ')}L${b!.join(' ')}`}
      stroke="var(--kelp)"
      strokeWidth={2}
      strokeDasharray="12 4 2 4"
      pointerEvents="none"
      role="img"
      aria-label="Plane of the level map"
    />
  );
}
