import { Button } from '@mantine/core';
import { curveLevelDb } from '@pebble-hall/core/live';
import { keptById, lookOf, type Project } from '@pebble-hall/core/project';
import { LIBRARY_GRID } from '@pebble-hall/core/traces';
import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react';
import { levelRange } from '../../../charts/chartMath';
import type { LiveCurve } from '../../../charts/drawLive';
import { traceColour } from '../../../charts/traceColours';
import { foundCurves, useReadings } from '../../../parts/readings/useReadings';
import { ReadingPanel } from '../../../parts/readings/ReadingPanel';
import { FilePicker } from '../../../parts/FilePicker';
import { traceName } from '../../../services/libraryCurves';
import { addReading } from '../../../services/readings';
import { isReference } from '../../../services/references';
import { bringFromShelf, useSharedShelf } from '../../../services/sharedShelf';
import { useLibrary } from '../../../services/useLibrary';
import { AlikeCard } from './AlikeCard';
import { addShapes, changeTraces, removeTraces } from './changeTraces';
import { CombineCard } from './CombineCard';
import { isAbort } from '../../../ports/abort';
import { ImportDialog } from './ImportDialog';
import { readCandidates, type Candidate } from './importFiles';
import { ExportMenu } from './ExportMenu';
import { LibraryList } from './LibraryList';
import { useLibraryLook } from './libraryLook';
import { LibraryPlots } from './LibraryPlots';
import { LibraryReadouts } from './LibraryReadouts';
import { LibraryTools } from './LibraryTools';
import { onGrid, smoothOnGrid } from '../../../services/gridCurves';
import { valuesOf, type CurvePlot } from './libraryValues';
import { LookMenu } from './LookMenu';
import { libraryTable, libraryTitle, savedLibrary } from './savedLibrary';
import { SeveralCard } from './SeveralCard';
import { SharedCard } from './SharedCard';
import { SweepCard } from './SweepCard';
import { TraceCard } from './TraceCard';
import { useSpectra } from './useSpectra';
import { useShapeHandles } from './useShapeHandles';

/** More curves than that in one plot tell nothing. */
const MOST_SHOWN = 24;
const DASHES = { solid: [], dashed: [7, 5], dotted: [2, 4] };

/** Everything measured, imported or computed, side by side; what can be computed from it. */
export function LibraryView({ project }: { project: Project }) {
  'use memo';
  const [look, setLook] = useLibraryLook(project.id);
  const { smoothing, fades } = look;
  const [selected, setSelected] = useState<string[]>(() => project.kept.slice(-1).map((k) => k.id));
  // going through a long list, the mark goes ahead of what is drawn of each
  const considered = useDeferredValue(selected);
  const [cursor, setCursor] = useState<number | null>(null);
  const shared = useSharedShelf();
  const [importing, setImporting] = useState<Candidate[] | null>(null);
  const picker = useRef<HTMLInputElement>(null);

  const ids = useMemo(
    () =>
      [
        ...project.kept.filter((k) => k.view.isShown && k.kind !== 'spectrum').map((k) => k.id),
        ...look.shownIds.filter((id) => traceName(project, id) !== null),
      ].slice(-MOST_SHOWN),
    [project, look.shownIds],
  );
  const chosen = useMemo(
    () => considered.filter((id) => traceName(project, id) !== null),
    [considered, project],
  );
  const marked = useMemo(
    () => selected.filter((id) => traceName(project, id) !== null || shared.some((s) => s.id === id)),
    [selected, project, shared],
  );
  const usable = useMemo(
    () => chosen.filter((id) => keptById(project.kept).get(id)?.kind !== 'spectrum'),
    [chosen, project.kept],
  );
  const { againstId, target } = look;
  const wanted = useMemo(
    () => [
      ...new Set([
        ...ids,
        ...usable,
        ...[againstId, target?.traceId].filter(
          (id) => typeof id === 'string' && traceName(project, id) !== null,
        ),
      ] as string[]),
    ],
    [ids, usable, againstId, target?.traceId, project],
  );
  const { shelf, handles } = useShapeHandles(project, chosen.length === 1 ? chosen[0]! : null);
  const seen = useLibrary(shelf, wanted);
  const shown = useMemo(() => {
    const spectra = project.kept.filter((k) => k.view.isShown && k.kind === 'spectrum').map((k) => k.id);
    const all = [...ids, ...spectra.slice(-MOST_SHOWN)];
    return new Map(all.map((id, i) => [id, lookOf(project, id)?.colour ?? traceColour(i)]));
  }, [ids, project]);
  const problems = useMemo(
    () => new Map([...seen].flatMap(([id, { problem }]) => (problem ? [[id, problem] as const] : []))),
    [seen],
  );
  const drawn = useMemo(
    () =>
      ids.flatMap((id) => {
        const curve = seen.get(id)?.curve;
        if (!curve) return [];
        const view = lookOf(project, id);
        return [
          {
            id,
            colour: shown.get(id)!,
            curve: smoothOnGrid(curve, view?.smoothing ?? smoothing),
            dash: DASHES[view?.line ?? 'solid'],
          },
        ];
      }),
    [ids, seen, shown, smoothing, project],
  );
  const against = useMemo(() => {
    const curve = againstId === null ? null : seen.get(againstId)?.curve;
    return curve ? smoothOnGrid(curve, smoothing) : null;
  }, [againstId, seen, smoothing]);
  const curvesFor = useCallback(
    (what: 'Level' | CurvePlot): LiveCurve[] =>
      [...drawn]
        .filter(({ id }) => !what.includes('ifference') || id !== againstId)
        .sort((a, b) => Number(chosen.includes(a.id)) - Number(chosen.includes(b.id)))
        .map(({ id, colour, curve, dash }) => ({
          colour,
          dash,
          values: valuesOf(curve, what, against),
          sure:
            fades && what !== 'Coherence' && curve.coherence.some((c) => !Number.isNaN(c))
              ? curve.coherence
              : null,
          width: chosen.includes(id) ? 2.6 : 1.6,
        })),
    [drawn, chosen, fades, against, againstId],
  );
  const targetBand = useMemo((): LiveCurve[] => {
    const curve = target && seen.get(target.traceId)?.curve;
    if (!curve) return [];
    const level = curveLevelDb(onGrid(curve));
    const [values, upTo] = [-1, 1].map((side) => level.map((v) => v + side * target.toleranceDb));
    return [{ colour: 'target', values: values!, upTo: upTo!, width: 0 }];
  }, [target, seen]);
  const spectra = useSpectra(project, shown, chosen);
  const reading = project.readings.findLast((r) => r.traceId === chosen[0]) ?? null;
  const isReading = look.plots.includes('Shapes') && chosen.length === 1 && reading !== null;
  const shapes = useReadings(project, isReading ? reading.id : null);
  const found = useMemo(() => (isReading ? foundCurves(shapes) : []), [isReading, shapes]);
  const levels = useCallback(
    () => [...targetBand, ...curvesFor('Level'), ...found],
    [targetBand, curvesFor, found],
  );
  const range = useMemo(
    () =>
      levelRange(LIBRARY_GRID, [
        ...drawn.map((d) => valuesOf(d.curve, 'Level')),
        ...found.map((c) => c.values),
      ]),
    [drawn, found],
  );
  const [first, second] = usable;
  const trace = chosen.length === 1 ? keptById(project.kept).get(chosen[0]!) : undefined;
  const sweep = chosen.length === 1 ? project.sweeps.find((s) => s.id === chosen[0]) : undefined;
  const onShelf =
    trace || considered.length !== 1 ? undefined : shared.find(({ id }) => id === considered[0]);
  const pair = usable.length === 2 ? [seen.get(first!)?.curve, seen.get(second!)?.curve] : [];

  const read = async (files: File[]) => {
    try {
      setImporting(await readCandidates(files));
    } catch (error) {
      if (!isAbort(error)) throw error;
    }
  };
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
        selected={marked}
        shared={shared}
        onSelect={setSelected}
        shown={shown}
        problems={problems}
        onShow={(row, isShown) =>
          row.kind === 'shared'
            ? void bringFromShelf(shared.find(({ id }) => id === row.id)!)
            : row.kind === 'sweep' || row.kind === 'reference'
              ? setLook({
                  shownIds: isShown
                    ? [...look.shownIds, row.id]
                    : look.shownIds.filter((id) => id !== row.id),
                })
              : void changeTraces(isShown ? 'trace shown' : 'trace hidden', [row.id], (k) => ({
                  ...k,
                  view: { ...k.view, isShown },
                }))
        }
      />
      <LibraryPlots
        look={look}
        onLook={setLook}
        levels={levels}
        range={range}
        caption={drawn.length === 0 ? 'nothing is shown: press the eye of a trace' : 'level'}
        curvesFor={curvesFor}
        spectra={spectra}
        against={againstId === null ? null : traceName(project, againstId)}
        handles={handles}
        shapes={
          isReading && shapes.reading ? (
            <ReadingPanel reading={shapes.reading} found={shapes.found} family={shapes.family} />
          ) : (
            <p className="quiet" style={{ padding: '10px 18px' }}>
              {chosen.length === 1
                ? 'Press Read its shapes: which sections, shelves and filters does this curve have?'
                : 'Choose one trace to read which sections, shelves and filters it has.'}
            </p>
          )
        }
        tools={
          <LibraryTools
            band={look}
            onBand={setLook}
            plot={() =>
              savedLibrary(project, drawn, { fromHz: look.fromHz, toHz: look.toHz, ...range }, smoothing)
            }
            title={libraryTitle(project)}
            table={() => libraryTable(project, drawn)}
          >
            <LookMenu project={project} look={look} onLook={setLook} shownIds={[...shown.keys()]} />
          </LibraryTools>
        }
        cursor={cursor}
        onCursor={setCursor}
      />
      <aside className="notes" aria-label="What is chosen">
        <LibraryReadouts
          drawn={drawn}
          cursor={cursor}
          marked={look.marked}
          nameOf={(id) => traceName(project, id) ?? ''}
        />
        {trace ? (
          <TraceCard
            key={trace.id}
            project={project}
            trace={trace}
            curve={seen.get(trace.id)?.curve ?? null}
            problem={problems.get(trace.id) ?? null}
            shared={shared.find(({ id }) => id === trace.id)}
          />
        ) : sweep ? (
          <SweepCard project={project} sweep={sweep} problem={problems.get(sweep.id) ?? null} />
        ) : onShelf ? (
          <SharedCard project={project} shared={onShelf} />
        ) : chosen.length > 1 ? (
          <SeveralCard project={project} ids={chosen} />
        ) : chosen.length === 1 ? (
          <b>
            {traceName(project, chosen[0]!)}
            {isReference(chosen[0]!)
              ? ': on its axis, without a room; 0 dB within its band, time zero where it plays.'
              : ''}
          </b>
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
            band={look.marked ?? { from: 60, to: 200 }}
            onBand={(marked) => setLook({ marked })}
          />
        ) : null}
        <div className="row" style={{ flexWrap: 'wrap', justifyContent: 'flex-start' }}>
          <Button
            size="compact-sm"
            variant="default"
            disabled={usable.length !== 1}
            onClick={() => {
              if (!look.plots.includes('Shapes')) setLook({ plots: ['Shapes', ...look.plots.slice(1)] });
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
            disabled={!chosen.some((id) => keptById(project.kept).has(id))}
            onClick={() => void removeTraces(chosen.filter((id) => keptById(project.kept).has(id)))}
          >
            Remove
          </Button>
        </div>
        <FilePicker
          picker={picker}
          label="Files to import"
          accept=".txt,.csv,.tsv,.frd,.dat,.asc,.wav,.flac,.sofa,.h5,.nc,text/*,audio/*"
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
