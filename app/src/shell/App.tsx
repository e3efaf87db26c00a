import type { Project } from '@pebble-hall/core/project';
import {
  lazy,
  startTransition,
  useEffect,
  useState,
  type ComponentType,
  type LazyExoticComponent,
} from 'react';
import { Frame } from './Frame';
import { onStep, stepByLinks, type Path } from './navigation';

export interface WorkbenchProps {
  project: Project;
}

interface Room {
  title: string;
  load: () => Promise<{ default: ComponentType<WorkbenchProps> }>;
}

const ROOMS: Record<Path, Room> = {
  '/': { title: 'Start here', load: () => import('../workbenches/start/StartHere') },
  '/plan': { title: 'Plan', load: () => import('../workbenches/plan/PlanWorkbench') },
  '/room-model': {
    title: 'Room model',
    load: () => import('../workbenches/room-model/RoomModelWorkbench'),
  },
  '/rig': { title: 'Rig', load: () => import('../workbenches/rig/RigWorkbench') },
  '/mic-walk': { title: 'Mic walk', load: () => import('../workbenches/mic-walk/WalkWorkbench') },
  '/live': { title: 'Live', load: () => import('../workbenches/live/LiveWorkbench') },
  '/traces': { title: 'Traces', load: () => import('../workbenches/traces/TracesWorkbench') },
  '/align': { title: 'Align', load: () => import('../workbenches/align/AlignWorkbench') },
  '/correct': { title: 'Correct', load: () => import('../workbenches/correct/CorrectWorkbench') },
  '/listen': { title: 'Listen', load: () => import('../workbenches/listen/ListenWorkbench') },
  '/hand-over': { title: 'Hand over', load: () => import('../workbenches/hand-over/HandOverWorkbench') },
};
const isPath = (path: string): path is Path => path in ROOMS;
const pathOf = (pathname: string): Path => {
  const plain = pathname.replace(/(.)\/$/, '$1');
  return isPath(plain) ? plain : '/';
};

const shown = new Map<Path, LazyExoticComponent<ComponentType<WorkbenchProps>>>();
function workbenchOf(path: Path) {
  const known = shown.get(path);
  if (known) return known;
  const made = lazy(ROOMS[path].load);
  shown.set(path, made);
  return made;
}

interface Place {
  path: Path;
  /** another question to the same workbench */
  search: string;
}
const here = (): Place => ({ path: pathOf(location.pathname), search: location.search });

/** All of Pebble Hall: the frame stays, and with it what goes on; workbenches come and go in it. */
export function App() {
  const [place, setPlace] = useState(here);
  useEffect(() => onStep(() => startTransition(() => setPlace(here()))), []);
  useEffect(() => stepByLinks((path) => isPath(pathOf(path)) && (path === '/' || pathOf(path) !== '/')), []);
  useEffect(() => {
    document.title = `${ROOMS[place.path].title} · Pebble Hall`;
  }, [place]);
  useEffect(() => {
    // once the first one is there, the others are fetched, so that stepping there is only drawing
    const timer = setTimeout(() => Object.values(ROOMS).forEach((room) => void room.load()), 2000);
    return () => clearTimeout(timer);
  }, []);
  useEffect(() => {
    // runs that were under way when the page was left go on
    const timer = setTimeout(() => void import('../services/roomRuns').then((m) => m.roomRuns()), 1500);
    return () => clearTimeout(timer);
  }, []);
  const Workbench = workbenchOf(place.path);
  return (
    <Frame path={place.path} title={ROOMS[place.path].title}>
      {(project) => (
        <Workbench key={`${project.id} ${place.search} ${project.processor.adapter}`} project={project} />
      )}
    </Frame>
  );
}
