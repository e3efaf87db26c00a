import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { axisHz } from '../../charts/chartMath';
import { heatColour } from '../../charts/heatColour';
import type { Watched } from '../../services/recordSweep';
import { Listening, ROWS, rowOfFrequency, frequencyOfRow, type HeardMoment } from './listening';

const LEFT = 44;
const RIGHT = 54;
const BOTTOM = 16;
/** The picture spans this many dB below its loudest. */
const DEPTH_DB = 56;
const LINES_HZ = [50, 100, 500, 1000, 5000, 10000];

interface Take {
  watched: Watched;
  listening: Listening;
  moments: HeardMoment[];
}

/** What the microphone hears while a sweep runs: a spectrogram, the sweep as it is expected over it, and the level. */
export function WatchPanel({
  watch,
  channel,
}: {
  /** tells what is heard until what it returns is called */
  watch: (watcher: (watched: Watched) => void) => () => void;
  channel: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const take = useRef<Take | null>(null);
  const [levelDb, setLevelDb] = useState<number | null>(null);
  const scheme = useComputedColorScheme('light');

  useEffect(() => {
    const draw = () => paint(canvas.current, take.current, scheme === 'dark');
    const unwatch = watch((watched) => {
      if (watched.fromFrame === 0 || !take.current)
        take.current = { watched, listening: new Listening(watched.rate), moments: [] };
      const fresh = take.current.listening.hear(watched.samples);
      take.current.moments.push(...fresh);
      const loudest = Math.max(...fresh.map((m) => m.levelDb));
      if (Number.isFinite(loudest)) setLevelDb(loudest);
      requestAnimationFrame(draw);
    });
    draw();
    const observer = new ResizeObserver(draw);
    observer.observe(canvas.current!);
    return () => {
      unwatch();
      observer.disconnect();
    };
  }, [watch, scheme]);

  return (
    <section
      className="plot"
      aria-label="What the microphone hears"
      style={{ display: 'grid', gridTemplateRows: '24px minmax(0, 1fr)' }}
    >
      <div className="row" style={{ padding: '3px 12px 0', fontSize: 12.5 }}>
        <span>
          <b style={{ color: 'var(--ink)' }}>{channel}</b> at the microphone; dashed: the sweep as it is
          played
        </span>
        <output className="mono" aria-label="Level at the microphone">
          {levelDb === null ? '' : `loudest ${levelDb.toFixed(0).replace('-', '\u2212')} dBFS`}
        </output>
      </div>
      <canvas
        ref={canvas}
        role="img"
        aria-label="Spectrogram of the microphone against the sweep"
        style={{ width: '100%', height: '100%', display: 'block', minHeight: 0 }}
      />
    </section>
  );
}

function paint(canvas: HTMLCanvasElement | null, take: Take | null, dark: boolean): void {
  if (!canvas) return;
  const { clientWidth: width, clientHeight: height } = canvas;
  if (width < 80 || height < 40) return;
  [canvas.width, canvas.height] = [width, height];
  const context = canvas.getContext('2d')!;
  const style = getComputedStyle(canvas);
  const colour = (name: string) => style.getPropertyValue(name);
  const [w, h] = [width - LEFT - RIGHT, height - BOTTOM - 4];
  const y = (hz: number) => 4 + h * (1 - rowOfFrequency(hz) / ROWS);
  context.font = '11px "Atkinson Hyperlegible Mono Variable", monospace';
  context.fillStyle = colour('--soft');
  context.textAlign = 'right';
  for (const hz of LINES_HZ) context.fillText(axisHz(hz), LEFT - 5, y(hz) + 4);
  if (!take) return;
  const { watched, moments } = take;
  const seconds = watched.lengthFrames / watched.rate;
  const x = (s: number) => LEFT + (w * s) / seconds;
  let most = -60;
  for (const { rowsDb } of moments) for (const db of rowsDb) most = Math.max(most, db);
  moments.forEach((m, i) => {
    const from = x(m.fromFrame / watched.rate);
    const to = x((moments[i + 1]?.fromFrame ?? m.fromFrame + 2048) / watched.rate);
    for (let row = 0; row < ROWS; row++) {
      const [r, g, b] = heatColour(1 + (m.rowsDb[row]! - most) / DEPTH_DB, dark);
      context.fillStyle = `rgb(${r},${g},${b})`;
      context.fillRect(from, 4 + h * (1 - (row + 1) / ROWS), to - from + 0.6, h / ROWS + 0.6);
    }
  });
  const { atFrame, from, to, durationS } = watched.sweep;
  const startS = atFrame / watched.rate;
  context.strokeStyle = colour('--ink');
  context.setLineDash([5, 4]);
  context.lineWidth = 1.2;
  context.beginPath();
  for (let i = 0; i <= 100; i++) {
    const f = from * (to / from) ** (i / 100);
    // its beginning lies below the axis
    if (f >= frequencyOfRow(0)) context.lineTo(x(startS + (durationS * i) / 100), y(f));
  }
  context.stroke();
  context.setLineDash([]);
  // level over time, along the right edge's scale: -90 dBFS below, full scale above
  const levelY = (db: number) => 4 + h * Math.min(1, Math.max(0, -db / 90));
  context.strokeStyle = colour('--trace-mussel');
  context.lineWidth = 1.6;
  context.beginPath();
  for (const m of moments) context.lineTo(x((m.fromFrame + 1024) / watched.rate), levelY(m.levelDb));
  context.stroke();
  context.fillStyle = colour('--trace-mussel');
  context.textAlign = 'left';
  for (const db of [0, -30, -60, -90])
    context.fillText(
      `${String(db).replace('-', '\u2212')}${db === 0 ? ' dBFS' : ''}`,
      LEFT + w + 5,
      levelY(db) + (db === 0 ? 8 : 4),
    );
  context.fillStyle = colour('--soft');
  context.textAlign = 'center';
  for (let s = 0; s <= seconds; s++) context.fillText(`${s} s`, x(s), height - 4);
}
