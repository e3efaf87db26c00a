import { Button, Progress, SegmentedControl } from '@mantine/core';
import type { Point } from '@pebble-hall/core/geometry';
import { extentOf } from '@pebble-hall/core/place';
import { type Project, fittedOf, isSpotTaken, sweepOf, loudspeakerById } from '@pebble-hall/core/project';
import { useRef, useState } from 'react';
import type { FollowCommand } from '../../services/followState';
import { lengthText, PlaceDrawing, type SpotState } from '../../drawing';
import { silence } from '../../services/running';
import { changeProject } from '../../services/changeProject';
import { notify } from '../../services/notify';
import { RoundButton } from './RoundButton';
import { RoundNotes } from './RoundNotes';
import { SpotCard } from './SpotCard';
import { withNewRound } from './rounds';
import { SpotPlanButton } from './SpotPlanButton';
import { SweepMatrix } from './SweepMatrix';
import { FarView } from './FarView';
import { followStateOf } from './followStateOf';
import { PhoneButton } from './PhoneButton';
import { TakingButton } from './TakingButton';
import { useFollowers } from './useFollowers';
import { useKnocked } from './useKnocked';
import { useWalk } from './useWalk';
import { WatchPanel } from './WatchPanel';

/** Which sweeps are there, are they good, and which spot is next? */
export default function WalkWorkbench({ project }: { project: Project }) {
  const walk = useWalk();
  const change = changeProject;
  const { spots } = project.place;
  const next = spots.find((s) => !isSpotTaken(project, s)) ?? null;
  const [picked, setPicked] = useState<string | null>(null);
  const [side, setSide] = useState<'above' | 'side'>('above');
  const [preview, setPreview] = useState<Point[] | null>(null);
  /** where a spot is while it is dragged */
  const [held, setHeld] = useState<{ id: string; at: Point } | null>(null);
  const spot = spots.find((s) => s.id === picked) ?? next ?? spots[0]!;
  const stateOf = (id: string): SpotState => {
    if (walk.now?.spotIds.includes(id)) return 'now';
    const sweeps = fittedOf(project).map((l) => sweepOf(project, id, l.id));
    if (sweeps.some((s) => s && s.verdict.state !== 'good')) return 'trouble';
    return sweeps.length > 0 && sweeps.every((s) => s) ? 'taken' : 'empty';
  };
  const knocked = useKnocked(project);
  const [far, setFar] = useState(false);
  /** the channel that was heard last, from the first sweep of this visit on */
  const heard = useRef<string | null>(null);
  if (walk.now) heard.current = loudspeakerById(project.place, walk.now!.loudspeakerId)?.name ?? null;
  const onCommand = (command: FollowCommand) => {
    if (command.do === 'stop') silence();
    else if (command.do === 'begin') walk.beginNow();
    else if (walk.now) return;
    else if (command.do === 'take') void walk.takeSpot(spot.id);
    else if (command.do === 'take all') void walk.takeAll();
    else if (spots.some((s) => s.id === command.spotId)) setPicked(command.spotId);
  };
  const following = followStateOf(project, walk.now, spot, stateOf);
  const followers = useFollowers(following, onCommand);
  const moveSpot = (id: string, to: Point, done: boolean) => {
    const at = inPlace(project.place, to);
    const moving = spots.find((s) => s.id === id)!;
    if (project.sweeps.some((s) => s.spotId === id)) {
      if (done) notify(`${moving.name} has sweeps, so it stays where they were taken. Add a spot instead.`);
      return;
    }
    setHeld(done ? null : { id, at });
    if (!done) return;
    void change(`position of ${moving.name}`, (p) => ({
      ...p,
      place: {
        ...p.place,
        spots: p.place.spots.map((s) => (s.id === id ? { ...s, position: at } : s)),
      },
    }));
  };
  const addSpot = () =>
    void change('a new spot', (p) => {
      const base = p.place.spots.at(-1)!.position;
      const { least, most } = extentOf(p.place.shape);
      const inRoom = (v: number, axis: 'x' | 'y') =>
        Math.min(most[axis] - 0.2, Math.max(least[axis] + 0.2, v));
      const position = { x: inRoom(base.x - 0.2, 'x'), y: inRoom(base.y + 0.35, 'y'), z: base.z };
      return {
        ...p,
        place: {
          ...p.place,
          spots: [
            ...p.place.spots,
            {
              id: crypto.randomUUID(),
              name: `Spot ${p.place.spots.length + 1}`,
              position,
              inAverage: true,
              weight: 1,
              surface: 'ear',
            },
          ],
        },
      };
    });
  const away = (
    <>
      <Button size="compact-xs" variant="default" onClick={() => setFar(true)}>
        From afar
      </Button>
      <PhoneButton followers={followers} />
    </>
  );
  const playing = walk.now && loudspeakerById(project.place, walk.now!.loudspeakerId);
  return (
    <div
      className="work"
      style={{
        gridTemplateColumns: 'minmax(0, 1fr) 560px',
        gridTemplateRows: 'auto minmax(0, 1fr)',
        height: '100%',
      }}
    >
      <div style={{ gridColumn: '1 / 3' }}>
        {walk.filtered ? (
          <div className="notice" role="alert" style={{ margin: 0 }}>
            <span>
              Memory {walk.filtered} is active and holds filters: sweeps taken now would hear the correction.
              Recall a memory without filters to measure as found.
            </span>
            <Button size="compact-md" onClick={() => void walk.recallPlain()}>
              Recall one without filters
            </Button>
          </div>
        ) : null}
      </div>
      <div
        style={{
          display: 'grid',
          gap: 10,
          minHeight: 0,
          gridTemplateRows: heard.current ? 'minmax(0, 1fr) 190px' : 'minmax(0, 1fr)',
        }}
      >
        <div className="plot" style={{ padding: 8 }}>
          <PlaceDrawing
            place={{
              ...project.place,
              spots: spots.map((s) => (s.id === held?.id ? { ...s, position: held.at } : s)),
            }}
            view={side}
            stateOf={stateOf}
            selected={new Set([spot.id])}
            playing={playing?.id ?? null}
            preview={preview}
            onSelect={({ id }) => setPicked(id)}
            onDrag={walk.now ? undefined : ({ id }, _, to, done) => moveSpot(id, to, done)}
            caption={
              side === 'above'
                ? undefined
                : `Set the stand to ${lengthText(spot.position.z, project.place.lengthUnit)}. The front is at the left.`
            }
          />
          <SegmentedControl
            aria-label="Seen from"
            size="xs"
            style={{ position: 'absolute', right: 10, bottom: 8 }}
            data={[
              { value: 'above', label: 'From above' },
              { value: 'side', label: 'From the side' },
            ]}
            value={side}
            onChange={(value) => setSide(value as 'above')}
          />
        </div>
        {heard.current ? <WatchPanel watch={walk.watch} channel={heard.current} /> : null}
      </div>
      <div style={{ display: 'grid', gridTemplateRows: 'auto auto minmax(0, 1fr)', gap: 10, minHeight: 0 }}>
        <section className="card" aria-label="Next" style={{ gap: 8 }}>
          {walk.now && playing ? (
            <>
              <div className="row">
                <span>
                  <span className="big" style={{ color: 'var(--ink)' }}>
                    {playing.name}
                  </span>{' '}
                  at{' '}
                  {spots
                    .filter((s) => walk.now!.spotIds.includes(s.id))
                    .map((s) => s.name)
                    .join(' and ')}
                </span>
                <span style={{ display: 'flex', gap: 6, alignItems: 'center' }}>
                  {away}
                  <Button variant="default" onClick={silence}>
                    Cancel
                  </Button>
                </span>
              </div>
              <Progress
                aria-label="Progress of the round"
                value={(100 * (walk.now.done + walk.now.share)) / walk.now.total}
              />
              {walk.now.phase === 'counting' ? (
                <div className="row">
                  <span>
                    Hold still in <b className="mono">{walk.now.leftS} s</b>
                  </span>
                  <Button size="compact-sm" variant="default" onClick={walk.beginNow}>
                    Begin now
                  </Button>
                </div>
              ) : (
                <span className="quiet">
                  Hold still: sweep {walk.now.done + 1} of {walk.now.total}
                  {walk.now.again ? ', once more, as something disturbed it' : ''}
                </span>
              )}
            </>
          ) : (
            <SpotCard
              project={project}
              spot={spot}
              isNext={next?.id === spot.id}
              change={change}
              onTake={() => void walk.takeSpot(spot.id)}
              onTakeAll={next ? () => void walk.takeAll() : null}
              also={
                <>
                  <TakingButton project={project} change={change} disabled={walk.now !== null} />
                  {away}
                </>
              }
            />
          )}
        </section>
        <SweepMatrix
          project={project}
          now={walk.now}
          change={change}
          onRepeat={(s, l) => void walk.takeOne(s, l)}
          onRepeatThese={(sweeps) => void walk.takeThese(sweeps)}
        />
        <section className="card notes" aria-label="What the round says">
          <h2>
            What the round says
            <span style={{ display: 'flex', gap: 6 }}>
              <RoundButton project={project} change={change} disabled={walk.now !== null} />
              <SpotPlanButton
                project={project}
                change={change}
                disabled={walk.now !== null}
                onPreview={setPreview}
              />
              <Button size="compact-xs" variant="default" disabled={walk.now !== null} onClick={addSpot}>
                Add a spot
              </Button>
            </span>
          </h2>
          <RoundNotes
            project={project}
            spot={spot}
            walk={walk}
            knocked={knocked}
            onNewRound={() =>
              void change('a new round', (p) => withNewRound(p, crypto.randomUUID(), Date.now()))
            }
          />
        </section>
      </div>
      {far ? <FarView state={following} onCommand={onCommand} onClose={() => setFar(false)} /> : null}
    </div>
  );
}

/** To the centimetre, and no further out than the walls. */
function inPlace({ shape }: Project['place'], p: Point): Point {
  const { least, most } = extentOf(shape);
  const on = (axis: 'x' | 'y' | 'z') =>
    Math.round(100 * Math.min(most[axis] - 0.1, Math.max(least[axis] + 0.1, p[axis]))) / 100;
  return { x: on('x'), y: on('y'), z: on('z') };
}
