import type { DecayMap } from '@pebble-hall/core/views';
import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { useSize } from '../../charts/useSize';
import { axisHz, formatHz, frequencyTicks, ticksOf } from '../../charts/chartMath';
import { heatColour } from '../../charts/heatColour';
import { SAVED_SIZE, type SavedPlot } from '../../charts/plotSvg';
import { SavePlotMenu } from '../../charts/SavePlotMenu';

const LEFT = 62;
const BOTTOM = 28;
const TOP = 10;
const RIGHT = 70;
/** What is this far down is not drawn. */
const DEPTH_DB = 50;

/** Energy over frequency (across) and time (downwards: the later, the lower), loud to soft by lightness. */
export function DecayMapPlot({ map, label }: { map: DecayMap; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(canvas);
  const [pointed, setPointed] = useState<{ f: number; ms: number; db: number } | null>(null);
  const scheme = useComputedColorScheme('light');
  const { frequency, timeS, levelDb } = map;
  const steps = timeS.length;
  const [fromHz, toHz] = edgesOf(map);
  const lastMs = 1000 * timeS[steps - 1]!;
  const [w, h] = [size.width - LEFT - RIGHT, size.height - TOP - BOTTOM];
  const x = (f: number) => LEFT + (w * Math.log(f / fromHz)) / Math.log(toHz / fromHz);
  const y = (ms: number) => TOP + (h * ms) / lastMs;

  useEffect(() => {
    const element = canvas.current!;
    if (w < 40 || h < 40) return;
    [element.width, element.height] = [size.width, size.height];
    const context = element.getContext('2d')!;
    const image = heatPicture(context, map, Math.floor(w), Math.floor(h), scheme === 'dark');
    context.putImageData(image, LEFT, TOP);
  }, [map, size, scheme, w, h]);

  const { labels } = frequencyTicks(fromHz, toHz);
  const times = ticksOf(0, lastMs);
  return (
    <div
      role="figure"
      aria-label={label}
      style={{ position: 'absolute', inset: 0 }}
      onPointerLeave={() => setPointed(null)}
      onPointerMove={(event) => {
        const rect = event.currentTarget.getBoundingClientRect();
        const f = fromHz * (toHz / fromHz) ** ((event.clientX - rect.left - LEFT) / w);
        const ms = ((event.clientY - rect.top - TOP) / h) * lastMs;
        if (f < fromHz || f > toHz || ms < 0 || ms > lastMs) return setPointed(null);
        let row = 0;
        frequency.forEach((v, i) => {
          if (Math.abs(Math.log(v / f)) < Math.abs(Math.log(frequency[row]! / f))) row = i;
        });
        const step = Math.round((ms / lastMs) * (steps - 1));
        setPointed({ f: frequency[row]!, ms, db: levelDb[row * steps + step]! });
      }}
    >
      <canvas
        ref={canvas}
        aria-hidden="true"
        style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }}
      />
      <svg
        width={size.width}
        height={size.height}
        style={{ position: 'absolute', inset: 0, fontSize: 11.5, fill: 'var(--soft)' }}
      >
        {labels.map((f) => (
          <text key={f} x={x(f)} y={TOP + h + 17} textAnchor="middle">
            {axisHz(f)}
          </text>
        ))}
        {times.map((ms) => (
          <text key={ms} x={LEFT - 7} y={y(ms) + 4} textAnchor="end">
            {ms} ms
          </text>
        ))}
        {Array.from({ length: 6 }, (_, i) => {
          const [r, g, b] = heatColour(1 - i / 5, scheme === 'dark');
          return (
            <g key={i}>
              <rect
                x={size.width - RIGHT + 12}
                y={TOP + 16 * i}
                width={14}
                height={16}
                fill={`rgb(${r},${g},${b})`}
              />
              <text x={size.width - RIGHT + 31} y={TOP + 16 * i + 12}>
                {i === 0 ? '0 dB' : `\u2212${(DEPTH_DB * i) / 5}`}
              </text>
            </g>
          );
        })}
      </svg>
      <div style={{ position: 'absolute', right: 8, top: TOP + 110 }}>
        <SavePlotMenu plot={() => savedMap(map, label)} />
      </div>
      <output className="mono" style={{ position: 'absolute', right: 12, bottom: 4, fontSize: 12.5 }}>
        {pointed
          ? `${formatHz(pointed.f)}, ${pointed.ms.toFixed(0)} ms, ${pointed.db.toFixed(0).replace('-', '\u2212')} dB`
          : ''}
      </output>
    </div>
  );
}

/** Frequencies at the left and the right edge. */
const edgesOf = ({ frequency }: DecayMap) => [frequency[0]! / 1.06, frequency.at(-1)! * 1.06] as const;

/** The map as pixels: frequency across, time downwards. */
function heatPicture(
  context: CanvasRenderingContext2D,
  map: DecayMap,
  width: number,
  height: number,
  dark: boolean,
): ImageData {
  const { frequency, timeS, levelDb } = map;
  const steps = timeS.length;
  const [fromHz, toHz] = edgesOf(map);
  const image = context.createImageData(width, height);
  for (let px = 0; px < width; px++) {
    const f = fromHz * (toHz / fromHz) ** (px / width);
    const exact = Math.max(
      0,
      Math.min(frequency.length - 1.001, (Math.log2(f / frequency[0]!) / 0.9966) * 6),
    );
    const row = Math.floor(exact);
    const t = exact - row;
    for (let py = 0; py < height; py++) {
      const step = Math.min(steps - 1, Math.round((py / height) * (steps - 1)));
      const level = (1 - t) * levelDb[row * steps + step]! + t * levelDb[(row + 1) * steps + step]!;
      const [r, g, b] = heatColour(1 + level / DEPTH_DB, dark);
      image.data.set([r, g, b, 255], 4 * (py * width + px));
    }
  }
  return image;
}

/** The map as it is saved, in the colours of the light theme. */
function savedMap(map: DecayMap, label: string): SavedPlot {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [SAVED_SIZE.width, SAVED_SIZE.height];
  const context = canvas.getContext('2d')!;
  context.putImageData(heatPicture(context, map, canvas.width, canvas.height, false), 0, 0);
  const [fromHz, toHz] = edgesOf(map);
  const lastMs = 1000 * map.timeS.at(-1)!;
  const date = new Date().toLocaleDateString(undefined, { dateStyle: 'medium' });
  return {
    title: label,
    subtitle: `${date}, 1/6 octave`,
    x: {
      from: fromHz,
      to: toHz,
      log: true,
      label: 'Hz',
      ticks: frequencyTicks(fromHz, toHz).labels.map((at) => ({ at, text: axisHz(at) })),
    },
    y: {
      from: lastMs,
      to: 0,
      log: false,
      label: 'ms after the arrival',
      ticks: ticksOf(0, lastMs).map((at) => ({ at, text: String(at) })),
    },
    lines: Array.from({ length: 6 }, (_, i) => {
      const [r, g, b] = heatColour(1 - i / 5, false);
      return {
        label: i === 0 ? '0 dB' : `\u2212${(DEPTH_DB * i) / 5} dB`,
        colour: `rgb(${r},${g},${b})`,
        dash: '',
        x: [],
        y: [],
      };
    }),
    picture: canvas.toDataURL('image/png'),
  };
}
