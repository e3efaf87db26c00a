import { useRef, useState, type PointerEvent, type WheelEvent } from 'react';
import { wholeOf, type Projection } from '../../drawing';

type Window = [x: number, y: number, width: number, height: number];

/** The most that one comes nearer, and how much by one step of the wheel. */
const [NEAREST, STEP] = [20, 1.15];

/**
 * The part of the drawing that is seen: moved with the background, nearer and further by the wheel. While a hand moves it the
 * drawing itself is shifted, without drawing it again.
 */
export function useWindow(projection: Projection) {
  const whole = wholeOf(projection);
  const [kept, setKept] = useState<{ of: Projection; window: Window } | null>(null);
  const window = kept?.of === projection ? kept.window : null;
  const now = window ?? whole;
  const held = useRef<{ x: number; y: number; from: Window; moved: boolean } | null>(null);
  const moved = useRef(false);
  const set = (next: Window) => setKept({ of: projection, window: next });

  const onWheel = (event: WheelEvent<SVGSVGElement>) => {
    const matrix = event.currentTarget.getScreenCTM()!.inverse();
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    const factor = event.deltaY > 0 ? STEP : 1 / STEP;
    const width = Math.min(whole[2], Math.max(whole[2] / NEAREST, now[2] * factor));
    const by = width / now[2];
    if (width >= whole[2]) return setKept(null);
    set([at.x - (at.x - now[0]) * by, at.y - (at.y - now[1]) * by, width, now[3] * by]);
  };
  const shifted = (event: PointerEvent<SVGSVGElement>): Window => {
    const { x, y, from } = held.current!;
    const scale = event.currentTarget.getScreenCTM()!.a;
    return [from[0] - (event.clientX - x) / scale, from[1] - (event.clientY - y) / scale, from[2], from[3]];
  };
  return {
    window,
    isWhole: window === null,
    reset: () => setKept(null),
    /** whether the click that comes now only let go of the background */
    wasMoved: () => moved.current,
    handlers: {
      onWheel,
      onPointerDown: (event: PointerEvent<SVGSVGElement>) => {
        moved.current = false;
        if (event.button !== 0) return;
        held.current = { x: event.clientX, y: event.clientY, from: now, moved: false };
      },
      onPointerMove: (event: PointerEvent<SVGSVGElement>) => {
        const start = held.current;
        if (!start || event.buttons === 0) return;
        start.moved ||= Math.hypot(event.clientX - start.x, event.clientY - start.y) > 4;
        if (!start.moved) return;
        moved.current = true;
        event.currentTarget.setAttribute('viewBox', shifted(event).join(' '));
      },
      onPointerUp: (event: PointerEvent<SVGSVGElement>) => {
        if (held.current?.moved) set(shifted(event));
        held.current = null;
      },
    },
  };
}
