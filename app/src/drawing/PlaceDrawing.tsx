import type { Point } from '@pebble-hall/core/geometry';
import { extentOf } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { useMemo, useRef, type ReactNode, type SVGProps } from 'react';
import { lengthText } from './lengths';
import { projectionOf, roundLength, type Projection, type View } from './projection';
import { UnderlayShape, type SeenUnderlay } from './UnderlayShape';
import {
  AreaShape,
  CabinetName,
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
  kind: 'spot' | 'loudspeaker' | 'seat' | 'area' | 'fixture' | 'underlay' | 'corner';
  /** of a corner its outline's owner (the walls, or an area) and its number from 0, as `walls 2` */
  id: string;
}

/** The outline of the walls, where an owner of corners is named. */
export const WALLS = 'walls';

export interface PlaceDrawingProps {
  place: Place;
  view?: View;
  /** how far each spot is; no spots are drawn without it */
  stateOf?: (spotId: string) => SpotState;
  /** ids of what is chosen */
  selected?: ReadonlySet<string>;
  /** ids of what something is wrong with */
  marked?: ReadonlySet<string>;
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
  /** drawings by others, as they look, by their ids; those that are not there are not drawn */
  seen?: ReadonlyMap<string, SeenUnderlay>;
  /** more to draw, under all of it; audience areas are then seen through */
  under?: ((projection: Projection) => ReactNode) | undefined;
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
  marked = NONE,
  playing = null,
  live = SPOTS,
  onSelect,
  onDrag,
  preview = null,
  lines = [],
  caption = '1 is the home spot, with the heavy ring. It sets level and delay.',
  seen,
  under,
  over,
  window: shown = null,
  svg: more = {},
}: PlaceDrawingProps) {
  const projection = useMemo(() => projectionOf(place.shape, view), [place.shape, view]);
  const { width, height, scale, at } = projection;
  const svg = useRef<SVGSVGElement>(null);
  const held = useRef<{ thing: Thing; from: Point; x: number; y: number; moved: boolean } | null>(null);
  const wasHeld = useRef(false);
  const pointOf = (event: React.PointerEvent, keep: Point): Point => {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      svg.current!.getScreenCTM()!.inverse(),
    );
    return projection.under(p.x, p.y, keep);
  };
  const hand = {
    onPointerMove: (event: React.PointerEvent<SVGSVGElement>) => {
      const now = held.current;
      if (!now) return more.onPointerMove?.(event);
      now.moved ||= Math.hypot(event.clientX - now.x, event.clientY - now.y) > STILL_PX;
      if (now.moved) onDrag?.(now.thing, now.from, pointOf(event, now.from), false);
    },
    onPointerUp: (event: React.PointerEvent<SVGSVGElement>) => {
      const now = held.current;
      held.current = null;
      if (!now) return more.onPointerUp?.(event);
      if (now.moved) onDrag?.(now.thing, now.from, pointOf(event, now.from), true);
    },
    onPointerCancel: () => {
      const now = held.current;
      held.current = null;
      if (now?.moved) onDrag?.(now.thing, now.from, now.from, true);
    },
    onPointerDown: (event: React.PointerEvent<SVGSVGElement>) => {
      wasHeld.current = false;
      more.onPointerDown?.(event);
    },
    onClick: (event: React.MouseEvent<SVGSVGElement>) => {
      // the click that ends a grip is none on the background
      if (!wasHeld.current) more.onClick?.(event);
      wasHeld.current = false;
    },
  };
  /** What makes an element a thing that can be chosen, and dragged where that is asked for. */
  const handle = (thing: Thing, keep: Point, label: string, isAlways = false) => {
    const isLive = onSelect && (isAlways || live.includes(thing.kind));
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
        wasHeld.current = true;
        // by the drawing, as what is chosen is drawn over the rest and may leave its place in the page
        svg.current!.setPointerCapture(event.pointerId);
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
  const ring = (id: string) => (selected.has(id) ? CHOSEN : marked.has(id) ? MARKED : undefined);
  const owners = [
    ...(live.includes('corner') ? [{ id: WALLS, name: 'the walls', outline: place.shape.outline }] : []),
    ...place.audience.filter((a) => selected.has(a.id)),
  ];
  const named = useMemo(() => readable(place, projection), [place, projection]);
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
  const underlays = place.underlays.map((u) => {
    const look = seen?.get(u.id);
    if (!look || !u.isShown) return null;
    // taken hold of once it is chosen: until then the hand goes through it, to what lies on it
    const isHeld = selected.has(u.id);
    return (
      <g
        key={u.id}
        {...(isHeld
          ? handle({ kind: 'underlay', id: u.id }, u.at, u.name)
          : { role: 'img', 'aria-label': u.name, pointerEvents: 'none' })}
      >
        <UnderlayShape underlay={u} look={look} projection={projection} isChosen={isHeld} />
      </g>
    );
  });
  const bar =
    roundLength(130 / scale / (place.lengthUnit === 'ft' ? 0.3048 : 1)) *
    (place.lengthUnit === 'ft' ? 0.3048 : 1);
  const box = shown ?? wholeOf(projection);
  return (
    <svg
      ref={svg}
      viewBox={box.join(' ')}
      width="100%"
      height="100%"
      role="group"
      aria-label={`${place.name} ${VIEW_WORDS[view]}`}
      {...more}
      {...hand}
    >
      <Ring id="chosen" colour="var(--kelp)" />
      <Ring id="marked" colour="var(--buoy)" />
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
      {under?.(projection)}
      <GridLines projection={projection} />
      {underlays}
      {fixtures(false)}
      {place.audience.map((a) => (
        <g
          key={a.id}
          {...handle({ kind: 'area', id: a.id }, { ...a.outline[0]!, z: 0 }, a.name)}
          filter={ring(a.id)}
        >
          <AreaShape area={a} place={place} projection={projection} isBare={under !== undefined} />
        </g>
      ))}
      <Walls place={place} projection={projection} />
      {fixtures(true)}
      {lines.map((line, i) => (
        <Measure key={i} line={line} nth={i} projection={projection} />
      ))}
      {live.includes('loudspeaker') || view !== 'above'
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
          <Cabinets loudspeaker={l} playing={playing === l.id} projection={projection} />
        </g>
      ))}
      {place.loudspeakers
        .filter((l) => named.has(l.id))
        .map((l) => (
          <CabinetName key={l.id} loudspeaker={l} projection={projection} />
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
      {view === 'above'
        ? owners.flatMap(({ id, name, outline }) =>
            outline.map((c, i) => {
              const [u, v] = at({ ...c, z: 0 });
              return (
                <g
                  key={`${id} ${i}`}
                  transform={`translate(${u},${v})`}
                  {...handle(
                    { kind: 'corner', id: `${id} ${i}` },
                    { ...c, z: 0 },
                    `Corner ${i + 1} of ${name}`,
                    true,
                  )}
                >
                  <rect
                    x={-8}
                    y={-8}
                    width={16}
                    height={16}
                    rx={4}
                    fill="var(--card)"
                    stroke="var(--kelp)"
                    strokeWidth={2.4}
                  />
                </g>
              );
            }),
          )
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
const MARKED = 'url(#marked)';

/** A ring around whatever is drawn, whatever its shape. */
function Ring({ id, colour }: { id: string; colour: string }) {
  return (
    <filter id={id} x="-30%" y="-30%" width="160%" height="160%">
      <feMorphology in="SourceAlpha" operator="dilate" radius="3" result="wide" />
      <feFlood floodColor={colour} />
      <feComposite in2="wide" operator="in" />
      <feMerge>
        <feMergeNode />
        <feMergeNode in="SourceGraphic" />
      </feMerge>
    </filter>
  );
}

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

/** Loudspeakers whose names have room: seen from the side, one stands before the other. */
function readable({ loudspeakers }: Place, { at, view }: Projection): Set<string> {
  const [wide, high] = [64, 16];
  const kept: { id: string; u: number; v: number }[] = [];
  for (const { id, position } of loudspeakers) {
    const [u, v] = at(position);
    const isFree = kept.every((k) => Math.abs(k.u - u) >= wide || Math.abs(k.v - v) >= high);
    if (isFree || view === 'above') kept.push({ id, u, v });
  }
  return new Set(kept.map((k) => k.id));
}

/** Lines at round lengths. */
function GridLines({ projection }: { projection: Projection }) {
  const { width, height, scale } = projection;
  const step = roundLength(110 / scale) * scale;
  const marks = (to: number) => Array.from({ length: Math.floor(to / step) }, (_, i) => (i + 1) * step);
  const isHeight = projection.view !== 'above';
  const heights = isHeight
    ? marks(height).map((v) => (
        <text key={v} x={-8} y={height - v + 4} fontSize={12} textAnchor="end" fill="var(--soft)">
          {Number((v / scale).toFixed(2))}
        </text>
      ))
    : null;
  const d = [
    ...marks(width).map((u) => `M${u.toFixed(1)} 0v${height}`),
    ...marks(height).map((v) => `M0 ${(height - v).toFixed(1)}h${width}`),
  ];
  return (
    <>
      <path d={d.join('')} stroke="var(--line-soft)" />
      {heights}
    </>
  );
}
