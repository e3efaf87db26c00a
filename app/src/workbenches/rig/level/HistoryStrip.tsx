import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useRef } from 'react';
import type { MeterSession } from './meterSession';

const SHOWN_S = 120;
const POINTS = SHOWN_S * 10;
const LEFT = 40;
const BOTTOM = 20;

/** The last two minutes: A and C, Fast. Drawn past rendering. */
export function HistoryStrip({
  session,
  offsetDb,
  unit,
}: {
  session: MeterSession;
  offsetDb: number;
  unit: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scheme = useComputedColorScheme('light');
  useEffect(() => {
    const draw = () =>
      canvas.current && drawHistory(canvas.current, session.history.slice(-POINTS), offsetDb);
    draw();
    const observer = new ResizeObserver(draw);
    observer.observe(canvas.current!);
    const unsubscribe = session.store.subscribe(draw);
    return () => {
      observer.disconnect();
      unsubscribe();
    };
    // the scheme changes what the colours hold
  }, [session, offsetDb, scheme]);
  return (
    <figure style={{ margin: 0, flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column', gap: 2 }}>
      <figcaption className="quiet" style={{ fontSize: 12.5, display: 'flex', gap: 16 }}>
        <span>The last two minutes, {unit}</span>
        <span>
          <span style={{ color: 'var(--trace-kelp)' }} aria-hidden="true">
            ━{' '}
          </span>
          LAF
        </span>
        <span>
          <span style={{ color: 'var(--trace-buoy)' }} aria-hidden="true">
            ━{' '}
          </span>
          LCF
        </span>
      </figcaption>
      <div style={{ position: 'relative', flex: 1, minHeight: 0 }}>
        <canvas
          ref={canvas}
          role="img"
          aria-label="Level over the last two minutes"
          style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }}
        />
      </div>
    </figure>
  );
}

function drawHistory(canvas: HTMLCanvasElement, history: { a: number; c: number }[], offsetDb: number): void {
  const { clientWidth: width, clientHeight: height } = canvas;
  const ratio = window.devicePixelRatio || 1;
  canvas.width = Math.round(width * ratio);
  canvas.height = Math.round(height * ratio);
  const context = canvas.getContext('2d')!;
  context.scale(ratio, ratio);
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string) => style.getPropertyValue(`--${name}`).trim();
  const finite = history.flatMap(({ a, c }) => [a, c]).filter((v) => v > -140);
  const high = 10 * Math.ceil((Math.max(-60, ...finite) + offsetDb + 3) / 10);
  const low = Math.min(high - 40, 10 * Math.floor((Math.min(0, ...finite) + offsetDb - 3) / 10));
  const y = (db: number) => ((high - db) / (high - low)) * (height - BOTTOM);
  const x = (i: number) => LEFT + ((width - LEFT) * (POINTS - history.length + i)) / POINTS;
  context.font = `11.5px ${getComputedStyle(document.body).fontFamily}`;
  context.fillStyle = colour('soft');
  context.strokeStyle = colour('line-soft');
  context.textAlign = 'right';
  context.textBaseline = 'middle';
  for (let db = low; db <= high; db += 10) {
    context.beginPath();
    context.moveTo(LEFT, y(db));
    context.lineTo(width, y(db));
    context.stroke();
    if (db < high) context.fillText(String(db).replace('-', '\u2212'), LEFT - 6, y(db));
  }
  context.textAlign = 'center';
  for (let s = 0; s <= SHOWN_S; s += 30) {
    const at = LEFT + ((width - LEFT) * (SHOWN_S - s)) / SHOWN_S;
    const text = s === 0 ? 'now' : `\u2212${s} s`;
    context.fillText(text, Math.min(width - 14, Math.max(LEFT + 14, at)), height - 8);
  }
  for (const [key, name] of [
    ['c', 'trace-buoy'],
    ['a', 'trace-kelp'],
  ] as const) {
    context.strokeStyle = colour(name);
    context.lineWidth = 1.6;
    context.beginPath();
    history.forEach((point, i) => {
      const at = Math.max(low, point[key] + offsetDb);
      if (i === 0) context.moveTo(x(i), y(at));
      else context.lineTo(x(i), y(at));
    });
    context.stroke();
  }
}
