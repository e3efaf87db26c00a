import { unpackHarmonics, type HarmonicCurves } from '@pebble-hall/core/measure';
import { useEffect, useState } from 'react';
import { formatDb, formatHz } from '../../charts/chartMath';
import { DataTable } from '../../parts/DataTable';
import { Note } from '../../parts/Note';
import { sweepOf } from '@pebble-hall/core/project';
import { ResponseChart, type ChartTrace } from '../../charts/ResponseChart';
import { repository } from '../../store';
import { distortionLines, MUCH_DB, percentOf, worstDistortion } from './harmonicLines';
import type { LookProps } from './lookProps';

const COLOURS = ['trace-buoy', 'trace-mussel', 'trace-gorse', 'trace-heather'];
/** Frequencies at which the table reads the curves. */
const ROWS_HZ = [31.5, 63, 125, 250, 500, 1000, 2000, 4000];

/** How much does the loudspeaker add to what it is given, at each frequency? */
export default function DistortionView({ project, channels, roundId, spotId }: LookProps) {
  const channel = channels[0]!;
  const sweep = sweepOf(project, spotId, channel.id, 'as found', roundId);
  const band = sweep?.verdict.band ?? { from: 20, to: 20000 };
  const curves = useHarmonics(sweep?.harmonicsId ?? null);
  const lines = curves && curves !== 'reading' ? distortionLines(curves, band) : curves;
  if (sweep?.harmonicsId && lines === 'reading') return <p className="quiet">Opening …</p>;
  if (!sweep || !lines || lines === 'reading') {
    return (
      <div className="look">
        <div className="plot">
          <p className="quiet" style={{ padding: 20 }}>
            {sweep
              ? 'This sweep was stored before harmonics were kept. Repeat it to see them.'
              : `${channel.name} was not taken at this spot.`}
          </p>
        </div>
      </div>
    );
  }
  const traces: ChartTrace[] = [
    { id: 'noise', label: 'noise floor', role: 'noise', colour: 'trace-slate', levels: lines.noiseDb },
    ...lines.orders.map(({ order, levelDb }, i): ChartTrace => ({
      id: `order ${order}`,
      label: `harmonic ${order}`,
      role: 'reference',
      colour: COLOURS[i % COLOURS.length]!,
      levels: levelDb,
    })),
    { id: 'total', label: 'total', role: 'measured', colour: 'trace-campion', levels: lines.totalDb },
  ];
  const worst = worstDistortion(lines, band);
  const at = (hz: number) =>
    lines.frequency.reduce(
      (best, f, i) =>
        Math.abs(Math.log(f / hz)) < Math.abs(Math.log(lines.frequency[best]! / hz)) ? i : best,
      0,
    );
  const db = (v: number | undefined) =>
    v === undefined || !Number.isFinite(v) ? '' : v.toFixed(1).replace('-', '\u2212');
  return (
    <div className="look">
      <div className="plot">
        <ResponseChart
          label={`Distortion of ${channel.name}`}
          title={`${channel.name}, distortion`}
          frequency={lines.frequency}
          traces={traces}
          range={{ lowDb: -100, highDb: 0 }}
          levelLabel="dB re the fundamental, over the frequency played"
          format={(v) => `${formatDb(v)}, ${percentOf(v)}`}
          marks={worst ? [{ number: 1, frequency: worst.frequency, levelDb: worst.totalDb }] : []}
        />
      </div>
      <section className="card notes" aria-label="What the plot says">
        <h2>What the plot says</h2>
        {worst ? (
          <Note number={1} attention={worst.totalDb > MUCH_DB}>
            Most at {formatHz(worst.frequency)}: {percentOf(worst.totalDb)} ({formatDb(worst.totalDb)}), above
            all the {worst.order} harmonic
            {worst.totalDb > MUCH_DB ? '. Less level, or a crossover above it, would help' : ''}.
          </Note>
        ) : (
          <Note number={1}>
            No harmonic stands clearly above the noise; a louder sweep would show smaller ones.
          </Note>
        )}
        <Note number={2} small="Harmonics split off the sweep (Farina 2000), 1/6 octave.">
          At {String(sweep.levelDbfs).replace('-', '\u2212')} dBFS; distortion grows with level.
        </Note>
      </section>
      <div style={{ gridColumn: '1 / 3', minHeight: 0, maxHeight: 190, display: 'grid' }}>
        <DataTable
          data={{
            title: `Distortion of ${channel.name}, dB`,
            columns: ['Played', 'Total', ...lines.orders.map((o) => `Harmonic ${o.order}`), 'Noise floor'],
            rows: ROWS_HZ.filter((hz) => Number.isFinite(lines.totalDb[at(hz)])).map((hz) => [
              formatHz(hz),
              db(lines.totalDb[at(hz)]),
              ...lines.orders.map((o) => db(o.levelDb[at(hz)])),
              db(lines.noiseDb[at(hz)]),
            ]),
          }}
          note="1/6 octave, re the fundamental"
        />
      </div>
    </div>
  );
}

/** The stored curves of a sweep; null where there are none. */
function useHarmonics(id: string | null): HarmonicCurves | null | 'reading' {
  const [read, setRead] = useState<{ id: string; curves: HarmonicCurves | null } | null>(null);
  useEffect(() => {
    if (!id) return;
    let current = true;
    const none = () => current && setRead({ id, curves: null });
    repository()
      .array(id)
      .then((array) => {
        if (current) setRead({ id, curves: array ? unpackHarmonics(array.samples) : null });
      }, none);
    return () => {
      current = false;
    };
  }, [id]);
  if (!id) return null;
  return read?.id === id ? read.curves : 'reading';
}
