import { Button } from '@mantine/core';
import { extentOf } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { useEffect, useMemo, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { lengthText } from '../../../drawing';
import { LengthField } from '../../../parts/LengthField';
import { urlOf } from '../../../services/underlays';
import { layPicture, type OpenedFile } from './layUnder';

interface PictureStepProps {
  file: OpenedFile;
  size: { width: number; height: number };
  place: Place;
  onDone: (id: string | null) => void;
}

type Px = [x: number, y: number];
const NAMES = ['First point', 'Second point'] as const;
/** How much larger the detail shows what is under a point. */
const MAGNIFIED = 8;

/** A picture and two points on it whose distance is known: that is its scale. */
export function PictureStep({ file, size, place, onDone }: PictureStepProps) {
  const { width, height } = size;
  const { least, most } = extentOf(place.shape);
  const url = useMemo(() => urlOf(file), [file]);
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  const [points, setPoints] = useState<[Px, Px]>([
    [0.1 * width, 0.5 * height],
    [0.9 * width, 0.5 * height],
  ]);
  const [active, setActive] = useState<0 | 1>(0);
  const [held, setHeld] = useState(false);
  // until it is said, as if the picture were as long as the place
  const [distanceM, setDistanceM] = useState(0.8 * (most.x - least.x));
  const [isSaid, setSaid] = useState(false);
  const px = Math.hypot(points[0][0] - points[1][0], points[0][1] - points[1][1]);
  const metresPerPixel = distanceM / px;
  const move = (which: 0 | 1, to: Px) => {
    const kept: Px = [Math.max(0, Math.min(width, to[0])), Math.max(0, Math.min(height, to[1]))];
    setPoints(which === 0 ? [kept, points[1]] : [points[0], kept]);
  };
  const under = (event: PointerEvent<SVGSVGElement>): Px => {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      event.currentTarget.getScreenCTM()!.inverse(),
    );
    return [p.x, p.y];
  };
  const onKeyDown = (which: 0 | 1) => (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 1;
    const ways: Record<string, Px> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const way = ways[event.key];
    if (!way) return;
    event.preventDefault();
    setActive(which);
    move(which, [points[which][0] + way[0], points[which][1] + way[1]]);
  };
  const mark = Math.max(width, height) / 60;
  const detail = Math.max(width, height) / MAGNIFIED;
  const text = (m: number) => lengthText(m, place.lengthUnit);
  return (
    <div style={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 250px', gap: 18 }}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        style={{
          width: '100%',
          height: 470,
          background: 'var(--sand)',
          borderRadius: 8,
          touchAction: 'none',
        }}
        role="group"
        aria-label="Picture with two points"
        onPointerDown={(event) => {
          const p = under(event);
          const away = (k: 0 | 1) => Math.hypot(points[k][0] - p[0], points[k][1] - p[1]);
          const which = away(0) <= away(1) ? 0 : 1;
          setActive(which);
          setHeld(true);
          move(which, p);
          event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerMove={(event) => held && move(active, under(event))}
        onPointerUp={() => setHeld(false)}
        onPointerCancel={() => setHeld(false)}
      >
        <image href={url} width={width} height={height} />
        <line
          x1={points[0][0]}
          y1={points[0][1]}
          x2={points[1][0]}
          y2={points[1][1]}
          stroke="var(--kelp)"
          strokeWidth={mark / 6}
          strokeDasharray={`${mark / 2} ${mark / 3}`}
        />
        {([0, 1] as const).map((k) => (
          <g
            key={k}
            role="button"
            tabIndex={0}
            aria-label={`${NAMES[k]}: ${Math.round(points[k][0])} from the left, ${Math.round(points[k][1])} from above, pixels`}
            transform={`translate(${points[k][0]},${points[k][1]})`}
            onKeyDown={onKeyDown(k)}
            onFocus={() => setActive(k)}
          >
            <circle
              r={mark}
              fill="var(--card)"
              fillOpacity={0.4}
              stroke="var(--kelp)"
              strokeWidth={mark / 4}
            />
            <path
              d={`M${-mark} 0H${mark}M0 ${-mark}V${mark}`}
              stroke="var(--kelp)"
              strokeWidth={mark / 10}
              strokeOpacity={0.9}
            />
          </g>
        ))}
      </svg>
      <div style={{ display: 'grid', gap: 10, alignContent: 'start', fontSize: 14 }}>
        <p style={{ margin: 0 }}>
          Put the two points on something whose length you know: the length of a wall, the width of the stage.
        </p>
        <svg
          viewBox={`${points[active][0] - detail / 2} ${points[active][1] - detail / 2} ${detail} ${detail}`}
          style={{ width: 150, height: 150, borderRadius: 8, background: 'var(--sand)' }}
          role="img"
          aria-label={`Detail at the ${NAMES[active].toLowerCase()}`}
        >
          <image href={url} width={width} height={height} />
          <path
            d={`M${points[active][0] - detail} ${points[active][1]}h${2 * detail}M${points[active][0]} ${points[active][1] - detail}v${2 * detail}`}
            stroke="var(--kelp)"
            strokeWidth={detail / 120}
          />
        </svg>
        <small className="quiet">Drag, or by arrow keys: one pixel, with Shift ten.</small>
        <label className="row">
          <span>They are apart</span>
          <LengthField
            label="Distance of the two points"
            value={distanceM}
            unit={place.lengthUnit}
            min={0.01}
            width={110}
            onChange={(m) => {
              setDistanceM(m);
              setSaid(true);
            }}
          />
        </label>
        {px < 2 ? (
          <p role="alert">The two points are in the same place. Draw them apart.</p>
        ) : (
          <p style={{ margin: 0 }} aria-label="Size of the picture" role="status">
            {isSaid ? 'The picture is' : 'As long as the place, the picture would be'}{' '}
            <b>
              {text(width * metresPerPixel)} × {text(height * metresPerPixel)}
            </b>
            ; a pixel is {Number((1000 * metresPerPixel).toPrecision(3))} mm.
          </p>
        )}
        <Button
          disabled={px < 2}
          onClick={() => void layPicture(file, place, size, metresPerPixel).then((id) => id && onDone(id))}
        >
          Lay it under
        </Button>
      </div>
    </div>
  );
}
