import { fittedOf, type Project } from '@pebble-hall/core/project';
import type { ReactNode } from 'react';
import { ReportTable } from './ReportTable';

/** Pixels of the drawing for one metre. */
const SCALE = 90;

/** The place from above, to scale, with its loudspeakers and spots. */
export function PlaceDrawing(project: Project) {
  const { place } = project;
  const fitted = fittedOf(project);
  const [w, h] = [place.size.x * SCALE, place.size.y * SCALE];
  return (
    <>
      <p>
        {place.size.x} x {place.size.y} x {place.size.z} m, {place.temperatureC} °C. {fitted.length} channels,{' '}
        {place.spots.length} spots.
      </p>
      <svg viewBox={`-30 -30 ${w + 60} ${h + 60}`} width="560" fontFamily="sans-serif">
        <rect width={w} height={h} fill="none" stroke="#333" strokeWidth="3" />
        {fitted.map((l) => (
          <Labelled key={l.id} at={l.position} label={l.name}>
            <rect x="-8" y="-8" width="16" height="16" rx="3" fill="#2b4c7e" />
          </Labelled>
        ))}
        {place.spots.map((s, i) => (
          <Labelled key={s.id} at={s.position} label={i === 0 ? 'home' : String(i + 1)}>
            <circle r="6" fill="none" stroke="#d2622a" strokeWidth="2.5" />
          </Labelled>
        ))}
      </svg>
      <ReportTable
        head={['Channel', 'Model', 'Output', 'x, y, z (m)']}
        rows={fitted.map((l) => [
          l.name,
          l.model,
          l.output,
          [l.position.x, l.position.y, l.position.z].map((v) => v.toFixed(2)).join(', '),
        ])}
      />
    </>
  );
}

/** A mark in the drawing of the place, with its name above it. */
function Labelled(props: { at: { x: number; y: number }; label: string; children: ReactNode }) {
  const { at, label, children } = props;
  return (
    <g transform={`translate(${(at.x * SCALE).toFixed(1)},${(at.y * SCALE).toFixed(1)})`}>
      {children}
      <text y="-13" textAnchor="middle" fontSize="13">
        {label}
      </text>
    </g>
  );
}
