import { Button } from '@mantine/core';
import { curveGroupDelayS, curveLevelDb, curvePhaseDeg, smoothedCurve } from '@pebble-hall/core/live';
import type { Project } from '@pebble-hall/core/project';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { useCallback, useMemo, useRef, useState } from 'react';
import { formatHz, FULL_BAND, levelRange, signedDb } from '../../../charts/chartMath';
import type { LiveCurve } from '../../../charts/drawLive';
import { LivePlot } from '../../../charts/LivePlot';
import { BELOW_LEVEL, WRAPS_DEG, type BelowLevel } from '../../../charts/overFrequency';
import { traceColour } from '../../../charts/traceColours';
import { foundCurves, useReadings } from '../../../parts/readings/useReadings';
import { ReadingPanel } from '../../../parts/readings/ReadingPanel';
import { FilePicker } from '../../../parts/FilePicker';
import { PlotChoices } from '../../../parts/PlotChoices';
import { traceName } from '../../../services/libraryCurves';
import { addReading } from '../../../services/readings';
import { useLibrary } from '../../../services/useLibrary';
import { AlikeCard } from './AlikeCard';
import { addShapes, changeTraces, removeTraces } from './changeTraces';
import { CombineCard } from './CombineCard';
import { ImportDialog } from './ImportDialog';
import { candidateOf, type Candidate } from './importFiles';
import { ExportMenu } from './ExportMenu';
import { LibraryList } from './LibraryList';
import { LibraryTools } from './LibraryTools';
import { libraryTable, savedLibrary } from './savedLibrary';
import { SeveralCard } from './SeveralCard';
import { TraceCard } from './TraceCard';
import { useShapeHandles } from './useShapeHandles';

type Lower = BelowLevel;
const LOWER = [...(Object.keys(BELOW_LEVEL) as Lower[]), 'Shapes'] as const;
/** More curves than that in one plot tell nothing. */
const MOST_SHOWN = 24;
const never = () => () => {};
const DASHES = { solid: [], dashed: [7, 5], dotted: [2, 4] };

/** A curve on the points that all plots of the library share; what it does not reach is not known. */
function onGrid(curve: LibraryCurve): LibraryCurve {
  if (curve.frequency.length === LIBRARY_GRID.length) return curve;
  const first = LIBRARY_GRID.findIndex((f) => f > curve.frequency[0]! * 0.9999);
  const wide = (of: Float64Array) => {
    const out = new Float64Array(LIBRARY_GRID.length).fill(NaN);
    out.set(of.subarray(0, out.length - first), first);
    return out;
  };
  return {
    ...curve,
    frequency: LIBRARY_GRID,
    re: wide(curve.re),
    im: wide(curve.im),
    coherence: wide(curve.coherence),
  };
}

const valuesOf = (curve: LibraryCurve, what: 'Level' | Lower): Float64Array => {
  if (what === 'Level') return curveLevelDb(curve);
  if (what === 'Coherence') return curve.coherence;
  if (!curve.hasPhase) return curve.re.map(() => NaN);
  return what === 'Phase' ? curvePhaseDeg(curve) : curveGroupDelayS(curve).map((s) => 1000 * s);
};

/** Everything measured, imported or computed, side by side; what can be computed from it. */
export function LibraryView({ project }: { project: Project }) {
  const [selected, setSelected] = useState<string[]>(() => project.kept.slice(-1).map((k) => k.id));
  const [sweeps, setSweeps] = useState<string[]>([]);
  const [lower, setLower] = useState<Lower | 'Shapes'>('Phase');
  const [smoothing, setSmoothing] = useState(12);
  const [fades, setFades] = useState(true);
  const [cursor, setCursor] = useState<number | null>(null);
  const [band, setBand] = useState<{ fromHz: number; toHz: number }>(FULL_BAND);
  const [importing, setImporting] = useState<Candidate[] | null>(null);
  const picker = useRef<HTMLInputElement>(null);

  const ids = useMemo(
    () =>
      [
        ...project.kept.filter((k) => k.view.isShown && k.kind !== 'spectrum').map((k) => k.id),
        ...sweeps.filter((id) => project.sweeps.some((s) => s.id === id)),
      ].slice(-MOST_SHOWN),
    [project.kept, project.sweeps, sweeps],
  );
  const chosen = useMemo(() => selected.filter((id) => traceName(project, id) !== null), [selected, project]);
  const usable = useMemo(
    () => chosen.filter((id) => project.kept.find((k) => k.id === id)?.kind !== 'spectrum'),
    [chosen, project.kept],
  );
  const wanted = useMemo(() => [...new Set([...ids, ...usable])], [ids, usable]);
  const { shelf, handles } = useShapeHandles(project, chosen.length === 1 ? chosen[0]! : null);
  const seen = useLibrary(shelf, wanted);
  const shown = useMemo(
    () =>
      new Map(ids.map((id, i) => [id, project.kept.find((k) => k.id === id)?.view.colour ?? traceColour(i)])),
    [ids, project.kept],
  );
  const problems = useMemo(
    () => new Map([...seen].flatMap(([id, { problem }]) => (problem ? [[id, problem] as const] : []))),
    [seen],
  );
  const drawn = useMemo(
    () =>
      ids.flatMap((id) => {
        const curve = seen.get(id)?.curve;
        if (!curve) return [];
        const wide = onGrid(curve);
        const view = project.kept.find((k) => k.id === id)?.view;
        const smoothed = smoothedCurve(wide, view?.smoothing ?? smoothing);
        return [
          {
            id,
            colour: shown.get(id)!,
            curve: { ...wide, ...smoothed },
            dash: DASHES[view?.line ?? 'solid'],
          },
        ];
      }),
    [ids, seen, shown, smoothing, project.kept],
  );
  const curvesFor = useCallback(
    (what: 'Level' | Lower): LiveCurve[] =>
      [...drawn]
        .sort((a, b) => Number(chosen.includes(a.id)) - Number(chosen.includes(b.id)))
        .map(({ id, colour, curve, dash }) => ({
          colour,
          dash,
          values: valuesOf(curve, what),
          sure:
            fades && what !== 'Coherence' && curve.coherence.some((c) => !Number.isNaN(c))
              ? curve.coherence
              : null,
          width: chosen.includes(id) ? 2.6 : 1.6,
        })),
    [drawn, chosen, fades],
  );
  const reading = project.readings.findLast((r) => r.traceId === chosen[0]) ?? null;
  const isReading = lower === 'Shapes' && chosen.length === 1 && reading !== null;
  const shapes = useReadings(project, isReading ? reading.id : null);
  const found = useMemo(() => (isReading ? foundCurves(shapes) : []), [isReading, shapes]);
  const levels = useCallback(() => [...curvesFor('Level'), ...found], [curvesFor, found]);
  const below = useCallback(() => (lower === 'Shapes' ? [] : curvesFor(lower)), [curvesFor, lower]);
  const range = useMemo(
    () =>
      levelRange(LIBRARY_GRID, [...drawn.map((d) => curveLevelDb(d.curve)), ...found.map((c) => c.values)]),
    [drawn, found],
  );
  const [first, second] = usable;
  const trace = chosen.length === 1 ? project.kept.find((k) => k.id === chosen[0]) : undefined;
  const pair = usable.length === 2 ? [seen.get(first!)?.curve, seen.get(second!)?.curve] : [];

  const read = async (files: File[]) => setImporting(await Promise.all(files.map(candidateOf)));
  return (
    <div
      style={{ display: 'grid', gridTemplateColumns: '288px minmax(0, 1fr) 288px', gap: 14, minHeight: 0 }}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const files = [...event.dataTransfer.files];
        if (files.length > 0) void read(files);
      }}
    >
      <LibraryList
        project={project}
        selected={chosen}
        onSelect={setSelected}
        shown={shown}
        problems={problems}
        onShow={(row, isShown) =>
          row.kind === 'sweep'
            ? setSweeps(isShown ? [...sweeps, row.id] : sweeps.filter((id) => id !== row.id))
            : void changeTraces(isShown ? 'trace shown' : 'trace hidden', [row.id], (k) => ({
                ...k,
                view: { ...k.view, isShown },
              }))
        }
      />
      <div
        className="plot"
        style={{
          display: 'grid',
          gridTemplateRows: `minmax(0, ${lower === 'Shapes' ? 0.75 : 1.4}fr) 30px minmax(0, 1fr)`,
        }}
      >
        <LivePlot
          label="Level of the traces"
          unit="dB"
          caption={drawn.length === 0 ? 'nothing is shown: press the eye of a trace' : 'level'}
          frequency={LIBRARY_GRID}
          range={range}
          curves={levels}
          subscribe={never}
          handles={handles}
          band={band}
          onBand={setBand}
          tools={
            <LibraryTools
              band={band}
              onBand={setBand}
              plot={() => savedLibrary(project, drawn, { ...band, ...range }, smoothing)}
              table={() => libraryTable(project, drawn)}
            />
          }
          cursor={cursor}
          onCursor={setCursor}
        />
        <PlotChoices
          lowers={LOWER}
          lower={lower}
          onLower={setLower}
          fades={fades}
          onFades={setFades}
          smoothing={smoothing}
          onSmoothing={setSmoothing}
        />
        {lower === 'Shapes' ? (
          isReading && shapes.reading ? (
            <ReadingPanel reading={shapes.reading} found={shapes.found} family={shapes.family} />
          ) : (
            <p className="quiet" style={{ padding: '10px 18px' }}>
              {chosen.length === 1
                ? 'Press Read its shapes: which sections, shelves and filters does this curve have?'
                : 'Choose one trace to read which sections, shelves and filters it has.'}
            </p>
          )
        ) : (
          <LivePlot
            label={`${lower} of the traces`}
            unit={BELOW_LEVEL[lower].unit}
            caption={lower.toLowerCase()}
            frequency={LIBRARY_GRID}
            range={BELOW_LEVEL[lower].range}
            ticks={[...BELOW_LEVEL[lower].ticks]}
            signed={lower !== 'Coherence'}
            curves={below}
            subscribe={never}
            {...(lower === 'Phase' ? { jump: WRAPS_DEG } : {})}
            band={band}
            onBand={setBand}
            cursor={cursor}
            onCursor={setCursor}
          />
        )}
      </div>
      <aside className="notes" aria-label="What is chosen">
        {cursor === null ? null : (
          <output aria-label="Readout" className="mono" style={{ fontSize: 12, display: 'grid', gap: 2 }}>
            <b>{formatHz(LIBRARY_GRID[cursor]!)}</b>
            {drawn.map(({ id, colour, curve }) => (
              <span key={id} style={{ color: `var(--${colour})` }}>
                {signedDb(valuesOf(curve, 'Level')[cursor]!)} dB,{' '}
                {readPhase(valuesOf(curve, 'Phase')[cursor]!)} {traceName(project, id)}
              </span>
            ))}
          </output>
        )}
        {trace ? (
          <TraceCard
            key={trace.id}
            project={project}
            trace={trace}
            problem={problems.get(trace.id) ?? null}
          />
        ) : chosen.length > 1 ? (
          <SeveralCard project={project} ids={chosen} />
        ) : chosen.length === 1 ? (
          <b>{traceName(project, chosen[0]!)}</b>
        ) : (
          <span className="quiet">
            Choose one trace to name it and shift it, several to compute with them.
          </span>
        )}
        {usable.length > 0 ? (
          <CombineCard project={project} of={usable} onMade={(id) => setSelected([id])} />
        ) : null}
        {pair[0] && pair[1] ? (
          <AlikeCard
            names={[traceName(project, first!)!, traceName(project, second!)!]}
            curves={[pair[0], pair[1]]}
          />
        ) : null}
        <div className="row" style={{ flexWrap: 'wrap', justifyContent: 'flex-start' }}>
          <Button
            size="compact-sm"
            variant="default"
            disabled={usable.length !== 1}
            onClick={() => {
              setLower('Shapes');
              if (!reading) void addReading(usable[0]!, traceName(project, usable[0]!)!);
            }}
          >
            Read its shapes
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => void addShapes().then((id) => id && setSelected([id]))}
          >
            New trace of shapes
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => picker.current?.click()}>
            Import
          </Button>
          <ExportMenu project={project} ids={usable} seen={seen} />
          <Button
            size="compact-sm"
            variant="default"
            disabled={!chosen.some((id) => project.kept.some((k) => k.id === id))}
            onClick={() => void removeTraces(chosen.filter((id) => project.kept.some((k) => k.id === id)))}
          >
            Remove
          </Button>
        </div>
        <FilePicker
          picker={picker}
          label="Files to import"
          accept=".txt,.csv,.tsv,.frd,.dat,.asc,.wav,.flac,text/*,audio/*"
          onFiles={(files) => void read(files)}
        />
      </aside>
      {importing ? (
        <ImportDialog
          project={project}
          candidates={importing}
          onClose={(made) => {
            setImporting(null);
            if (made.length > 0) setSelected(made);
          }}
        />
      ) : null}
    </div>
  );
}

const readPhase = (degrees: number) => (Number.isFinite(degrees) ? `${Math.round(degrees)}°` : 'no phase');
