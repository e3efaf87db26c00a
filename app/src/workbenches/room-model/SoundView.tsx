import { NativeSelect, SegmentedControl } from '@mantine/core';
import { FIGURES, type FigureName } from '@pebble-hall/core/acoustics';
import type { Project } from '@pebble-hall/core/project';
import { distanceBetween } from '@pebble-hall/core/geometry';
import { OCTAVES } from '@pebble-hall/core/room';
import { timesTheRays, type RunSource } from '@pebble-hall/core/runs';
import { BIN_S } from '@pebble-hall/core/tracing';
import { useState } from 'react';
import { OverTime } from '../../charts/OverTime';
import { ResponseChart } from '../../charts/ResponseChart';
import { Note } from '../../parts/Note';
import { TableMenu } from '../../parts/TableMenu';
import { unitM } from '../../drawing';
import { useKeys } from '../../parts/useKeys';
import { useJob } from '../../services/useJob';
import { isIndex, isOneOf, useKept } from '../../services/useKept';
import {
  bandText,
  byWavesWords,
  bothEarsSentence,
  errorInNoticeable,
  errorOf,
  figureOf,
  evennessSentence,
  figureText,
  hasOctaves,
  justNoticed,
  lowsSentence,
  octaveText,
  RUN_FIGURE_KEYS,
  RUN_FIGURES,
  spreadOf,
  trustRunSentence,
  understoodWord,
  type RunBand,
  type RunFigure,
} from '../../words/runWords';
import { figuresTable } from './figuresTable';
import { Halves } from './Halves';
import { DistancePlot } from './DistancePlot';
import { expectedOver } from './expectedOver';
import { ListenCard } from './ListenCard';
import { LowsPlot } from './LowsPlot';
import { ReceiverPlan } from './ReceiverPlan';
import { rangeAround } from './rangeAround';
import { RunNotes, RunWaits } from './RunFrame';
import { playsFrom } from './sweptMost';
import { useMeasuredFigures } from './useMeasuredTimes';
import { useDirect } from './useDirect';
import { useHeld, useReceiver, type Runs } from './useRuns';
import { WhereCard } from './WhereCard';

/** 500 Hz and 1 kHz. */
const MIDDLE = [3, 4];
const SEEN = ['over octaves', 'decay', 'energy', 'distance', 'lows'] as const;
/** What shows a receiver's energy over time. */
const isOverTime = (seen: (typeof SEEN)[number]) => seen === 'decay' || seen === 'energy';
const CENTRES = Float64Array.from(OCTAVES);
/** Reflections per ms that are wanted; only Can it be believed? shows them. */
const WANTED_PER_MS = 50;
/** Decays are looked at down to this, dB. */
const DEPTH_DB = -60;
const COLOURS = ['trace-kelp', 'trace-mussel'] as const;

/** How does it sound here? Figures at each receiver, over octaves and over the seats, with how sure they are. */
export function SoundView({ project, runs }: { project: Project; runs: Runs }) {
  const { place } = project;
  const { shown, beside } = runs;
  const { asked, askedBeside, names, index, besideIndex, setReceiver, step } = useReceiver(runs);
  const [figure, setFigure] = useKept<RunFigure>('room-model figure', 'sti', isOneOf(RUN_FIGURE_KEYS));
  const [band, setBand] = useKept<RunBand>(
    'room-model band',
    'mean',
    (v): v is RunBand => v === 'mean' || (isIndex(v) && v < OCTAVES.length),
  );
  const [seen, setSeen] = useKept<(typeof SEEN)[number]>('room-model seen', SEEN[0], isOneOf(SEEN));
  const read = useJob('rays.read', asked);
  const [askedSource, setSource] = useState(0);
  const sourceAt = Math.min(askedSource, (shown?.sources.length ?? 1) - 1);
  const direct = useDirect(place, figure === 'direct' ? asked : null, sourceAt);
  const held = useHeld(read.value, runs);
  const readBeside = useJob('rays.read', askedBeside);
  const measured = useMeasuredFigures(project);
  const octave = band === 'mean' ? 3 : band;
  const overTime = useJob(
    'rays.receiver',
    asked && isOverTime(seen) ? { ...asked, index, wantedPerMs: WANTED_PER_MS } : null,
  );
  const overTimeBeside = useJob(
    'rays.receiver',
    askedBeside && isOverTime(seen)
      ? { ...askedBeside, index: besideIndex, wantedPerMs: WANTED_PER_MS }
      : null,
  );
  const ears = useJob('rays.ears', asked && { ...asked, index });
  const lows = useJob('rays.lows', asked && seen === 'lows' ? { run: asked.run, index } : null);
  const lowsBeside = useJob(
    'rays.lows',
    askedBeside && seen === 'lows' ? { run: askedBeside.run, index: besideIndex } : null,
  );
  const next = <T,>(of: readonly T[], now: T) => of[(of.indexOf(now) + 1) % of.length]!;
  const bands: RunBand[] = ['mean', ...OCTAVES.keys()];
  useKeys({
    n: () => step(1),
    b: () => step(-1),
    f: () => setFigure(next(RUN_FIGURE_KEYS, figure)),
    o: () => setBand(next(bands, band)),
    v: () => setSeen(next(SEEN, seen)),
  });
  if (!shown || !held) return <RunWaits runs={runs} problem={read.problem} share={read.share} />;
  const readings = held.receivers;
  const here = readings[index]!;
  const there = readBeside.value ? readBeside.value.receivers[besideIndex]! : null;
  const values =
    figure === 'direct'
      ? (direct?.levels ?? readings.map(() => NaN))
      : readings.map((r) => figureOf(r, figure, band));
  const spread = spreadOf(values);
  const meaning = RUN_FIGURES[figure];
  const say = (v: number) => figureText(v, figure);
  // what has no octaves of its own shows what it comes from
  const ofLevel = figure === 'level' || !hasOctaves(figure);
  const drawn: RunFigure = ofLevel ? 'level' : figure;
  const noise = ofLevel ? shown.noiseLevelsDb : null;
  const surely = (of: typeof here, by: 1 | -1) =>
    CENTRES.map((_, o) => known(figureOf(of, drawn, o)) + by * 2 * errorOf(of, drawn, o));
  const curves = [here, ...(there ? [there] : [])];
  const curveNames = [shown.name, beside?.name ?? ''];
  const walked = measured?.at.get(shown.receivers[index]!.id);
  const measuredLevels =
    walked && isMeasured(drawn)
      ? CENTRES.map((_, o) => {
          const found = walked[o]![drawn];
          return found.found ? found.value : NaN;
        })
      : null;
  const sure = trustRunSentence(readings, names, timesTheRays);
  const besideMeasured = (['t20', 'edt', 'c80', 'd50'] as const).map((f) => {
    const middle = MIDDLE.flatMap((o) => {
      const found = walked?.[o]?.[f];
      return found?.found ? [found.value] : [];
    });
    return {
      f,
      v: middle.length === MIDDLE.length ? middle.reduce((a, b) => a + b, 0) / middle.length : NaN,
    };
  });
  const unit = unitM(place.lengthUnit);
  const overDistance = shown.receivers.map(({ name, position }, i) => ({
    name,
    distance: distanceBetween(position, shown.sources[0]!.position) / unit,
    value: values[i]!,
    error: errorOf(readings[i]!, figure, band),
  }));
  const expected = expectedOver(shown, readings, figure, band, unit);
  const table = () => figuresTable(shown.name, names, readings);
  const even = evennessSentence(here.evenness);
  const showsLows = seen === 'lows' && lows.value !== null && !('problem' in lows.value);
  const lastNote = 4 + [walked, ears.value, even, showsLows].filter(Boolean).length;
  return (
    <>
      <Halves>
        <div className="plot">
          <ReceiverPlan
            place={place}
            run={shown}
            values={values}
            text={say}
            label={`${meaning.short}, ${bandText(band, figure)}`}
            chosen={index}
            onChoose={setReceiver}
            noticed={justNoticed(figure, values)}
            lines={direct && { ways: direct.lines, label: 'dashed: 6 dB below the loudest seat' }}
          />
        </div>
        <div className="plot">
          {seen === 'over octaves' ? (
            <ResponseChart
              key={figure}
              label={`${ofLevel ? 'Levels' : meaning.name} over octaves at ${names[index]!}`}
              title={`${ofLevel ? 'Levels' : meaning.name}, ${names[index]!}`}
              frequency={CENTRES}
              within={{ fromHz: 50, toHz: 10_000 }}
              levelLabel={
                ofLevel
                  ? `level${hasNoLevel(shown.sources[0]!) ? ' against that at 1 m' : ''}, dB`
                  : `${meaning.short}${meaning.unit ? `, ${meaning.unit}` : ''}`
              }
              absolute
              range={rangeAround(
                [
                  ...curves.flatMap((c) => [...surely(c, 1), ...surely(c, -1)]),
                  ...(noise ?? []),
                  ...(measuredLevels ?? []),
                ].filter(Number.isFinite),
              )}
              format={(v) => figureText(v, drawn)}
              bands={curves.map((c, i) => ({
                id: `sure ${i}`,
                label: i === 0 ? 'two standard errors' : '',
                colour: COLOURS[i]!,
                low: surely(c, -1),
                high: surely(c, 1),
              }))}
              traces={[
                ...curves.map((c, i) => ({
                  id: `run ${i}`,
                  label: curveNames[i]!,
                  role: 'predicted' as const,
                  colour: COLOURS[i]!,
                  levels: CENTRES.map((_, o) => known(figureOf(c, drawn, o))),
                })),
                ...(measuredLevels
                  ? [
                      {
                        id: 'measured',
                        label: `measured, ${measured!.channel.name}`,
                        role: 'measured' as const,
                        colour: 'trace-gorse' as const,
                        levels: measuredLevels,
                      },
                    ]
                  : []),
                ...(noise
                  ? [
                      {
                        id: 'noise',
                        label: 'noise of the place',
                        role: 'reference' as const,
                        colour: 'trace-slate' as const,
                        levels: Float64Array.from(noise),
                      },
                    ]
                  : []),
              ]}
            />
          ) : seen === 'distance' ? (
            <DistancePlot
              label={`${meaning.name} over the distance`}
              caption={`${meaning.short}, ${bandText(band, figure)}${meaning.unit ? `, ${meaning.unit}` : ''}`}
              distanceUnit={place.lengthUnit}
              points={overDistance}
              text={say}
              chosen={index}
              onChoose={setReceiver}
              expected={expected}
            />
          ) : seen === 'lows' ? (
            <LowsPlot
              name={names[index]!}
              runNames={curveNames}
              colours={COLOURS}
              lows={[lows.value, lowsBeside.value]}
              problem={lows.problem}
              share={lows.share}
            />
          ) : overTime.value ? (
            <OverTime
              label={`${seen} at ${names[index]!}, ${octaveText(octave)}`}
              unit={
                seen === 'decay'
                  ? `integrated decay at ${octaveText(octave)}, dB`
                  : `energy in each ms at ${octaveText(octave)}, dB against the largest`
              }
              stepS={BIN_S}
              low={DEPTH_DB}
              high={0}
              curves={[overTime.value, ...(overTimeBeside.value ? [overTimeBeside.value] : [])].map(
                (v, i) => ({
                  label: curveNames[i]!,
                  colour: COLOURS[i]!,
                  values: (seen === 'decay' ? v.decays : v.squared)[octave]!,
                }),
              )}
            />
          ) : (
            <p className="quiet" role="status" style={{ padding: 20 }}>
              {overTime.problem ?? 'Reading what arrives there …'}
            </p>
          )}
        </div>
      </Halves>
      {/* there may be more notes than room: keys scroll them */}
      <aside className="notes" aria-label="What it says" tabIndex={0}>
        <h2>
          {names[index]!}
          <small>keys n, b: seats; f: figures</small>
        </h2>
        <Note
          number={1}
          attention={here.sti < 0.45}
          small={
            shown.noiseLevelsDb
              ? 'IEC 60268-16:2011, male, with masking and the noise of the run'
              : 'IEC 60268-16:2011, male; reverberation alone'
          }
        >
          {`Speech is understood ${understoodWord(here.sti)} here: STI ${figureText(here.sti, 'sti')}.`}
          {there ? ` ${beside!.name}: ${figureText(there.sti, 'sti')}.` : ''}
        </Note>
        <Note number={2} small={`± ${figureText(errorOf(here, 't30', 'mean'), 't30')}, standard error`}>
          {`T30 ${figureText(figureOf(here, 't30', 'mean'), 't30')}, C80 ${figureText(figureOf(here, 'c80', 'mean'), 'c80')}, D50 ${figureText(figureOf(here, 'd50', 'mean'), 'd50')} in the middle octaves.`}
          {place.wantedS === null ? '' : ` ${place.wantedS.toFixed(2)} s is wanted.`}
        </Note>
        {spread ? (
          <Note number={3}>
            {values[spread.most]! - values[spread.least]! < justNoticed(figure, values)
              ? `${meaning.short} is ${say(spread.mean)} in the mean; nobody would notice a difference between seats.`
              : `${meaning.short} goes from ${say(values[spread.least]!)} at ${names[spread.least]!} to ${say(values[spread.most]!)} at ${names[spread.most]!}; its mean is ${say(spread.mean)}.`}
          </Note>
        ) : null}
        <Note number={4} attention={sure.attention} small={byWavesWords(held.byWaves)}>
          {sure.text}
        </Note>
        {walked ? (
          <Note
            number={5}
            small={`Middle octaves; ${measured!.channel.name} was swept here, ${playsFrom(shown, measured!.channel.id) ? 'and is what the run plays from' : 'the run has its own source'}`}
          >
            {`Measured and modelled here: ${besideMeasured
              .filter(({ v }) => Number.isFinite(v))
              .map(
                ({ f, v }) =>
                  `${RUN_FIGURES[f].short} ${figureText(v, f)} and ${figureText(figureOf(here, f, 'mean'), f)}`,
              )
              .join('; ')}.`}
          </Note>
        ) : null}
        {ears.value ? (
          <Note
            number={walked ? 6 : 5}
            small="IACC, ISO 3382-1:2009 annex B, 500 Hz to 2 kHz, a rigid sphere as head"
          >
            {bothEarsSentence(ears.value)}
          </Note>
        ) : null}
        {showsLows && lows.value && !('problem' in lows.value) ? (
          <Note
            number={lastNote - (even ? 1 : 0)}
            small={`Finite differences in ${lows.value.cells.toLocaleString('en')} cells of ${lows.value.stepM.toFixed(2)} m; surfaces react locally, by what they swallow in each octave`}
          >
            {lowsSentence(lows.value)}
          </Note>
        ) : null}
        {even ? (
          <Note
            number={lastNote}
            small="Thiele's directional diffusion over 32 sectors, 500 Hz to 2 kHz: 100 % from everywhere alike, 0 from one direction; without the direct sound"
          >
            {even}
          </Note>
        ) : null}
        <RunNotes project={project} runs={runs} from={lastNote + 1} />
      </aside>
      <div
        className="shore"
        style={{
          gridColumn: '1 / 3',
          gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.2fr)',
          height: 146,
        }}
      >
        <section className="card" aria-label="What is shown">
          <h2>What is shown</h2>
          <div className="row" style={{ gap: 6 }}>
            <NativeSelect
              size="xs"
              aria-label="Figure"
              data={RUN_FIGURE_KEYS.map((value) => ({ value, label: RUN_FIGURES[value].name }))}
              value={figure}
              onChange={(e) => setFigure(e.currentTarget.value as RunFigure)}
              style={{ flex: 1 }}
            />
            <NativeSelect
              size="xs"
              aria-label="Octave"
              data={bands.map((b) => ({
                value: String(b),
                label: b === 'mean' ? 'mean' : octaveText(b),
              }))}
              value={String(band)}
              onChange={(e) =>
                setBand(e.currentTarget.value === 'mean' ? 'mean' : Number(e.currentTarget.value))
              }
              w={88}
            />
          </div>
          {figure === 'direct' && shown.sources.length > 1 ? (
            <NativeSelect
              size="xs"
              aria-label="Source"
              data={shown.sources.map((s, i) => ({ value: String(i), label: s.name }))}
              value={String(sourceAt)}
              onChange={(e) => setSource(Number(e.currentTarget.value))}
            />
          ) : null}
          <div className="row">
            <span>{names[index]!}</span>
            <span style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
              <b className="mono">{say(values[index]!)}</b>
              <TableMenu table={table} />
            </span>
          </div>
          <div className="row">
            <span>Seen</span>
            <SegmentedControl
              size="xs"
              aria-label="Seen as"
              data={[...SEEN]}
              value={seen}
              onChange={(v) => setSeen(v as (typeof SEEN)[number])}
            />
          </div>
        </section>
        <WhereCard names={names} index={index} onChoose={setReceiver} step={step}>
          <div className="row">
            <span>How sure it is</span>
            <span className="mono">{noticed(errorInNoticeable(here, figure, band))}</span>
          </div>
        </WhereCard>
        <ListenCard
          asked={asked}
          askedBeside={askedBeside}
          index={index}
          besideIndex={besideIndex}
          name={names[index]!}
          head={place.head ?? null}
        />
      </div>
    </>
  );
}

const hasNoLevel = ({ kind }: RunSource) => kind === 'omnidirectional' || kind === 'instrument';

const isMeasured = (figure: RunFigure): figure is FigureName =>
  (FIGURES as readonly string[]).includes(figure);

/** Where nothing sounds there is no level to draw. */
const known = (v: number) => (Number.isFinite(v) ? v : NaN);

const noticed = (jnd: number) =>
  Number.isFinite(jnd) ? `${jnd.toFixed(1)} of what one notices` : 'not known';
