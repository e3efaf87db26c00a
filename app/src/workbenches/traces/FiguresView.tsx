import { speechCategory } from '../../words/speechCategory';
import { FIGURE_OCTAVES } from '@pebble-hall/core/acoustics';
import { useMemo, useState } from 'react';
import { DataTable } from '../../parts/DataTable';
import { Note } from '../../parts/Note';
import { NumberField } from '../../parts/NumberField';
import { usableSpots } from '@pebble-hall/core/project';
import { ResponseChart, type ChartTrace } from '../../charts/ResponseChart';
import { splOffsetDb } from '../../services/theRig';
import { speechAndNoise } from './speechLevels';
import { figureRows, figuresOverSpots, OCTAVE_NAMES, whyMissing } from './figureRows';
import type { LookProps } from './lookProps';
import { viewedRef } from '@pebble-hall/core/jobs';
import { useJob } from '../../services/useJob';

const centres = Float64Array.from(FIGURE_OCTAVES, (b) => b.centre);
/** Raised speech, as it is set at the seats of a hall. */
const SPEECH_DBA = 65;
const seconds = (v: number) => `${v.toFixed(2)} s`;

/** How reverberant and how clear is the room, by the standard's figures? */
export default function FiguresView({ project, channels, roundId }: LookProps) {
  const channel = channels[0]!;
  const sweeps = usableSpots(project, channel.id, roundId).averaged;
  const refs = sweeps.length > 0 ? sweeps.map((s) => viewedRef(s, project)) : null;
  const { value, problem } = useJob('views.figures', refs);
  const [speechDbA, setSpeechDbA] = useState(SPEECH_DBA);
  const offsetDb = splOffsetDb(project);
  const { noise } = project.rig;
  const levels = useMemo(
    () => (noise && offsetDb !== null ? speechAndNoise(noise, speechDbA, offsetDb) : null),
    [noise, speechDbA, offsetDb],
  );
  const { value: speech } = useJob('views.speech', refs && { refs, levels });
  const table = useMemo(() => (value ? figuresOverSpots(value.filter((v) => v !== null)) : null), [value]);
  const traces: ChartTrace[] = table
    ? (
        [
          ['t20', 'T20', 'measured', 'trace-mussel'],
          ['t30', 'T30', 'predicted', 'trace-kelp'],
          ['edt', 'EDT', 'reference', 'trace-buoy'],
        ] as const
      )
        .map(([name, label, role, colour]) => ({
          id: name,
          label,
          role,
          colour,
          levels: Float64Array.from(table[name], (f) => (f.count > 0 ? f.mean : NaN)),
        }))
        .filter((t) => t.levels.some(Number.isFinite))
    : [];
  const top = Math.max(0.4, ...traces.flatMap((t) => [...t.levels].filter(Number.isFinite)));
  const indices = (speech ?? []).filter((s) => s !== null);
  const sti = indices.reduce((a, b) => a + b, 0) / indices.length;
  const middle = table && [3, 4].filter((o) => table.t20[o]!.count > 0);
  const missing = table && whyMissing(table);
  return (
    <div className="look">
      <div className="plot">
        {table ? (
          <ResponseChart
            label={`Reverberation times with ${channel.name}`}
            title={`Reverberation times, ${channel.name}`}
            frequency={centres}
            traces={traces}
            range={{ lowDb: 0, highDb: Math.ceil(top * 5 + 0.5) / 5 }}
            absolute
            levelLabel="s, octaves, mean over the spots"
            format={seconds}
          />
        ) : (
          <p className="quiet" style={{ padding: 20 }}>
            {problem ??
              (sweeps.length > 0
                ? 'Working the figures out …'
                : 'No spot of this channel is in the average.')}
          </p>
        )}
      </div>
      <section className="card notes" aria-label="What the plot says">
        <h2>What the plot says</h2>
        {table && middle && middle.length > 0 ? (
          <Note number={1}>
            Reverberation time{' '}
            {(middle.reduce((a, o) => a + table.t20[o]!.mean, 0) / middle.length).toFixed(2)} s (T20,{' '}
            {middle.map((o) => OCTAVE_NAMES[o]).join(' and ')}), over {sweeps.length}{' '}
            {sweeps.length === 1 ? 'spot' : 'spots'} with {channel.name}.
          </Note>
        ) : null}
        {indices.length > 0 ? (
          <Note
            number={2}
            small={
              levels
                ? 'IEC 60268-16:2011, male speech, with masking and the threshold of hearing'
                : `IEC 60268-16:2011, male speech; without noise, so reverberation alone counts. ${noise ? 'Calibrate the level in Rig for the noise to count.' : 'Measure the noise in Rig, and calibrate its level, for it to count.'}`
            }
          >
            Speech transmission index {sti.toFixed(2)}: {speechCategory(sti)}
            {levels ? ', with the measured noise' : ''}.
          </Note>
        ) : null}
        {levels ? (
          <div className="row" style={{ padding: '0 4px' }}>
            <span>Speech at the seats</span>
            <NumberField
              label="Speech level"
              value={speechDbA}
              unit="dB(A)"
              min={40}
              max={100}
              step={1}
              digits={0}
              onChange={setSpeechDbA}
            />
          </div>
        ) : null}
        {missing ? (
          <Note number={3} attention>
            {missing}
          </Note>
        ) : null}
      </section>
      <div style={{ gridColumn: '1 / 3', display: 'grid', maxHeight: 240, minHeight: 0 }}>
        {table ? <DataTable data={figureRows(table)} note={`ISO 3382-1, ${sweeps.length} spots`} /> : null}
      </div>
    </div>
  );
}
