import { Modal, Slider } from '@mantine/core';
import type { RadiatingModel, RadiationView } from '@pebble-hall/core/coverage';
import { speedOfSound } from '@pebble-hall/core/room';
import { useState } from 'react';
import { formatHz } from '../../../charts/chartMath';
import { ResponseChart } from '../../../charts/ResponseChart';
import { runJob } from '../../../services/jobs';
import { useDerived } from '../../../services/useDerived';
import { NOMINAL } from './mapSettings';
import { PolarPlot } from './PolarPlot';

interface RadiationDialogProps {
  model: RadiatingModel;
  /** the model that was asked for, which may not be in the library */
  asked: string;
  temperatureC: number;
  onClose: () => void;
}

const work = (
  inputs: { model: RadiatingModel; speed: number },
  { signal }: { signal: AbortSignal },
): Promise<RadiationView> => runJob('coverage.radiation', inputs, { signal });

const KHZ = NOMINAL.indexOf(1000);
const degrees = (v: number) => `${Math.round(v)}°`;

/** How a loudspeaker radiates: in two planes at a frequency, its beamwidth and directivity over all, its response on its axis. */
export function RadiationDialog({ model, asked, temperatureC, onClose }: RadiationDialogProps) {
  const [nth, setNth] = useState(KHZ);
  const { value: view, problem } = useDerived({ model, speed: speedOfSound(temperatureC) }, work);
  return (
    <Modal opened onClose={onClose} title={`How ${model.name} radiates`} size={1000} centered>
      {problem ? <p role="alert">{problem}</p> : null}
      <p style={{ margin: '0 0 10px' }} aria-label="What it is">
        {asked === model.name ? '' : `${asked} is not in the library: it is taken as ${model.name}. `}
        {model.about}. {model.sensitivityDb} dB for 2.83 V, {model.largestDb} dB at the most, both at 1 m.{' '}
        <span className="quiet">Worked out from its radiators, not measured.</span>
      </p>
      {view ? (
        <div style={{ display: 'grid', gridTemplateColumns: '360px minmax(0, 1fr)', gap: 20 }}>
          <div style={{ display: 'grid', gap: 6, alignContent: 'start' }}>
            <PolarPlot
              label={`Polar at ${formatHz(NOMINAL[nth]!)}`}
              curves={[
                { name: 'horizontal', colour: 'var(--trace-kelp)', db: view.polars.horizontal[nth]! },
                { name: 'vertical', colour: 'var(--trace-buoy)', db: view.polars.vertical[nth]! },
              ]}
            />
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
              <span>
                {formatHz(NOMINAL[nth]!)}: 6 dB down over <b>{degrees(view.beamwidthDeg.horizontal[nth]!)}</b>{' '}
                across, <b>{degrees(view.beamwidthDeg.vertical[nth]!)}</b> upright
              </span>
              <b className="mono" style={{ whiteSpace: 'nowrap' }}>
                DI {view.indexDb[nth]!.toFixed(1)} dB
              </b>
            </div>
          </div>
          <div style={{ display: 'grid', gridTemplateRows: '160px 150px 150px', gap: 8 }}>
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
              range={[0, 30]}
              unit="dB"
            />
            <OverFrequency
              label="Response on axis over frequency"
              view={view}
              curves={[['on its axis at 1 m, sine of full scale', 'trace-kelp', view.axisDb]]}
              range={[model.largestDb - 46, model.largestDb + 4]}
              unit="dB SPL"
            />
          </div>
        </div>
      ) : problem ? null : (
        <p className="quiet">Working it out …</p>
      )}
    </Modal>
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
