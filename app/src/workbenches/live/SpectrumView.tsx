import { octaveBands } from '@pebble-hall/core/signal';
import { variantOf, type Project } from '@pebble-hall/core/project';
import { memo, useCallback, useEffect, useMemo, useState } from 'react';
import { formatHz } from '../../charts/chartMath';
import { LivePlot } from '../../charts/LivePlot';
import { Spectrogram } from '../../charts/Spectrogram';
import { liveFrames, watchLive, watchSpectra } from '../../services/liveSession';
import type { LiveView } from './liveView';
import { bandEdges, readingOf, spectrumCurves, spectrumRange } from './spectrumCurves';
import { useLiveFrame } from '../../services/useLiveFrame';

interface Props {
  project: Project;
  selected: string;
  view: LiveView;
  /** of the room by itself, in the bands that are shown; null where it is not known */
  noiseDb: Float64Array | null;
  /** dB to add for sound pressure levels; null while that is not known */
  splOffsetDb: number | null;
}

const subscribe = (tell: () => void) => liveFrames.subscribe(tell);
const NONE = new Float64Array(0);

/** Levels by band above, over time below. */
export const SpectrumView = memo(function SpectrumView({
  project,
  selected,
  view,
  noiseDb,
  splOffsetDb,
}: Props) {
  const { live } = project;
  const [cursor, setCursor] = useState<number | null>(null);
  const [range, setRange] = useState({ lowDb: -100, highDb: -20 });
  useEffect(watchLive, []);
  useEffect(watchSpectra, []);
  const slow = useLiveFrame(500);
  const heard = readingOf(slow, live, selected)?.frequency ?? NONE;
  const { bands } = live.spectrum;
  const frequency = useMemo(
    () =>
      bandEdges(
        heard.length > 0 || bands === 'narrow'
          ? heard
          : Float64Array.from(octaveBands(bands, 20, 20_000), (b) => b.centre),
        bands,
      ),
    [heard, bands],
  );
  const offsetDb = splOffsetDb ?? 0;
  const { target } = variantOf(project).correction;
  const curves = useCallback(
    () =>
      spectrumCurves(
        liveFrames.getState().frame,
        { live, view, selected, offsetDb, noiseDb, target },
        frequency.length,
      ),
    [live, view, selected, offsetDb, noiseDb, target, frequency.length],
  );
  useEffect(() => {
    const timer = setInterval(() => {
      const wanted = spectrumRange(curves());
      if (!wanted) return;
      setRange((now) =>
        wanted.highDb > now.highDb || wanted.lowDb < now.lowDb - 10 || wanted.highDb < now.highDb - 15
          ? wanted
          : now,
      );
    }, 1000);
    return () => clearInterval(timer);
  }, [curves]);
  const column = useCallback(() => {
    const reading = readingOf(liveFrames.getState().frame, live, selected);
    return reading && { frequency: reading.frequency, levelDb: reading.fastDb.map((v) => v + offsetDb) };
  }, [live, selected, offsetDb]);
  const { weighting } = live.spectrum;
  const width = bands === 'narrow' ? 'bands of 3 Hz' : bands === 1 ? 'octaves' : `1/${bands} octave`;
  return (
    <div
      className="plot"
      style={{ display: 'grid', gridTemplateRows: 'minmax(0, 1.7fr) 22px minmax(0, 1fr)' }}
    >
      <LivePlot
        label="Spectrum"
        unit="dB"
        caption={`${splOffsetDb === null ? 'level re full scale' : 'sound pressure level'}, weighting ${weighting}, in ${width}`}
        frequency={frequency}
        range={range}
        signed={false}
        curves={curves}
        subscribe={subscribe}
        cursor={cursor}
        onCursor={setCursor}
        tools={<Readout at={cursor} frequency={frequency} curves={curves} />}
      />
      <span className="quiet" style={{ fontSize: 11.5, padding: '3px 0 0 60px' }}>
        over time, the newest at the right, by time weighting Fast
      </span>
      <div style={{ position: 'relative', minHeight: 0 }}>
        <Spectrogram label="Spectrum over time" column={column} subscribe={subscribe} range={range} />
      </div>
    </div>
  );
});

/** The levels at the band that is pointed at: the last is the one that is chosen. */
function Readout({
  at,
  frequency,
  curves,
}: {
  at: number | null;
  frequency: Float64Array;
  curves: () => { colour: string; values: Float64Array }[];
}) {
  useLiveFrame(150);
  const last = at === null ? undefined : curves().at(-1);
  if (at === null || !last) return null;
  const value = last.values[at];
  return (
    <output className="mono" aria-label="Readout" style={{ fontSize: 12, color: `var(--${last.colour})` }}>
      {formatHz(frequency[at]!)} {value !== undefined && Number.isFinite(value) ? value.toFixed(1) : '–'} dB
    </output>
  );
}
