import { distanceBetween, type Point } from '@pebble-hall/core/geometry';
import { floorAt } from '@pebble-hall/core/place';
import { chosenPoints, type Place } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { useState, type MouseEvent } from 'react';
import { lengthText, type Projection, type Thing } from '../../drawing';

/** A point by itself is taken at the ears of someone who sits. */
const EAR_M = 1.2;

/** A ruler between any two things or points: the third begins anew. */
export function useRuler(place: Place) {
  const [isOn, setOn] = useState(false);
  const [points, setPoints] = useState<Point[]>([]);
  const take = (point: Point) => setPoints((now) => (now.length === 1 ? [now[0]!, point] : [point]));
  return {
    isOn,
    points: isOn ? points : [],
    toggle: () => {
      setOn(!isOn);
      setPoints([]);
    },
    clear: () => setPoints([]),
    takeThing: ({ id }: Thing) => {
      const found = chosenPoints(place, new Set([id]))[0];
      if (found) take(found.at);
    },
    takePoint: (event: MouseEvent<SVGSVGElement>, projection: Projection) => {
      const matrix = event.currentTarget.getScreenCTM()!.inverse();
      const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
      const at = projection.under(p.x, p.y, { x: 0, y: 0, z: EAR_M });
      take(projection.view === 'above' ? { ...at, z: floorAt(place.shape, at) + EAR_M } : at);
    },
  };
}

/** What lies between two points: length, time of flight, and what a small source loses on the way, re 1 m. */
export function rulerFigures([a, b]: readonly Point[], temperatureC: number) {
  if (!a || !b) return null;
  const metres = distanceBetween(a, b);
  return {
    metres,
    ms: (1000 * metres) / speedOfSound(temperatureC),
    lossDb: metres > 0 ? 20 * Math.log10(metres) : -Infinity,
  };
}

export function rulerWords(points: readonly Point[], { temperatureC, lengthUnit }: Place): string {
  const found = rulerFigures(points, temperatureC);
  if (!found)
    return points.length === 1
      ? 'From here to … press the second thing or point.'
      : 'Press two things or points.';
  const { metres, ms, lossDb } = found;
  const loss = Number.isFinite(lossDb) ? `, ${lossDb.toFixed(1)} dB less than at 1 m` : '';
  return `${lengthText(metres, lengthUnit)}, ${ms.toFixed(2)} ms at ${temperatureC} °C${loss}`;
}

export function RulerLine({
  points,
  place,
  projection,
}: {
  points: readonly Point[];
  place: Place;
  projection: Projection;
}) {
  const at = points.map((p) => projection.at(p));
  const found = rulerFigures(points, place.temperatureC);
  const [a, b] = at;
  return (
    <g pointerEvents="none">
      {at.map(([u, v], i) => (
        <circle key={i} cx={u} cy={v} r={5} fill="var(--buoy)" />
      ))}
      {a && b && found ? (
        <>
          <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke="var(--buoy)" strokeWidth={2} />
          <text
            x={(a[0] + b[0]) / 2}
            y={(a[1] + b[1]) / 2 - 8}
            textAnchor="middle"
            fontSize={14}
            fontWeight={700}
            fill="var(--buoy)"
            stroke="var(--card)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {lengthText(found.metres, place.lengthUnit)}, {found.ms.toFixed(1)} ms
          </text>
        </>
      ) : null}
    </g>
  );
}
