import { useComputedColorScheme } from '@mantine/core';
import { isoLines } from '@pebble-hall/core/coverage';
import type { Corner } from '@pebble-hall/core/geometry';
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

const pathOf = (lines: readonly Corner[][], { at }: Projection) =>
  lines
    .map(
      (line) =>
        `M${line
          .map((c) =>
            at({ ...c, z: 0 })
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
  const { x0, y0, step, columns, rows } = grid;
  const [u, v] = projection.at({ x: x0 - step / 2, y: y0 + (rows - 0.5) * step, z: 0 });
  const size = { width: columns * step * projection.scale, height: rows * step * projection.scale };
  return (
    <image x={u} y={v} {...size} href={url} preserveAspectRatio="none" role="img" aria-label="Level map" />
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
        const [u, v] = projection.at({
          ...longest[Math.floor(longest.length * WRITTEN_AT[nth % WRITTEN_AT.length]!)]!,
          z: 0,
        });
        return (
          <g key={db}>
            <path
              d={pathOf(lines, projection)}
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
export function MapLinesLayer({ lines, projection }: { lines: MapLines; projection: Projection }) {
  return (
    <g pointerEvents="none" fill="none">
      {lines.reach.map(({ id, name, lines: edge }) => (
        <path
          key={id}
          aria-label={`Reach of ${name}`}
          role="img"
          d={pathOf(edge, projection)}
          stroke="var(--kelp)"
          strokeWidth={2.6}
          strokeDasharray="9 5"
        />
      ))}
      <path d={pathOf(lines.within, projection)} stroke="var(--ink)" strokeWidth={1} strokeDasharray="2 4" />
      <path
        d={pathOf(lines.together, projection)}
        stroke="var(--ink)"
        strokeWidth={2.2}
        strokeDasharray="9 6"
      />
      <path d={pathOf(lines.equal, projection)} stroke="var(--buoy)" strokeWidth={2.8} />
      {lines.places.map(({ at }, i) => {
        const [u, v] = projection.at({ ...at, z: 0 });
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
