import { PebbleDatabase, refuseNewer } from './database';
import { ProjectOwner, type TabLine } from './openProject';
import { ProjectRepository } from './projectRepository';
import { madeFiltersOf } from './madeFilters';
import { profilesOf } from './processorProfiles';
import { sharedTracesOf } from './sharedTraces';
import { shelfOf } from './targetPresets';

const CURRENT = 'pebble-hall.project';

/** Made on first use in the browser: nothing at module level is shared by visitors of a server. */
let shared: ProjectRepository | undefined;
export const repository = (): ProjectRepository => (shared ??= new ProjectRepository(new PebbleDatabase()));

const CHANGES = 'pebble-hall.changes';
const tabLine = (): TabLine => {
  const channel = new BroadcastChannel(CHANGES);
  return {
    post: (told) => channel.postMessage(told),
    listen: (take) => {
      channel.onmessage = ({ data }) => take(data as Parameters<typeof take>[0]);
      return () => channel.close();
    },
  };
};

let owner: ProjectOwner | undefined;
/** The owner of the project that is open in this tab. */
export const projectOwner = (): ProjectOwner => (owner ??= new ProjectOwner(repository(), tabLine()));

/** Opens the project of this tab; what stands in the way is told in its place. */
export async function openCurrentProject(): Promise<void> {
  try {
    await refuseNewer();
    await openProjectHere(await currentProjectId());
  } catch (error) {
    projectOwner().block(error);
  }
}

/** Opens a project in this tab, and next time as well. */
export async function openProjectHere(id: string): Promise<void> {
  setCurrentProject(id);
  await projectOwner().open(id);
}

/** Targets of one's own. */
export const targetPresets = shelfOf(() => repository().database);

/** Traces that all projects share. */
export const sharedTraces = sharedTracesOf(() => repository().database);

/** Processors by profiles of one's own. */
export const processorProfiles = profilesOf(() => repository().database);

/** Filters that were worked out on this page or another. */
export const madeFilters = madeFiltersOf(() => repository().database);

/** The project of this tab: what it had open, else what the browser had open last, else the demo. */
export async function currentProjectId(): Promise<string> {
  const repo = repository();
  for (const storage of [sessionStorage, localStorage]) {
    const id = storage.getItem(CURRENT);
    if (id && (await repo.isThere(id))) return id;
  }
  const newest = await repo.newest();
  return newest ?? openDemo();
}

/** The project that this tab has open, or tried to; null before it did. */
export const currentId = (): string | null => sessionStorage.getItem(CURRENT);

function setCurrentProject(id: string): void {
  sessionStorage.setItem(CURRENT, id);
  localStorage.setItem(CURRENT, id);
}

/** A file of the demo. @throws where the build did not make it */
async function demoFile(name: string): Promise<Response> {
  const response = await fetch(`/demo/${name}`);
  if (!response.ok)
    throw new Error('The demo project is not there. Run "npm run demo" or "npm run build" to make it.');
  return response;
}

/** Takes in the demo project afresh; projects that are there stay. Two tabs that start together get one of it. */
export async function openDemo(afresh = false): Promise<string> {
  return navigator.locks.request('pebble-hall.demo', async () => {
    const there = await repository().newest();
    if (there && !afresh) return there;
    const [first] = await demoShelf();
    const id = await takeIn(first!);
    setCurrentProject(id);
    return id;
  });
}

/** A project that ships with the application. */
export interface Shelved {
  id: string;
  file: string;
  name: string;
  place: string;
}

/** All that ship, the one to begin with first. */
export const demoShelf = async (): Promise<Shelved[]> =>
  (await demoFile('shelf.json')).json() as Promise<Shelved[]>;

/** Takes a project that ships into this browser. @returns its id here */
export const takeIn = async ({ file }: Shelved): Promise<string> =>
  repository().takeInShipped(new Uint8Array(await (await demoFile(file)).arrayBuffer()));
