import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { heatColour } from './heatColour';
import { axisHz, frequencyTicks, FULL_BAND } from './chartMath';

export interface SpectrogramProps {
  label: string;
  /** the column of this moment, with the frequencies of its bands; null while there is none */
  column: () => { frequency: Float64Array; levelDb: Float64Array } | null;
  subscribe: (tell: () => void) => () => void;
  range: { lowDb: number; highDb: number };
}

/** So many moments are shown, one for each time that the stream tells. */
const COLUMNS = 700;
const ROWS = 120;

/** Levels over frequency and time, the newest at the right: drawn on by a stream. */
export function Spectrogram({ label, column, subscribe, range }: SpectrogramProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const latest = useRef(range);
  const scheme = useComputedColorScheme('light');
  const dark = useRef(scheme === 'dark');
  useEffect(() => {
    latest.current = range;
    dark.current = scheme === 'dark';
  });
  const [isEmpty, setEmpty] = useState(true);
  useEffect(() => {
    const element = canvas.current!;
    element.width = COLUMNS;
    element.height = ROWS;
    const context = element.getContext('2d', { willReadFrequently: true })!;
    const image = context.createImageData(1, ROWS);
    const octaves = Math.log(FULL_BAND.toHz / FULL_BAND.fromHz);
    return subscribe(() => {
      const now = column();
      if (!now) return;
      setEmpty(false);
      const { lowDb, highDb } = latest.current;
      for (let row = 0, band = now.frequency.length - 1; row < ROWS; row++) {
        const hz = FULL_BAND.toHz * Math.exp((-octaves * (row + 0.5)) / ROWS);
        while (
          band > 0 &&
          Math.abs(Math.log(now.frequency[band - 1]! / hz)) < Math.abs(Math.log(now.frequency[band]! / hz))
        )
          band--;
        const share = (now.levelDb[band]! - lowDb) / (highDb - lowDb);
        const [r, g, b] = heatColour(Number.isFinite(share) ? share : 0, dark.current);
        image.data.set([r, g, b, 255], 4 * row);
      }
      context.drawImage(element, -1, 0);
      context.putImageData(image, COLUMNS - 1, 0);
    });
  }, [column, subscribe]);
  const { labels } = frequencyTicks(FULL_BAND.fromHz, FULL_BAND.toHz);
  const at = (hz: number) =>
    100 * (1 - Math.log(hz / FULL_BAND.fromHz) / Math.log(FULL_BAND.toHz / FULL_BAND.fromHz));
  return (
    <div role="img" aria-label={label} style={{ position: 'absolute', inset: '6px 22px 10px 60px' }}>
      <canvas
        ref={canvas}
        style={{ width: '100%', height: '100%', imageRendering: 'pixelated', opacity: isEmpty ? 0 : 1 }}
        aria-hidden="true"
      />
      {labels
        .filter((_, i) => i % 2 === 0)
        .map((hz) => (
          <span
            key={hz}
            className="quiet mono"
            style={{
              position: 'absolute',
              right: 'calc(100% + 6px)',
              top: `calc(${at(hz)}% - 8px)`,
              fontSize: 11,
            }}
          >
            {axisHz(hz)}
          </span>
        ))}
    </div>
  );
}
