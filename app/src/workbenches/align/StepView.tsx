import { AreaWeights } from './AreaWeights';
import { alignmentAt } from '@pebble-hall/core/alignment';
import {
  changedBelow,
  keptById,
  settingOf,
  withSource,
  type AlignSource,
  type AlignStep,
  type Project,
} from '@pebble-hall/core/project';

import { useMemo, useRef, useState } from 'react';
import { Note } from '../../parts/Note';
import { useKeys } from '../../parts/useKeys';
import { channelsOf, isModelled, type AlignedPoint } from '../../services/alignSources';
import type { HeardFrom } from '../../services/heardFrom';
import { traceName } from '../../services/libraryCurves';
import { changedWords, meetingSentence, pairSentences, proofSentence } from '../../words/alignWords';
import { AlignPlots } from './AlignPlots';
import { changeSource } from './changeAlign';
import { CrossoverList } from './CrossoverList';
import { KeepCard } from './KeepCard';
import { PrecedenceCard } from './PrecedenceCard';
import { PlaceList } from './PlaceList';
import { SettingCard } from './SettingCard';
import { SourceCard } from './SourceCard';
import { SpotCard } from './SpotCard';
import { SuggestionList } from './SuggestionList';
import { TargetFields } from './TargetFields';
import { meetingAt, ontoTarget, proofAt, readAt, usePredicted, useStepSources } from './useAligned';
import { useJoint } from './useJoint';
import { useHeardAfter, useMeeting } from './useMeeting';
import { usePairs, useSuggestions } from './useSuggestions';
import { WhereView } from './WhereView';

interface Props {
  project: Project;
  step: AlignStep;
  /** what the drawing shows: levels and phases at one place, or the plan with all of them */
  look: AlignLook;
}

const NONE: AlignedPoint[] = [];

/** Whether a source says anything about where speech comes from: subwoofers do not. */
const isHeardHigh = (project: Project, source: AlignSource): boolean => {
  const ids = new Set(channelsOf(project, source));
  return project.place.loudspeakers.some((l) => ids.has(l.id) && l.role === 'full range');
};

/** The spot of the walk that a point is; null where it is none. */
const spotIdOf = ({ place }: Project, { id }: AlignedPoint): string | null =>
  place.spots.some((s) => s.id === id) ? id : null;

/** What a sum as it was measured says of the predicted one; where it was swept at another spot, it says nothing here. */
function proved(
  project: Project,
  step: AlignStep,
  point: AlignedPoint,
  proof: () => ReturnType<typeof proofAt>,
) {
  const id = step.togetherId!;
  const name = traceName(project, id)!;
  const origin = keptById(project.kept).get(id)?.origin;
  return origin?.by === 'together' && origin.spotId !== point.id
    ? {
        attention: false,
        text: `${name}: it was swept at ${origin.spotName}, and says nothing about this place.`,
      }
    : proofSentence(name, proof());
}

/** What Listen begins with: the channels of a step at a spot, the first on the left and one of the second source on the right, with noise of the band that they share. */
function heardOf(
  project: Project,
  step: AlignStep,
  point: AlignedPoint,
  band: HeardFrom['band'] | null,
): HeardFrom | null {
  const spotId = spotIdOf(project, point);
  const ids = step.sources.map((s) => channelsOf(project, s));
  const [[leftId, ...withLeft], [rightId, ...withRight]] = [ids[0]!, ids[1]!];
  const alsoIds = [...withLeft, ...withRight, ...ids.slice(2).flat()];
  return spotId && band && ids.every((i) => i.length > 0) && leftId && rightId && !isModelled(project, step)
    ? { leftId, rightId, alsoIds, spotId, band }
    : null;
}

export type AlignLook = 'Curves' | 'Where';

/** One step of the alignment: what its sources do together, and how they are brought to it. */
export function StepView({ project, step: stored, look }: Props) {
  const firstMoved = stored.sources.find((s) => s.id !== stored.referenceId)!.id;
  const [askedId, setMovedId] = useState(firstMoved);
  const movedId = stored.sources.some((s) => s.id === askedId) ? askedId : firstMoved;
  const [askedPoint, setPoint] = useState<number | null>(null);
  /** the delay while the hand moves it; null while nothing is held */
  const [heldS, setHeldS] = useState<number | null>(null);
  /** the same at once, for a key that moves and lets go in one */
  const held = useRef<number | null>(null);
  /** as it was before suggestions were tried */
  const [before, setBefore] = useState<ReturnType<typeof settingOf> | null>(null);
  const step = useMemo(
    () => (heldS === null ? stored : withSource(stored, movedId, { delayS: heldS })),
    [stored, movedId, heldS],
  );
  const { sources, targetDb, measured } = useStepSources(project, stored);
  const { predicted, isReading } = usePredicted(project, stored);
  const { points } = sources;
  const moved = step.sources.find((s) => s.id === movedId)!;
  // until somebody asks for another one: where they are brought together, if that is at one place alone
  const first = stored.aim === 'place' ? points.findIndex((p) => p.weight > 0) : 0;
  const at = Math.max(0, Math.min(askedPoint ?? first, points.length - 1));
  const point = points[at];
  const read = useMemo(() => (point ? readAt(step, point, moved) : null), [step, point, moved]);
  // by what is stored: while the hand moves a delay, the pairs stay
  const pairs = usePairs(
    stored,
    stored.sources.find((s) => s.id === movedId)!,
    points,
  );
  const now = useMemo(() => (pairs.length > 0 ? alignmentAt(pairs, moved) : null), [pairs, moved]);
  const efficiency = useMemo(() => now?.atPoints ?? new Float64Array(points.length).fill(NaN), [now, points]);
  const { value, busy, problem, mostDelayS } = useSuggestions(project, stored, pairs);
  const joint = useJoint(project, stored, points);
  const isByModels = isModelled(project, stored);
  const { meets } = useMeeting(
    project,
    step,
    movedId,
    look === 'Where' && read && 'band' in read.reading ? read.reading.band : null,
  );
  const suggestions = value ?? [];
  const tryOne = (i: number) => {
    const s = suggestions[i];
    if (!s || movedId === step.referenceId) return;
    setBefore((was) => was ?? settingOf(moved));
    const { delayS, inverted, allPasses } = s;
    void changeSource(`way ${i + 1} tried`, step.id, movedId, { delayS, inverted, allPasses });
  };
  useKeys({
    ...Object.fromEntries(Array.from({ length: 9 }, (_, i) => [String(i + 1), () => tryOne(i)])),
    '0': () => {
      if (before) void changeSource('as it was', step.id, movedId, before);
      setBefore(null);
    },
  });
  const hold = (delayS: number) => {
    if (movedId === step.referenceId) return;
    held.current = delayS;
    setHeldS(delayS);
  };
  const settle = () => {
    const delayS = held.current;
    if (delayS === null) return;
    held.current = null;
    void changeSource(`delay of ${moved.name}`, step.id, movedId, { delayS }).then(
      // unless the hand is at it again
      () => held.current === null && setHeldS(null),
    );
  };
  const heard = useHeardAfter(
    project,
    step,
    movedId,
    look === 'Where' && isHeardHigh(project, moved) ? points : NONE,
  );
  if (!point || !read)
    return (
      <>
        <p className="quiet" role="status">
          {sources.problems.length > 0 ? sources.problems.join(' ') : 'Reading the traces …'}
        </p>
        <div className="shore" style={{ gridTemplateColumns: '360px 360px' }}>
          <SourceCard project={project} step={step} movedId={movedId} onMoved={setMovedId} joint={null} />
          <SettingCard project={project} step={step} source={moved} ontoTarget={null} />
        </div>
      </>
    );
  const meeting = meetingAt(read.others, read.own, targetDb);
  const against = step.sources.length > 2 ? 'the others' : step.sources.find((s) => s.id !== movedId)!.name;
  const changed = changedBelow(project.alignSteps, stored);
  const isEstimate = step.sources.some((s) => s.of.kind === 'distance');
  const said = [
    ...(changed.length > 0 ? [{ attention: true, text: changedWords(changed.map((s) => s.name)) }] : []),
    ...pairSentences(moved.name, against, read.reading),
    ...(meeting ? [meetingSentence(meeting)] : []),
    ...(measured && !isReading
      ? [proved(project, stored, point, () => proofAt(read, measured, predicted))]
      : []),
    ...(isByModels
      ? [
          {
            attention: false,
            text: 'By the models of the loudspeakers in the open, without the room: measure before it is trusted.',
          },
        ]
      : []),
    ...(isEstimate
      ? [
          {
            attention: false,
            text: 'From distances alone, this is an estimate in the open: measure before it is trusted.',
          },
        ]
      : []),
  ];
  return (
    <>
      <div
        style={{
          display: 'grid',
          gridTemplateColumns: 'minmax(0, 1fr) 300px',
          gap: '10px 14px',
          minHeight: 0,
        }}
      >
        {look === 'Where' && point.position ? (
          <WhereView
            project={project}
            step={stored}
            points={points}
            efficiency={efficiency}
            chosen={at}
            onPoint={setPoint}
            meets={meets}
          />
        ) : (
          <AlignPlots
            step={step}
            point={point}
            moved={moved}
            read={read}
            targetDb={targetDb}
            measured={measured}
            against={against}
            points={points}
            onPoint={setPoint}
            onDelay={hold}
            onSettle={settle}
            tools={<TargetFields project={project} step={stored} spotId={spotIdOf(project, point)} />}
          />
        )}
        <aside className="notes" aria-label="What it says">
          <h2>What it says{points.length > 1 ? <small>at {point.name}</small> : null}</h2>
          {said.map((s, i) => (
            <Note key={s.text} number={i + 1} attention={s.attention}>
              {s.text}
            </Note>
          ))}
          {look === 'Where' && meets ? (
            <PlaceList
              project={project}
              step={stored}
              points={points}
              onPoint={setPoint}
              places={meets.places}
              still={against}
              moved={moved.name}
              isModelled={isByModels}
            />
          ) : null}
          {look === 'Where' && heard ? (
            <PrecedenceCard
              project={project}
              others={read.others}
              own={read.own}
              step={stored}
              moved={moved}
              still={against}
              points={points}
              heard={heard}
              chosen={at}
            />
          ) : null}
          {movedId === step.referenceId ? (
            <span className="quiet">
              {moved.name} is the time reference. Choose another source to move it.
            </span>
          ) : (
            <SuggestionList
              step={stored}
              moved={moved}
              suggestions={suggestions}
              busy={busy}
              problem={problem}
              nowEfficiency={now?.efficiency ?? null}
              spots={points.length}
              mostDelayS={mostDelayS}
              onTry={tryOne}
            />
          )}
          <CrossoverList project={project} step={stored} movedId={movedId} points={points} />
        </aside>
      </div>
      <div
        className="shore"
        style={{
          gridTemplateColumns:
            points.length > 1
              ? 'minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.3fr) minmax(0, 1fr)'
              : 'minmax(0, 1.1fr) minmax(0, 1.1fr) minmax(0, 1fr)',
          height: 178,
        }}
      >
        <SourceCard project={project} step={step} movedId={movedId} onMoved={setMovedId} joint={joint} />
        <SettingCard
          project={project}
          step={step}
          source={moved}
          ontoTarget={ontoTarget(point, movedId, targetDb)}
        />
        {points.length > 1 ? (
          <SpotCard
            points={points}
            efficiency={efficiency}
            chosen={at}
            onPoint={setPoint}
            isModelled={isByModels}
            weights={isByModels ? <AreaWeights place={project.place} step={stored} /> : null}
          />
        ) : null}
        <KeepCard
          project={project}
          step={stored}
          heard={heardOf(project, stored, point, 'band' in read.reading ? read.reading.band : null)}
        />
      </div>
    </>
  );
}
