import { Button } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { OCTAVES } from '@pebble-hall/core/room';
import { timesTheRays } from '@pebble-hall/core/runs';
import { BIN_S } from '@pebble-hall/core/tracing';
import { OverTime } from '../../charts/OverTime';
import { Note } from '../../parts/Note';
import { NumberField } from '../../parts/NumberField';
import { useKeys } from '../../parts/useKeys';
import { useJob } from '../../services/useJob';
import { isIndex, useKept } from '../../services/useKept';
import {
  byWavesWords,
  errorInNoticeable,
  JUDGED,
  leastSure,
  octaveText,
  RUN_FIGURES,
  TRUSTED,
  trustRunSentence,
  type RunFigure,
} from '../../words/runWords';
import { moreRays } from './changeRuns';
import { Halves } from './Halves';
import { RunNotes, RunWaits } from './RunFrame';
import { useHeld, useReceiver, type Runs } from './useRuns';

/** Reflections per millisecond, as powers of ten from here to there. */
const [LEAST, MOST] = [0.1, 10_000];
const USUAL_PER_MS = 50;
const powers = (values: Float64Array) => values.map((v) => Math.log10(Math.max(v, LEAST)));

/** Can it be believed? How sure each figure is, how dense reflections are, what was lost. */
export function TrustView({ project, runs }: { project: Project; runs: Runs }) {
  const { shown } = runs;
  const { asked, names, index, step } = useReceiver(runs);
  const [perMs, setPerMs] = useKept('room-model density', USUAL_PER_MS, isIndex);
  const read = useJob('rays.read', asked);
  const held = useHeld(read.value, runs);
  const here = useJob('rays.receiver', asked && { ...asked, index, wantedPerMs: perMs });
  useKeys({ n: () => step(1), b: () => step(-1) });
  if (!shown || !asked || !held) return <RunWaits runs={runs} problem={read.problem} share={read.share} />;
  const { receivers: readings, balance } = held;
  const sure = trustRunSentence(readings, names, timesTheRays);
  const worst = leastSure(readings);
  const times = worst ? Math.min(16, timesTheRays(worst.error)) : 1;
  const density = here.value?.density;
  const lost = Math.max(...balance.escaped.map((v, o) => v + balance.cut[o]!));
  const bytes =
    4 * 17 * names.length * Math.ceil(shown.lengthS / BIN_S) * shown.sources.length * asked.groups.length;
  const rows: { figure: RunFigure; cells: { text: string; error: number }[] }[] = JUDGED.map((figure) => ({
    figure,
    cells: (RUN_FIGURES[figure].mean ? [...OCTAVES.keys()] : ['mean' as const]).map((o) => {
      const error = errorInNoticeable(readings[index]!, figure, o);
      return { error, text: Number.isFinite(error) ? error.toFixed(1) : '–' };
    }),
  }));
  return (
    <>
      <Halves right={1.2}>
        <div className="plot">
          {density ? (
            <OverTime
              label={`Reflections per ms at ${names[index]!}`}
              unit="reflections in each ms, to powers of ten"
              stepS={BIN_S}
              low={Math.log10(LEAST)}
              high={Math.log10(MOST)}
              ticks={[
                ...[-1, 0, 1, 2, 3, 4].map((at) => ({ at, text: at < 0 ? '0.1' : String(10 ** at) })),
                { at: Math.log10(perMs), text: `${perMs}: dense enough`, isWarning: true },
              ]}
              mark={
                density.denseFromS === null
                  ? null
                  : { atS: density.denseFromS, text: `from ${(1000 * density.denseFromS).toFixed(0)} ms` }
              }
              curves={[
                { label: 'the model', colour: 'trace-kelp', values: powers(density.perMs) },
                {
                  label: 'what the volume asks for',
                  colour: 'trace-slate',
                  values: powers(density.askedPerMs),
                  dashed: true,
                },
              ]}
            />
          ) : (
            <p className="quiet" role="status" style={{ padding: 20 }}>
              {here.problem ?? 'Counting reflections …'}
            </p>
          )}
        </div>
        <div className="plot" style={{ overflow: 'auto', padding: '12px 16px' }}>
          <table className="figures" style={{ fontSize: 12 }} aria-label={`Errors at ${names[index]!}`}>
            <caption style={{ textAlign: 'left', paddingBottom: 8 }} className="quiet">
              {`Standard errors at ${names[index]!}, in just-noticeable differences (ISO 3382-1, IEC 60268-16)`}
            </caption>
            <thead>
              <tr>
                <th scope="col">Figure</th>
                {OCTAVES.map((_, o) => (
                  <th key={o} scope="col">
                    {octaveText(o)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(({ figure, cells }) => (
                <tr key={figure}>
                  <th scope="row">{RUN_FIGURES[figure].short}</th>
                  {cells.map(({ text, error }, i) => (
                    <td
                      key={i}
                      className="mono"
                      colSpan={cells.length === 1 ? OCTAVES.length : 1}
                      style={{
                        color: error > TRUSTED ? 'var(--buoy-text, var(--buoy))' : undefined,
                        fontWeight: error > TRUSTED ? 700 : undefined,
                      }}
                    >
                      {text}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </Halves>
      <aside className="notes" aria-label="What it says">
        <h2>
          Can it be believed?<small>keys n, b: seats</small>
        </h2>
        <Note
          number={1}
          attention={sure.attention}
          small={`By leaving out each of ${Math.min(10, asked.groups.length)} independent parts of the rays in turn`}
        >
          {sure.text}
        </Note>
        <Note number={2}>
          {density?.denseFromS === null
            ? `There are never ${perMs} reflections per ms here: its late part is not dense enough.`
            : density
              ? `From ${(1000 * density.denseFromS).toFixed(0)} ms on there are ${perMs} reflections per ms or more: the late part is dense enough.`
              : ''}
        </Note>
        <Note number={3} attention={lost > 0.001 || balance.leaks > 0}>
          {balance.leaks > 0
            ? `${balance.leaks.toLocaleString('en')} of ${balance.rays.toLocaleString('en')} rays got out of the room: it has a gap.`
            : `No ray got out; ${(100 * lost).toPrecision(1)} % of the energy was not followed to its end.`}
        </Note>
        <Note number={4} small={byWavesWords(held.byWaves)}>
          Rays know no waves: below the frequency that How long does it ring? tells, single modes count. What
          leans on few faces, bends around edges or passes through walls is not in it.
        </Note>
        <RunNotes project={project} runs={runs} from={5} />
      </aside>
      <div
        className="shore"
        style={{ gridColumn: '1 / 3', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', height: 118 }}
      >
        <section className="card" aria-label="Rays">
          <h2>
            Rays
            <small>{`${balance.rays.toLocaleString('en')} in ${asked.groups.length} groups, seed ${shown.seed}`}</small>
          </h2>
          <div className="row">
            <span>{`${(bytes / 1e6).toFixed(1)} MB kept`}</span>
            <Button size="compact-sm" disabled={times < 2} onClick={() => void moreRays(shown, times)}>
              {times < 2 ? 'Enough rays' : `${times} times the rays`}
            </Button>
          </div>
        </section>
        <section className="card" aria-label="Dense enough">
          <h2>Dense enough</h2>
          <div className="row">
            <span>Reflections wanted</span>
            <NumberField
              label="Reflections wanted"
              value={perMs}
              unit="per ms"
              digits={0}
              min={1}
              max={5000}
              step={10}
              onChange={setPerMs}
            />
          </div>
        </section>
        <section className="card" aria-label="How it was made">
          <h2>How it was made</h2>
          <div className="row">
            <span>{`Mirrors up to ${shown.mirrored} faces, rays for the rest`}</span>
            <span className="mono">{`${shown.lengthS.toFixed(1)} s`}</span>
          </div>
          <div className="row">
            <span>{`${shown.air.temperatureC} °C, ${shown.air.relativeHumidityPercent} % humidity`}</span>
            <span className="mono">{`${shown.faces.length} faces`}</span>
          </div>
        </section>
      </div>
    </>
  );
}
