import { Button, SegmentedControl } from '@mantine/core';
import { IconMap2, IconRuler2, IconTable, IconZoomReset } from '../../icons';
import { placeProblems, type Project } from '@pebble-hall/core/project';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { PlaceDrawing, projectionOf, type SpotState, type Thing, type View } from '../../drawing';
import { isSpotTaken } from '@pebble-hall/core/project';
import { theProcessor } from '../../services/theProcessor';
import { useUnderlays } from '../../services/underlays';
import { markedBy } from '../../words/placeProblems';
import { AddMenu } from './AddMenu';
import { ChooseBar } from './ChooseBar';
import { CornerMarks } from './CornerMarks';
import { GuideLines } from './GuideLines';
import { InThree } from './InThree';
import { LayoutCard } from './LayoutCard';
import { MapCards } from './map/MapCards';
import { MapColours, MapIsobars, MapLinesLayer, PinnedMark, PlaneLine } from './map/MapLayer';
import { MapNotes } from './map/MapNotes';
import { PinnedPanel } from './map/PinnedPanel';
import { useLevelMap, viewOfFrame } from './map/useLevelMap';
import { usePointed } from './map/usePointed';
import { PlaceCard } from './PlaceCard';
import { PlanNotes } from './PlanNotes';
import { PlanTable } from './PlanTable';
import { ProfileCard } from './ProfileCard';
import { removeChosen } from './removeChosen';
import { RulerLine, rulerWords, useRuler } from './ruler';
import { SaveDrawing } from './SaveDrawing';
import { ShapeCard } from './ShapeCard';
import { ThingCards } from './ThingCards';
import { useWindow } from './useWindow';
import { UnderlayMenu } from './underlays/UnderlayMenu';
import { usePlan } from './usePlan';

const LIVE: readonly Thing['kind'][] = ['spot', 'loudspeaker', 'seat', 'area', 'fixture', 'underlay'];
const WITH_WALLS = [...LIVE, 'corner'] as const;
/** In a map a press on audience or seat asks what is heard there. */
const IN_MAP: readonly Thing['kind'][] = ['loudspeaker', 'fixture'];
/** Metres per press of an arrow key; ten times with Shift, a tenth with Alt. */
const STEP_M = 0.1;

/** Where is everything: the place, its loudspeakers, its seats? */
export default function PlanWorkbench({ project }: { project: Project }) {
  const [view, setView] = useState<View>('above');
  const [isThree, setThree] = useState(false);
  const [page, setPage] = useState<'drawing' | 'table'>('drawing');
  const [wallsOn, setWallsOn] = useState(false);
  const plan = usePlan(project, view);
  const { place, selected } = plan;
  const ruler = useRuler(place);
  const frame = useRef<HTMLDivElement>(null);
  const projection = useMemo(() => projectionOf(place.shape, view), [place.shape, view]);
  const look = useWindow(projection);
  const map = useLevelMap(project, place, selected);
  const pointed = usePointed(map, projection, place.lengthUnit);
  // seen where it lies: level ones from above, upright ones from the seats or the side
  const mapView = map.maps && viewOfFrame(map.maps.grid.frame);
  const maps = mapView === view ? map.maps : null;
  // another plane is looked at from where it is seen
  const [followed, setFollowed] = useState(mapView);
  if (mapView !== followed) {
    setFollowed(mapView);
    if (mapView) setView(mapView);
  }
  const { seen, problems: lost } = useUnderlays(place);
  const { profile } = theProcessor();
  const problems = useMemo(() => placeProblems(place, profile), [place, profile]);
  const stateOf = (id: string): SpotState =>
    isSpotTaken(
      project,
      project.place.spots.find((s) => s.id === id)!,
    )
      ? 'taken'
      : 'empty';
  const choose = (thing: Thing, adds: boolean) => {
    if (ruler.isOn) ruler.takeThing(thing);
    else plan.select(thing, adds);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if ((event.target as Element).closest('input, textarea')) return;
    const step = STEP_M * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
    const ways: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const way = ways[event.key];
    if (way && selected.size > 0) plan.nudge(...way);
    else if ((event.key === 'Delete' || event.key === 'Backspace') && selected.size > 0) {
      void removeChosen(project, selected).then(plan.setSelected);
    } else if (event.key === 'Escape') {
      plan.setSelected(new Set());
      ruler.clear();
    } else return;
    event.preventDefault();
  };
  return (
    <div
      className="work"
      style={{
        gridTemplateRows: 'auto minmax(0, 1fr) auto',
        gridTemplateColumns: 'minmax(0, 1fr) 300px',
        height: '100%',
      }}
    >
      <div className="chips" style={{ gridColumn: '1 / 3', flexWrap: 'wrap', rowGap: 6 }}>
        <SegmentedControl
          aria-label="Seen from"
          size="xs"
          data={[
            { value: 'above', label: 'Above' },
            { value: 'front', label: 'Front' },
            { value: 'side', label: 'Side' },
            { value: '3d', label: '3D' },
          ]}
          value={isThree ? '3d' : view}
          onChange={(v) => {
            setThree(v === '3d');
            if (v !== '3d') setView(v as View);
          }}
        />
        <AddMenu project={project} onAdded={(ids) => plan.setSelected(new Set(ids))} />
        <UnderlayMenu place={project.place} selected={selected} onSelected={plan.setSelected} />
        <Button
          size="compact-md"
          variant={map.settings.isOn ? 'light' : 'default'}
          aria-pressed={map.settings.isOn}
          leftSection={<IconMap2 size={15} />}
          onClick={() => {
            map.set({ isOn: !map.settings.isOn });
            setView('above');
            setThree(false);
            setPage('drawing');
          }}
        >
          Level map
        </Button>
        <Button
          size="compact-md"
          variant={wallsOn ? 'light' : 'default'}
          aria-pressed={wallsOn}
          onClick={() => {
            setWallsOn(!wallsOn);
            setView('above');
            setThree(false);
          }}
        >
          Corners
        </Button>
        <Button
          size="compact-md"
          variant={ruler.isOn ? 'light' : 'default'}
          aria-pressed={ruler.isOn}
          leftSection={<IconRuler2 size={15} />}
          onClick={ruler.toggle}
        >
          Ruler
        </Button>
        <Button
          size="compact-md"
          variant={page === 'table' ? 'light' : 'default'}
          aria-pressed={page === 'table'}
          leftSection={<IconTable size={15} />}
          onClick={() => setPage(page === 'table' ? 'drawing' : 'table')}
        >
          Table
        </Button>
        <span style={{ flex: 1 }} />
        {look.isWhole ? null : (
          <Button
            size="compact-md"
            variant="default"
            leftSection={<IconZoomReset size={15} />}
            onClick={look.reset}
          >
            Whole place
          </Button>
        )}
        <ChooseBar project={project} selected={selected} onSelected={plan.setSelected} />
        {page === 'drawing' ? <SaveDrawing frame={frame} place={place} view={isThree ? '3D' : view} /> : null}
      </div>
      {page === 'table' ? (
        <PlanTable project={project} selected={selected} onSelected={plan.setSelected} />
      ) : (
        <div className="beside">
          <div className="plot" ref={frame} style={{ padding: 8 }} onKeyDown={onKeyDown}>
            {isThree ? (
              <InThree
                place={place}
                selected={selected}
                marked={markedBy(problems)}
                seen={seen}
                onSelect={(id, adds) => plan.select({ kind: 'loudspeaker', id }, adds)}
              />
            ) : (
              <PlaceDrawing
                place={place}
                view={view}
                // spots would cover what is looked at
                {...(maps ? {} : { stateOf })}
                selected={selected}
                marked={markedBy(problems)}
                seen={seen}
                live={wallsOn ? WITH_WALLS : maps ? IN_MAP : LIVE}
                onSelect={choose}
                onDrag={ruler.isOn ? undefined : plan.drag}
                window={look.window}
                under={maps ? (p) => <MapColours maps={maps} projection={p} /> : undefined}
                svg={{
                  ...look.handlers,
                  onPointerMove: (event) => {
                    look.handlers.onPointerMove(event);
                    pointed.onPointerMove(event);
                  },
                  onPointerLeave: pointed.onPointerLeave,
                  onClick: (event) => {
                    if (ruler.isOn) ruler.takePoint(event, projection);
                    else if (!look.wasMoved()) {
                      plan.setSelected(new Set());
                      if (selected.size === 0) pointed.pin(event);
                    }
                  },
                }}
                caption={
                  ruler.isOn
                    ? rulerWords(ruler.points, place)
                    : (pointed.words ??
                      (maps
                        ? 'Press a place to hear of it by itself. Loudspeakers move by hand.'
                        : 'Drag to move, Shift to choose several, arrow keys by 10 cm, Delete removes.'))
                }
                over={(p) => (
                  <>
                    {maps ? <MapIsobars maps={maps} projection={p} zeroDb={map.zeroDb} /> : null}
                    {maps && map.lines ? (
                      <MapLinesLayer lines={map.lines} frame={maps.grid.frame} projection={p} />
                    ) : null}
                    {map.maps && mapView !== 'above' && view === 'above' ? (
                      <PlaneLine grid={map.maps.grid} projection={p} />
                    ) : null}
                    {map.maps && map.settings.pinned ? (
                      <PinnedMark at={map.settings.pinned.position} projection={p} />
                    ) : null}
                    {wallsOn ? <CornerMarks place={place} projection={p} /> : null}
                    <GuideLines guides={plan.guides} projection={p} />
                    <RulerLine points={ruler.points} place={place} projection={p} />
                  </>
                )}
              />
            )}
          </div>
          {map.settings.isOn && map.settings.pinned ? <PinnedPanel map={map} place={place} /> : null}
        </div>
      )}
      {map.settings.isOn ? (
        <MapNotes map={map} place={place} problems={problems} />
      ) : (
        <PlanNotes project={project} problems={problems} lost={lost} />
      )}
      <div
        className="shore"
        style={{ gridColumn: '1 / 3', gridTemplateColumns: 'repeat(4, minmax(0, 1fr))' }}
      >
        {selected.size > 0 ? (
          <ThingCards project={project} selected={selected} onSelected={plan.setSelected} />
        ) : map.settings.isOn ? (
          <MapCards map={map} project={project} />
        ) : (
          <>
            <PlaceCard project={project} />
            <ShapeCard project={project} />
            <LayoutCard project={project} />
            <ProfileCard project={project} />
          </>
        )}
      </div>
    </div>
  );
}
