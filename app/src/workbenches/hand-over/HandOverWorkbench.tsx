import { FILE_MEMORIES } from '@pebble-hall/core/processing';
import { Button, SegmentedControl, Select } from '@mantine/core';
import {
  variantOf,
  type Project,
  designKey,
  fittedOf,
  usableSpots,
  verifiedIds,
  type VerifiedStage,
  loudspeakerName,
  loudspeakerOn,
} from '@pebble-hall/core/project';
import { useMemo, useState } from 'react';
import { ResponseChart, type Smoothing, type ChartTrace } from '../../charts/ResponseChart';
import { notifyProblem } from '../../services/notify';
import { changeProject } from '../../services/changeProject';
import { sentenceOf } from '../../store';
import { BesideNotice } from './memories/BesideNotice';
import { besideVariantWords, useVariantBeside } from './verify/besideVariant';
import { ExportButton } from './memories/ExportButton';
import { saveBundle, saveFilter, saveProject, saveTraces } from './memories/exports';
import { LoadCard } from './memories/LoadCard';
import { MemoryShelf } from './memories/MemoryShelf';
import { ChannelMisses, SpotMisses } from './verify/MissTables';
import { AGREES_DB, JUDGED_ABOVE_DB } from './verify/difference';
import { openReport } from './report/openReport';
import { useSpotVerdicts } from './verify/spotVerdicts';
import { Verdict } from './verify/Verdict';
import { grid, type Comparison } from './verify/compareLoad';
import { useComparison } from './verify/useComparison';
import { memoryWords } from '../../words/memoryName';
import { besideOf, goneFrom } from '../../services/holding';
import { useHandOver } from './useHandOver';
import { theProcessor } from '../../services/theProcessor';
import { InPlaceCard } from './memories/InPlaceCard';
import { WhatIsKept } from './memories/WhatIsKept';

/** Is the correction in the processor, and did the room become what was predicted? */
export default function HandOverWorkbench({ project }: { project: Project }) {
  const change = changeProject;
  const hand = useHandOver();
  const [shownId, setShownId] = useState<string | null>(null);
  const load = project.loads.find((l) => l.id === shownId) ?? project.loads.at(-1) ?? null;
  const spots = project.place.spots;
  const [spotId, setSpotId] = useState(spots[0]!.id);
  const spot = spots.find((s) => s.id === spotId) ?? spots[0]!;
  const [besideId, setBesideId] = useState<string | null>(null);
  const [withBass, setWithBass] = useState(false);
  const [exportsDesign, setExportsDesign] = useState(false);
  // a real interface cannot be told to play a processor's inputs: that is set on the processor
  const sendsBass =
    load !== null &&
    project.rig.kind === 'simulated' &&
    verifiedIds(project, load, 'verified with bass').length > 0;
  const stage: VerifiedStage = sendsBass && withBass ? 'verified with bass' : 'verified';
  const comparison = useComparison(project, load, spot.id, stage);
  const atSpots = useSpotVerdicts(project, load, stage, hand.work === null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [smoothing, setSmoothing] = useState<Smoothing>(6);
  const variant = variantOf(project);
  const shown = comparison.list.find((c) => c.id === chosen) ?? comparison.list[0];
  const busy = hand.work !== null;
  const designable = fittedOf(project).some((l) => usableSpots(project, l.id).averaged.length > 0);
  const besideVariant = project.variants.find((v) => v.id === besideId) ?? null;
  const variantDb = useVariantBeside(project, load, besideVariant, shown?.id ?? null, spot.id);
  const traces: ChartTrace[] = useMemo(() => {
    if (!shown) return [];
    const out: ChartTrace[] = [
      { id: 'found', label: 'as found', role: 'reference', colour: 'trace-slate', levels: shown.foundDb },
      {
        id: 'predicted',
        label: 'as left (predicted)',
        role: 'predicted',
        colour: 'trace-heather',
        levels: shown.predictedDb,
      },
    ];
    if (shown.verifiedDb)
      out.push({
        id: 'verified',
        label: 'as left (verified)',
        role: 'measured',
        colour: 'trace-kelp',
        levels: shown.verifiedDb,
      });
    if (besideVariant && variantDb)
      out.push({
        id: 'variant',
        label: `by ${besideVariant.name}`,
        role: 'predicted',
        colour: 'trace-buoy',
        levels: variantDb,
      });
    return out;
  }, [shown, besideVariant, variantDb]);
  const save = (run: () => Promise<void>) =>
    void run().catch((error: unknown) => notifyProblem(`Not saved: ${sentenceOf(error)}`));
  const nameOf = (id: string) => loudspeakerName(project.place, id);
  const loadedVariant = load ? (project.variants.find((v) => v.id === load.variantId) ?? variant) : variant;
  const stale = load !== null && load.designKey !== designKey(project, loadedVariant.correction);
  const beside = besideOf(load, hand.state);
  const gone = goneFrom(load, hand.state);
  const hasMemories = theProcessor().capabilities.memories;
  const toExport = load && !(exportsDesign && designable) ? load : 'as designed';

  return (
    <div
      className="work"
      style={{
        gridTemplateColumns: 'minmax(0, 1fr) 392px',
        gridTemplateRows: 'auto minmax(0, 1fr) auto',
        height: '100%',
      }}
    >
      <div style={{ gridColumn: '1 / 3', display: 'grid', gap: 6 }}>
        {hand.problem ? (
          <div className="notice" role="alert" style={{ margin: 0 }}>
            <span>{hand.problem}</span>
          </div>
        ) : null}
        {hand.readBack ? (
          <div className="notice calm" role="status" style={{ margin: 0 }}>
            <span>{hand.readBack}</span>
          </div>
        ) : null}
        {beside.length > 0 && !busy ? (
          <BesideNotice
            letter={load!.letter}
            beside={beside}
            nameOf={(output) => loudspeakerOn(project.place, output)?.name ?? `output ${output}`}
            onPutBack={() => void hand.putBack(load!)}
          />
        ) : null}
        {gone && !busy && !hand.state?.transfer && !project.pendingLoad ? (
          <div className="notice" role="status" style={{ margin: 0 }}>
            <span>
              Memory {load!.letter} {gone === 'empty' ? 'is empty' : 'holds something else'} now: what is
              shown here was loaded into it earlier. To have it back, load{' '}
              {load!.variantName || loadedVariant.name} again.
            </span>
          </div>
        ) : null}
        {stale ? (
          <div className="notice" role="status" style={{ margin: 0 }}>
            <span>
              The correction has changed since {memoryWords(load)} was loaded. What is shown here is what was
              loaded.
            </span>
          </div>
        ) : null}
      </div>
      <div className="plot">
        {shown ? (
          <ResponseChart
            label={`${nameOf(shown.id)} at ${spot.name}: predicted and verified`}
            title={`${nameOf(shown.id)} at ${spot.name}, ${memoryWords(load!)}`}
            frequency={grid}
            traces={traces}
            range={rangeOf(shown)}
            smoothing={smoothing}
            onSmoothing={setSmoothing}
            tools={
              <Select
                aria-label="Spot"
                size="xs"
                w={120}
                allowDeselect={false}
                data={spots.map((s) => ({ value: s.id, label: s.name }))}
                value={spot.id}
                onChange={(v) => v && setSpotId(v)}
              />
            }
          />
        ) : (
          <div style={{ display: 'grid', placeItems: 'center', height: '100%' }} className="quiet">
            <p style={{ maxWidth: 380, textAlign: 'center' }}>
              {comparison.problem ??
                (load && !comparison.ready
                  ? 'Working out what was loaded …'
                  : designable && !hasMemories
                    ? 'Save filters and settings below and load them into the processor. Say so there, and the prediction stands here, and what is measured again beside it.'
                    : designable
                      ? 'Load a memory below. Its prediction stands here then, and what is measured again beside it.'
                      : 'There is no correction yet: measure in the Mic walk first.')}
            </p>
          </div>
        )}
      </div>
      <section className="notes" aria-label="Predicted and verified">
        <h2>
          What the plot says
          <Select
            aria-label="Variant to hold against the memory"
            size="xs"
            w={170}
            clearable
            placeholder="against a variant"
            data={project.variants.map((v) => ({ value: v.id, label: v.name }))}
            value={besideVariant?.id ?? null}
            onChange={setBesideId}
          />
        </h2>
        {sendsBass ? (
          <SegmentedControl
            size="xs"
            style={{ flexShrink: 0 }}
            aria-label="What is measured again"
            data={[
              { value: 'verified', label: 'Each by itself' },
              { value: 'verified with bass', label: 'With its bass' },
            ]}
            value={stage}
            onChange={(v) => setWithBass(v !== 'verified')}
          />
        ) : null}
        <Verdict list={comparison.list} load={load} />
        {shown && load && besideVariant && variantDb ? (
          <span role="status" aria-label="Variant against memory">
            {nameOf(shown.id)}:{' '}
            {besideVariantWords(
              grid,
              { letter: load.letter, ...shown },
              { name: besideVariant.name, levelDb: variantDb },
            )}
          </span>
        ) : null}
        <ChannelMisses
          title={`Verified less predicted, ${load ? memoryWords(load) : ''}, ${spot.name}`}
          list={comparison.list}
          shownId={shown?.id ?? null}
          nameOf={nameOf}
          onShow={setChosen}
          onSaveFilter={
            load
              ? (id) => (load.filters[id] ? () => save(() => saveFilter(project, load, id)) : null)
              : () => null
          }
        />
        <SpotMisses
          title={`Verified less predicted, ${load ? memoryWords(load) : ''}, every spot`}
          list={atSpots}
          spotId={spot.id}
          nameOf={nameOf}
          onShow={(s) => {
            setSpotId(s.spotId);
            setChosen(s.worst.id);
          }}
        />
        {shown && shown.reasons.length > 0 ? (
          <div className="attention" role="status" aria-label="Why it missed">
            <b>{nameOf(shown.id)}: look again.</b> {capital(shown.reasons.join('; '))}.
          </div>
        ) : null}
        <small className="quiet">
          Verified less predicted at {spot.name}, 1/6 octave, within the span; more than {AGREES_DB} dB beyond
          what noise explains asks to look again.
          {shown?.difference && shown.difference.unjudged > 0.1
            ? ` Of ${nameOf(shown.id)}, ${shown.difference.unjudged.toFixed(1)} octaves lie within ${JUDGED_ABOVE_DB} dB of the noise and are not judged.`
            : ''}
        </small>
      </section>
      <div className="shore" style={{ gridColumn: '1 / 3', gridTemplateColumns: '1.45fr 1.3fr 0.9fr' }}>
        {hasMemories ? (
          <>
            <MemoryShelf
              project={project}
              state={hand.state}
              busy={busy}
              shownId={load?.id ?? null}
              onShow={(l) => setShownId(l.id)}
              onRecall={(l) => void hand.recall(l)}
              onRename={(l, n) => void hand.rename(l, n)}
              onCopy={(from, to) => void hand.copy(from, to)}
            />
            <LoadCard
              project={project}
              change={change}
              hand={hand}
              load={load}
              stage={stage}
              designable={designable}
            />
          </>
        ) : (
          <>
            <WhatIsKept project={project} shownId={load?.id ?? null} onShow={(l) => setShownId(l.id)} />
            <InPlaceCard project={project} hand={hand} load={load} stage={stage} designable={designable} />
          </>
        )}
        <section className="card" aria-label="Export">
          <h2>
            Export
            {load && designable ? (
              <SegmentedControl
                size="xs"
                aria-label="What is exported"
                data={[
                  {
                    value: 'memory',
                    label: load.letter === FILE_MEMORIES.placed ? 'Handed over' : `Memory ${load.letter}`,
                  },
                  { value: 'design', label: 'As designed' },
                ]}
                value={exportsDesign ? 'design' : 'memory'}
                onChange={(v) => setExportsDesign(v === 'design')}
              />
            ) : (
              <small>{designable ? `${variant.name}, as designed` : ''}</small>
            )}
          </h2>
          <div style={{ display: 'flex', flexWrap: 'wrap', gap: 8 }}>
            <Button
              size="compact-sm"
              disabled={!load && !designable}
              onClick={() => save(() => openReport(project, toExport))}
            >
              Report
            </Button>
            <ExportButton
              disabled={!load && !designable}
              onSave={(options) => save(() => saveBundle(project, toExport, options))}
            />
            <Button
              size="compact-sm"
              variant="default"
              disabled={project.sweeps.length === 0}
              onClick={() => save(() => saveTraces(project))}
            >
              Traces as text
            </Button>
            <Button size="compact-sm" variant="default" onClick={() => save(() => saveProject(project))}>
              Project file
            </Button>
          </div>
          <small className="quiet">
            The project file holds every impulse response and filter as WAV; Project, Open takes it in again.
          </small>
        </section>
      </div>
    </div>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function rangeOf({ foundDb, predictedDb, span }: Comparison): { lowDb: number; highDb: number } {
  let top = -Infinity;
  grid.forEach((f, i) => {
    if (f >= span.from && f <= span.to) top = Math.max(top, foundDb[i]!, predictedDb[i]!);
  });
  const highDb = Math.ceil((top + 2) / 5) * 5;
  return { lowDb: highDb - 45, highDb };
}
