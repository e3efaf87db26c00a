import type { Point } from '@pebble-hall/core/geometry';
import { extentOf } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { useMemo, useRef, type ReactNode, type SVGProps } from 'react';
import { lengthText } from './lengths';
import { projectionOf, roundLength, type Projection, type View } from './projection';
import {
  AreaShape,
  Cabinets,
  FixtureShape,
  Measure,
  SPOT_WORDS,
  SpotMark,
  Walls,
  type PlanLine,
  type SpotState,
} from './Things';

/** Something in the drawing, by what it is and its id. */
export interface Thing {
  kind: 'spot' | 'loudspeaker' | 'seat' | 'area' | 'fixture' | 'corner';
  id: string;
}

export interface PlaceDrawingProps {
  place: Place;
  view?: View;
  /** how far each spot is; no spots are drawn without it */
  stateOf?: (spotId: string) => SpotState;
  /** ids of what is chosen */
  selected?: ReadonlySet<string>;
  playing?: string | null;
  /** kinds of things that can be chosen and dragged; spots when absent */
  live?: readonly Thing['kind'][];
  onSelect?: (thing: Thing, adds: boolean) => void;
  /** a thing under the hand: from where it was taken hold of to where it is now; `done` when it was let go */
  onDrag?: ((thing: Thing, from: Point, to: Point, done: boolean) => void) | undefined;
  /** spots that a plan would give */
  preview?: Point[] | null;
  lines?: PlanLine[];
  /** a sentence below it */
  caption?: string;
  /** more to draw, over all of it */
  over?: (projection: Projection) => ReactNode;
  /** part of the drawing that is shown, in its units; all of it when absent */
  window?: [x: number, y: number, width: number, height: number] | null;
  svg?: SVGProps<SVGSVGElement>;
}

export const PAD = 46;
/** A hand that moves less, in pixels, did not drag. */
const STILL_PX = 4;
const VIEW_WORDS: Record<View, string> = {
  above: 'from above',
  front: 'from the seats',
  side: 'from the side',
};

/** All of a drawing with its margins, in its units. */
export const wholeOf = ({ width, height }: Projection): [number, number, number, number] => [
  -PAD,
  -PAD,
  width + 2 * PAD,
  height + 2 * PAD + 14,
];

/** The place as a drawing, the same wherever it is shown: walls, surfaces, audience, loudspeakers as they point, spots with their state. */
export function PlaceDrawing({
  place,
  view = 'above',
  stateOf,
  selected = NONE,
  playing = null,
  live = SPOTS,
  onSelect,
  onDrag,
  preview = null,
  lines = [],
  caption = '1 is the home spot, with the heavy ring. It sets level and delay.',
  over,
  window: shown = null,
  svg: more = {},
}: PlaceDrawingProps) {
  const projection = useMemo(() => projectionOf(place.shape, view), [place.shape, view]);
  const { width, height, scale, at } = projection;
  const svg = useRef<SVGSVGElement>(null);
  const held = useRef<{ thing: Thing; from: Point; x: number; y: number; moved: boolean } | null>(null);
  const pointOf = (event: React.PointerEvent, keep: Point): Point => {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      svg.current!.getScreenCTM()!.inverse(),
    );
    return projection.under(p.x, p.y, keep);
  };
  /** What makes an element a thing that can be chosen, and dragged where that is asked for. */
  const handle = (thing: Thing, keep: Point, label: string) => {
    const isLive = onSelect && live.includes(thing.kind);
    if (!isLive) return { role: 'img', 'aria-label': label } as const;
    return {
      role: 'button',
      tabIndex: 0,
      'aria-label': label,
      'aria-pressed': selected.has(thing.id),
      'data-thing': thing.id,
      style: { cursor: onDrag ? 'grab' : 'pointer', touchAction: onDrag ? 'none' : undefined },
      onPointerDown: (event: React.PointerEvent<SVGGElement>) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        if (!onDrag) return;
        if (!selected.has(thing.id) || event.shiftKey) onSelect(thing, event.shiftKey);
        held.current = {
          thing,
          from: pointOf(event, keep),
          x: event.clientX,
          y: event.clientY,
          moved: false,
        };
        event.currentTarget.setPointerCapture(event.pointerId);
      },
      onPointerMove: (event: React.PointerEvent) => {
        const now = held.current;
        if (now?.thing.id !== thing.id) return;
        now.moved ||= Math.hypot(event.clientX - now.x, event.clientY - now.y) > STILL_PX;
        if (now.moved) onDrag?.(thing, now.from, pointOf(event, now.from), false);
      },
      onPointerUp: (event: React.PointerEvent) => {
        const now = held.current;
        if (now?.thing.id !== thing.id) return;
        held.current = null;
        if (now.moved) onDrag?.(thing, now.from, pointOf(event, now.from), true);
      },
      onPointerCancel: () => {
        const now = held.current;
        held.current = null;
        if (now?.moved) onDrag?.(now.thing, now.from, now.from, true);
      },
      onClick: (event: React.MouseEvent) => {
        event.stopPropagation();
        if (!onDrag) onSelect(thing, event.shiftKey);
      },
      onKeyDown: (event: React.KeyboardEvent) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onSelect(thing, event.shiftKey);
      },
    } as const;
  };
  const ring = (id: string) => (selected.has(id) ? CHOSEN : undefined);
  const isInWall = (kind: string) => kind === 'window' || kind === 'door';
  const fixtures = (inWalls: boolean) =>
    place.fixtures
      .filter((f) => isInWall(f.kind) === inWalls)
      .map((f) => (
        <g
          key={f.id}
          {...handle({ kind: 'fixture', id: f.id }, { x: f.x, y: f.y, z: f.bottom }, f.name)}
          filter={ring(f.id)}
        >
          <FixtureShape fixture={f} projection={projection} />
        </g>
      ));
  const bar =
    roundLength(130 / scale / (place.lengthUnit === 'ft' ? 0.3048 : 1)) *
    (place.lengthUnit === 'ft' ? 0.3048 : 1);
  const box = shown ?? wholeOf(projection);
  return (
    <svg
      ref={svg}
      viewBox={box.join(' ')}
      style={{ width: '100%', height: '100%' }}
      role="group"
      aria-label={`${place.name} ${VIEW_WORDS[view]}`}
      {...more}
    >
      <filter id="chosen" x="-30%" y="-30%" width="160%" height="160%">
        <feMorphology in="SourceAlpha" operator="dilate" radius="3" result="wide" />
        <feFlood floodColor="var(--kelp)" />
        <feComposite in2="wide" operator="in" />
        <feMerge>
          <feMergeNode />
          <feMergeNode in="SourceGraphic" />
        </feMerge>
      </filter>
      <text x={0} y={-20} fontSize={14} fill="var(--soft)">
        {place.name}, {sizeText(place)}, seen {VIEW_WORDS[view]}
      </text>
      <path
        d={`M${width - 28 - bar * scale} -24 h${bar * scale} m${-bar * scale} -5 v10 m${bar * scale} -10 v10`}
        stroke="var(--soft)"
        fill="none"
      />
      <text x={width - 22} y={-19} fontSize={13} fill="var(--soft)">
        {lengthText(bar, place.lengthUnit)}
      </text>
      <GridLines projection={projection} />
      {fixtures(false)}
      {place.audience.map((a) => (
        <g
          key={a.id}
          {...handle({ kind: 'area', id: a.id }, { ...a.outline[0]!, z: 0 }, a.name)}
          stroke={selected.has(a.id) ? 'var(--kelp)' : undefined}
        >
          <AreaShape area={a} place={place} projection={projection} />
        </g>
      ))}
      <Walls place={place} projection={projection} />
      {fixtures(true)}
      {lines.map((line, i) => (
        <Measure key={i} line={line} nth={i} projection={projection} />
      ))}
      {live.includes('seat') || view !== 'above'
        ? place.seats.map((seat) => {
            const [u, v] = at(seat.position);
            return (
              <g
                key={seat.id}
                transform={`translate(${u},${v})`}
                {...handle({ kind: 'seat', id: seat.id }, seat.position, seat.name)}
                filter={ring(seat.id)}
              >
                <circle r={9} fill="var(--line-soft)" stroke="var(--line)" />
              </g>
            );
          })
        : null}
      {place.loudspeakers.map((l) => (
        <g
          key={l.id}
          opacity={l.fitted ? 1 : 0.35}
          {...handle({ kind: 'loudspeaker', id: l.id }, l.position, l.name)}
          filter={ring(l.id)}
        >
          <Cabinets loudspeaker={l} playing={playing === l.id} projection={projection} named />
        </g>
      ))}
      {(preview ?? []).map((p, i) => (
        <circle
          key={i}
          cx={at(p)[0]}
          cy={at(p)[1]}
          r={10}
          fill="none"
          stroke="var(--kelp)"
          strokeDasharray="3 2"
          strokeWidth={1.8}
        />
      ))}
      {stateOf && !preview
        ? inFront(place.spots, selected).map(({ spot, i }) => {
            const [u, v] = at(spot.position);
            const state = stateOf(spot.id);
            const name = i === 0 ? `${spot.name} 1` : spot.name;
            return (
              <g
                key={spot.id}
                transform={`translate(${u},${v})`}
                {...handle({ kind: 'spot', id: spot.id }, spot.position, `${name}, ${SPOT_WORDS[state]}`)}
              >
                <SpotMark number={i + 1} state={state} chosen={selected.has(spot.id)} />
              </g>
            );
          })
        : null}
      {over?.(projection)}
      <text x={0} y={height + 30} fontSize={13} fill="var(--soft)">
        {caption}
      </text>
    </svg>
  );
}

const NONE: ReadonlySet<string> = new Set();
const SPOTS = ['spot'] as const;
const CHOSEN = 'url(#chosen)';

/** With those that are chosen drawn last, so that no other covers them. */
const inFront = (spots: Place['spots'], selected: ReadonlySet<string>) =>
  spots
    .map((spot, i) => ({ spot, i }))
    .sort((a, b) => Number(selected.has(a.spot.id)) - Number(selected.has(b.spot.id)));

/** Length, width and height of a place; outdoors without a height. */
export function sizeText({ shape, lengthUnit }: Pick<Place, 'shape' | 'lengthUnit'>): string {
  const { least, most } = extentOf(shape);
  const sides = [most.x - least.x, most.y - least.y, ...(shape.isEnclosed ? [most.z] : [])];
  const numbers = sides.map((m) => lengthText(m, lengthUnit).split(' ')[0]);
  return `${numbers.join(' × ')} ${lengthUnit}`;
}

/** Lines at round lengths. */
function GridLines({ projection }: { projection: Projection }) {
  const { width, height, scale } = projection;
  const step = roundLength(110 / scale) * scale;
  const marks = (to: number) => Array.from({ length: Math.floor(to / step) }, (_, i) => (i + 1) * step);
  const up = projection.view !== 'above';
  const d = [
    ...marks(width).map((u) => `M${u.toFixed(1)} 0v${height}`),
    ...marks(height).map((v) => `M0 ${(up ? height - v : v).toFixed(1)}h${width}`),
  ];
  return <path d={d.join('')} stroke="var(--line-soft)" />;
}
