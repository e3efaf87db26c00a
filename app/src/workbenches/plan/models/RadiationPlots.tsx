import { SegmentedControl, Slider } from '@mantine/core';
import type { RadiationView } from '@pebble-hall/core/coverage';
import { lazy, Suspense, useState } from 'react';
import { formatHz } from '../../../charts/chartMath';
import { ResponseChart } from '../../../charts/ResponseChart';
import { drawsInThree } from '../../../parts/scene/drawsInThree';
import { NOMINAL } from '../map/mapSettings';
import { PolarPlot } from '../../../parts/pattern/PolarPlot';

// what draws it is large, and seldom looked at
const BalloonScene = lazy(() => import('./BalloonScene'));

const KHZ = NOMINAL.indexOf(1000);
const degrees = (v: number) => `${Math.round(v)}°`;

interface RadiationPlotsProps {
  view: RadiationView;
  /** added to the response on its axis, dB */
  axisByDb?: number;
  /** the loudest that is shown of the response on its axis */
  largestDb: number;
}

/** How a loudspeaker radiates: in two planes or all about at a frequency, its beamwidth and directivity over all, its response on axis. */
export function RadiationPlots({ view, axisByDb = 0, largestDb }: RadiationPlotsProps) {
  const [nth, setNth] = useState(KHZ);
  const [look, setLook] = useState<'polars' | 'balloon'>('polars');
  const [draws] = useState(drawsInThree);
  return (
    <div style={{ display: 'grid', gridTemplateColumns: '320px minmax(0, 1fr)', gap: 20 }}>
      <div style={{ display: 'grid', gap: 6, alignContent: 'start' }}>
        <SegmentedControl
          aria-label="Looked at as"
          size="xs"
          data={[
            { value: 'polars', label: 'Two planes' },
            { value: 'balloon', label: 'All about, in 3D', disabled: !draws },
          ]}
          value={look}
          onChange={(v) => setLook(v as typeof look)}
        />
        <div style={{ height: 296 }}>
          {look === 'balloon' ? (
            <Suspense fallback={<p className="quiet">Making the balloon …</p>}>
              <BalloonScene label={`Balloon at ${formatHz(NOMINAL[nth]!)}`} levels={view.balloons[nth]!} />
            </Suspense>
          ) : (
            <PolarPlot
              label={`Polar at ${formatHz(NOMINAL[nth]!)}`}
              curves={[
                { name: 'horizontal', colour: 'var(--trace-kelp)', db: view.polars.horizontal[nth]! },
                { name: 'vertical', colour: 'var(--trace-buoy)', db: view.polars.vertical[nth]! },
              ]}
            />
          )}
        </div>
        <Slider
          thumbLabel="Frequency of the polar"
          min={0}
          max={NOMINAL.length - 1}
          step={1}
          label={null}
          value={nth}
          onChange={setNth}
        />
        <div className="row" aria-label="Figures of the polar" role="group">
          {Number.isNaN(view.indexDb[nth]!) ? (
            <span>{formatHz(NOMINAL[nth]!)}: not in its data; the nearest that is there is drawn.</span>
          ) : (
            <>
              <span>
                {formatHz(NOMINAL[nth]!)}: 6 dB down over <b>{degrees(view.beamwidthDeg.horizontal[nth]!)}</b>{' '}
                across, <b>{degrees(view.beamwidthDeg.vertical[nth]!)}</b> upright
              </span>
              <b className="mono" style={{ whiteSpace: 'nowrap' }}>
                DI {view.indexDb[nth]!.toFixed(1)} dB
              </b>
            </>
          )}
        </div>
      </div>
      <div style={{ display: 'grid', gridTemplateRows: '138px 130px 130px', gap: 8 }}>
        <OverFrequency
          label="Beamwidth over frequency"
          view={view}
          curves={[
            ['beamwidth across', 'trace-kelp', view.beamwidthDeg.horizontal],
            ['upright', 'trace-buoy', view.beamwidthDeg.vertical],
          ]}
          range={[0, 360]}
          unit="degrees"
          format={degrees}
        />
        <OverFrequency
          label="Directivity index over frequency"
          view={view}
          curves={[['directivity index', 'trace-mussel', view.indexDb]]}
          range={[0, 36]}
          unit="dB"
        />
        <OverFrequency
          label="Response on axis over frequency"
          view={view}
          curves={[
            [
              'on its axis at 1 m, sine of full scale',
              'trace-kelp',
              view.axisDb.map((v) => (Number.isFinite(v) ? v + axisByDb : NaN)),
            ],
          ]}
          range={[largestDb - 46, largestDb + 4]}
          unit="dB SPL"
        />
      </div>
    </div>
  );
}

/** One figure of a loudspeaker over frequency. */
function OverFrequency({
  label,
  view,
  curves,
  range: [lowDb, highDb],
  unit,
  format,
}: {
  label: string;
  view: RadiationView;
  curves: [name: string, colour: string, values: Float64Array][];
  range: [low: number, high: number];
  unit: string;
  format?: (value: number) => string;
}) {
  return (
    <div className="plot" style={{ minHeight: 0 }}>
      <ResponseChart
        label={label}
        frequency={view.frequency}
        traces={curves.map(([name, colour, levels]) => ({
          id: name,
          label: name,
          role: 'predicted',
          colour,
          levels,
        }))}
        range={{ lowDb, highDb }}
        levelLabel={unit}
        absolute
        {...(format ? { format } : {})}
      />
    </div>
  );
}
