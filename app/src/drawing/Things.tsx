import { boxesOf, facetsOf, roofPlanes, seatsOrNone, type AudienceArea } from '@pebble-hall/core/place';
import type { Fixture, Loudspeaker, Place } from '@pebble-hall/core/project';
import type { Point } from '@pebble-hall/core/geometry';
import { memo } from 'react';
import type { Projection } from './projection';

const pathOf = (points: [number, number][], closed = true) =>
  points.map(([u, v], i) => `${i === 0 ? 'M' : 'L'}${u.toFixed(1)} ${v.toFixed(1)}`).join('') +
  (closed ? 'Z' : '');

/** Walls from above; from the side and the front every edge of the room. */
export const Walls = memo(function Walls({ place, projection }: { place: Place; projection: Projection }) {
  const { shape } = place;
  const { at, view } = projection;
  if (view !== 'above') {
    const edges = facetsOf(shape).map((f) => pathOf(f.corners.map(at)));
    return (
      <path
        d={edges.join('')}
        fill="none"
        stroke="var(--stone-ink)"
        strokeWidth={2.5}
        strokeLinejoin="round"
      />
    );
  }
  const outline = pathOf(shape.outline.map((c) => at({ ...c, z: 0 })));
  const ridge = roofPlanes(shape)[0]?.part;
  return (
    <>
      <path
        d={outline}
        fill="none"
        stroke="var(--stone-ink)"
        strokeWidth={shape.isEnclosed ? 5 : 1.6}
        strokeDasharray={shape.isEnclosed ? undefined : '8 6'}
        strokeLinejoin="round"
      />
      {ridge && shape.isEnclosed ? (
        <path
          d={
            ridge.axis === 'y'
              ? `M0 ${at({ x: 0, y: ridge.at, z: 0 })[1]}H${projection.width}`
              : `M${at({ x: ridge.at, y: 0, z: 0 })[0]} 0V${projection.height}`
          }
          stroke="var(--line)"
          strokeWidth={1.6}
          strokeDasharray="10 5"
        >
          <title>Ridge of the roof</title>
        </path>
      ) : null}
    </>
  );
});

/** Furniture and surfaces by what they are; windows and doors are let into the walls and drawn over them. */
export function FixtureShape({ fixture, projection }: { fixture: Fixture; projection: Projection }) {
  const { kind, x, y, width, depth, bottom, top } = fixture;
  const [u1, v1] = projection.at({ x, y, z: top });
  const [u2, v2] = projection.at({ x: x + width, y: y + depth, z: bottom });
  const box = {
    x: Math.min(u1, u2),
    y: Math.min(v1, v2),
    width: Math.abs(u2 - u1),
    height: Math.abs(v2 - v1),
  };
  if (kind === 'window' || kind === 'door') {
    const thick = 8;
    return (
      <rect
        x={box.width < thick ? box.x + box.width / 2 - thick / 2 : box.x}
        y={box.height < thick ? box.y + box.height / 2 - thick / 2 : box.y}
        width={Math.max(thick, box.width)}
        height={Math.max(thick, box.height)}
        fill="var(--card)"
        fillOpacity={projection.view === 'above' ? 1 : 0.6}
        stroke="var(--stone-ink)"
        strokeDasharray={kind === 'door' ? '5 3' : undefined}
      />
    );
  }
  if (kind === 'rug') return <rect {...box} rx={4} fill="var(--line-soft)" opacity={0.5} />;
  const isSoft = kind === 'sofa' || kind === 'chair';
  return (
    <g>
      <rect
        {...box}
        rx={isSoft ? 14 : 3}
        fill={kind === 'column' ? 'var(--stone-ink)' : kind === 'balcony' ? 'none' : 'var(--sand)'}
        stroke={kind === 'balcony' ? 'var(--soft)' : 'var(--line)'}
        strokeWidth={2}
        strokeDasharray={kind === 'balcony' ? '9 5' : undefined}
      />
      {kind === 'steps' ? (
        <path
          d={[0.25, 0.5, 0.75].map((s) => `M${box.x + s * box.width} ${box.y}v${box.height}`).join('')}
          stroke="var(--line)"
          strokeWidth={1.5}
        />
      ) : null}
      {kind === 'sofa' && projection.view === 'above' ? (
        <rect
          x={box.x + box.width - 24}
          y={box.y + 6}
          width={18}
          height={Math.max(0, box.height - 12)}
          rx={8}
          fill="var(--line-soft)"
        />
      ) : null}
      {kind === 'stage' || kind === 'balcony' || kind === 'steps' || kind === 'other' ? (
        <text x={box.x + box.width / 2} y={box.y + 16} textAnchor="middle" fontSize={12} fill="var(--soft)">
          {fixture.name}
        </text>
      ) : null}
    </g>
  );
}

/** An area and its seats, which are one path, however many they are. */
export const AreaShape = memo(function AreaShape({
  area,
  place,
  projection,
  isBare = false,
}: {
  area: AudienceArea;
  place: Place;
  projection: Projection;
  /** its outline and its seats only, for what lies under it to be seen */
  isBare?: boolean;
}) {
  const seats = seatsOrNone(area, place.shape);
  const r = Math.max(1.2, Math.min(4, 0.16 * projection.scale));
  const dots = seats.map(({ position }) => {
    const [u, v] = projection.at(position);
    return `M${(u - r).toFixed(1)} ${v.toFixed(1)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
  });
  const above = projection.view === 'above';
  return (
    <>
      {above ? (
        <path
          d={pathOf(area.outline.map((c) => projection.at({ ...c, z: 0 })))}
          fill="var(--line-soft)"
          fillOpacity={isBare ? 0 : 0.45}
          stroke="var(--line)"
        />
      ) : null}
      <path d={dots.join('')} fill="var(--soft)" fillOpacity={isBare ? 0.3 : 0.55} />
    </>
  );
});

const WORDS: [RegExp, string][] = [
  [/^Surround /, 'Surr. '],
  [/^Low-frequency/, 'LFE'],
];
const shortName = (name: string) => WORDS.reduce((text, [from, to]) => text.replace(from, to), name);

/** Boxes are drawn smaller where there are several, or the place is large. */
const smallness = (boxes: number, { scale }: Projection) =>
  Math.max(0.5, Math.min(1, scale / 48, boxes > 1 ? 0.8 : 1));

/** A loudspeaker, or every box of a group, as it points. */
export function Cabinets({
  loudspeaker,
  playing,
  projection,
}: {
  loudspeaker: Loudspeaker;
  playing: boolean;
  projection: Projection;
}) {
  const isSub = loudspeaker.role === 'subwoofer';
  const fill = playing ? 'var(--kelp)' : 'var(--stone)';
  const boxes = boxesOf(loudspeaker);
  const small = smallness(boxes.length, projection);
  const pointing = (aim: Point) => {
    const [u0, v0] = projection.at({ x: 0, y: 0, z: 0 });
    const [u, v] = projection.at(aim);
    return (Math.atan2(v - v0, u - u0) * 180) / Math.PI;
  };
  return (
    <>
      {boxes.length > 1 ? (
        <>
          <path
            d={pathOf(
              boxes.map((b) => projection.at(b.position)),
              false,
            )}
            fill="none"
            stroke="transparent"
            strokeWidth={16}
          />
          <path
            d={pathOf(
              boxes.map((b) => projection.at(b.position)),
              false,
            )}
            fill="none"
            stroke="var(--stone-ink)"
            strokeDasharray="2 3"
          />
        </>
      ) : null}
      {boxes.map(({ position, aim, inverted }, i) => {
        const [u, v] = projection.at(position);
        return (
          <g
            key={i}
            transform={`translate(${u.toFixed(1)},${v.toFixed(1)}) rotate(${pointing(aim).toFixed(1)}) scale(${small})`}
          >
            {isSub ? (
              <>
                <rect
                  x={-17}
                  y={-17}
                  width={34}
                  height={34}
                  rx={8}
                  fill={fill}
                  stroke="var(--stone-ink)"
                  strokeWidth={1.6}
                />
                <circle
                  r={9}
                  fill={inverted ? 'var(--line)' : 'none'}
                  stroke="var(--stone-ink)"
                  strokeWidth={1.6}
                />
              </>
            ) : (
              <path
                d="M-12 -10 h17 q8 10 0 20 h-17 z"
                fill={fill}
                stroke="var(--stone-ink)"
                strokeWidth={1.6}
              />
            )}
          </g>
        );
      })}
    </>
  );
}

/** The name of a loudspeaker beside it, away from the middle of the place. */
export function CabinetName({
  loudspeaker,
  projection,
}: {
  loudspeaker: Loudspeaker;
  projection: Projection;
}) {
  const boxes = boxesOf(loudspeaker).map((b) => projection.at(b.position));
  const [x, y] = projection.at(loudspeaker.position);
  const [us, vs] = [boxes.map((b) => b[0]), boxes.map((b) => b[1])];
  const below = y < projection.height / 2;
  const right = x < projection.width / 2;
  const large = projection.scale > 60;
  const small = smallness(boxes.length, projection);
  // in a large place names stand beside, towards the nearer wall, as long as they have room there
  const isTall = Math.max(...vs) - Math.min(...vs) > 30;
  const isBeside = !large && projection.view === 'above' && !isTall;
  const toLeft = right ? Math.min(...us) > 90 : Math.max(...us) > projection.width - 90;
  const off = 4 + 17 * small;
  const away = 20 + 14 * small;
  return (
    <text
      x={isBeside ? (toLeft ? Math.min(...us) - off : Math.max(...us) + off) : x}
      y={isBeside ? y + 4 : below && !isTall ? Math.max(...vs) + away : Math.min(...vs) - away + 12}
      textAnchor={isBeside ? (toLeft ? 'end' : 'start') : 'middle'}
      fontSize={13}
      fill="var(--ink)"
      stroke="var(--card)"
      strokeWidth={3}
      paintOrder="stroke"
      pointerEvents="none"
      aria-hidden="true"
    >
      {shortName(loudspeaker.name)}
    </text>
  );
}

export type SpotState = 'empty' | 'taken' | 'trouble' | 'now';

export const SPOT_WORDS: Record<SpotState, string> = {
  empty: 'not taken',
  taken: 'taken',
  trouble: 'look again',
  now: 'measuring now',
};

/** A spot with its number; the home spot has the heavy ring. */
export function SpotMark({ number, state, chosen }: { number: number; state: SpotState; chosen: boolean }) {
  const look = {
    empty: { fill: 'var(--card)', line: 'var(--soft)', ink: 'var(--ink)' },
    taken: { fill: 'var(--kelp-soft)', line: 'var(--kelp)', ink: 'var(--ink)' },
    trouble: { fill: 'var(--buoy-soft)', line: 'var(--buoy)', ink: 'var(--ink)' },
    now: { fill: 'var(--kelp)', line: 'var(--kelp)', ink: 'var(--on-kelp)' },
  }[state];
  return (
    <>
      {chosen ? (
        <ellipse rx={22} ry={19} fill="none" stroke="var(--kelp)" strokeWidth={1.6} opacity={0.6} />
      ) : null}
      <ellipse
        rx={15}
        ry={12.5}
        fill={look.fill}
        stroke={look.line}
        strokeWidth={number === 1 ? 3.2 : 1.8}
        strokeDasharray={state === 'empty' ? '4 3' : undefined}
      />
      <text aria-hidden="true" textAnchor="middle" y={5} fontSize={14} fontWeight={700} fill={look.ink}>
        {number}
      </text>
    </>
  );
}

export interface PlanLine {
  from: Point;
  to: Point;
  label: string;
  attention: boolean;
  /** known from the plan only */
  faint: boolean;
}

/** Where along its line a length is written; neighbours differ. */
const WRITTEN_AT = [0.58, 0.42, 0.72, 0.5, 0.4, 0.34, 0.64];

/** A length, written near its middle. */
export function Measure({ line, nth, projection }: { line: PlanLine; nth: number; projection: Projection }) {
  const { from, to, label, attention, faint } = line;
  const [[x1, y1], [x2, y2]] = [projection.at(from), projection.at(to)];
  const colour = attention ? 'var(--buoy)' : faint ? 'var(--soft)' : 'var(--kelp)';
  const written = WRITTEN_AT[nth % WRITTEN_AT.length]!;
  return (
    <g>
      <line
        x1={x1}
        x2={x2}
        y1={y1}
        y2={y2}
        stroke={colour}
        strokeWidth={attention ? 2.2 : 1.4}
        strokeDasharray={faint ? '3 4' : undefined}
      />
      <text
        x={x1 + written * (x2 - x1)}
        y={y1 + written * (y2 - y1) + 4}
        textAnchor="middle"
        fontSize={12}
        fill={colour}
        stroke="var(--card)"
        strokeWidth={4}
        paintOrder="stroke"
      >
        {label}
      </text>
    </g>
  );
}
