import { horizontalAim, meanPoint, type Point } from '../geometry/index.js';
import { newStep, plainSetting, type AlignSource, type AlignStep } from './align.js';
import { fittedOf } from './progress.js';
import type { Loudspeaker } from './place.js';
import type { Project } from './types.js';

/** Channels that belong together: alike, and as far along the way that the mains look. */
export interface ChannelGroup {
  name: string;
  loudspeakers: Loudspeaker[];
}

/** What a group is for the whole: told by its model, where it is, and how loud it can be. */
export type GroupRole = 'mains' | 'subwoofers' | 'fills' | 'delay line';

export interface SystemGroup extends ChannelGroup {
  role: GroupRole;
  /** how far ahead of the mains, metres */
  aheadM: number;
}

/** Alike, and nearer along to each other than this, channels make up one group, metres. */
const SAME_ROW_M = 1.5;
/** What stands no further ahead of the mains than this fills what they leave out near them; further on it is a delay line, metres. */
const FILL_M = 4;

const alike = (a: Loudspeaker, b: Loudspeaker): boolean =>
  a.model === b.model && a.role === b.role && a.mount === b.mount && a.group?.kind === b.group?.kind;

const centreOf = (of: readonly Loudspeaker[]): Point => meanPoint(of.map((l) => l.position));

/** Where some loudspeakers look together, seen from above. */
function aimOf(of: readonly Loudspeaker[]): Point {
  const aims = of.map((l) => horizontalAim((l.aimDeg * Math.PI) / 180));
  return { x: aims.reduce((s, a) => s + a.x, 0), y: aims.reduce((s, a) => s + a.y, 0), z: 0 };
}

function nameOf([first, ...others]: readonly Loudspeaker[]): string {
  if (others.length === 0) return first!.name;
  return others.length === 1
    ? `${first!.name} and ${others[0]!.name}`
    : `${first!.name} and ${others.length} like it`;
}

function groupsAlong(
  loudspeakers: readonly Loudspeaker[],
  along: (l: Loudspeaker) => number,
): ChannelGroup[] {
  const groups: Loudspeaker[][] = [];
  for (const l of loudspeakers) {
    const group = groups.find((g) => alike(g[0]!, l) && Math.abs(along(g[0]!) - along(l)) < SAME_ROW_M);
    if (group) group.push(l);
    else groups.push([l]);
  }
  return groups.map((g) => ({ name: nameOf(g), loudspeakers: g }));
}

/**
 * The groups of a system, the mains first: of what plays the full range the loudest; then subwoofers; then by their way from the mains.
 * @param largestDb what a loudspeaker reaches on its axis at 1 m, dB SPL
 * @returns nothing where nothing plays the full range
 */
export function systemGroups(
  project: Pick<Project, 'place'>,
  largestDb: (l: Loudspeaker) => number,
): SystemGroup[] {
  const fitted = fittedOf(project);
  const full = fitted.filter((l) => l.role === 'full range');
  const loudest = full.reduce<Loudspeaker | null>(
    (a, l) => (a && largestDb(a) >= largestDb(l) ? a : l),
    null,
  );
  if (!loudest) return [];
  const peers = full.filter((l) => alike(l, loudest));
  const aim = aimOf(peers);
  const size = Math.hypot(aim.x, aim.y);
  // where they look nowhere together there is no way along
  if (size < 1e-6 * peers.length) return [];
  const along = ({ position: { x, y } }: Pick<Loudspeaker, 'position'>) => (x * aim.x + y * aim.y) / size;
  const groups = groupsAlong(fitted, along);
  const mains = groups.find((g) => g.loudspeakers.includes(loudest))!;
  const from = along({ position: centreOf(mains.loudspeakers) });
  const roleOf = (g: ChannelGroup, aheadM: number): GroupRole => {
    if (g === mains) return 'mains';
    if (g.loudspeakers[0]!.role === 'subwoofer') return 'subwoofers';
    return aheadM < FILL_M ? 'fills' : 'delay line';
  };
  const order: GroupRole[] = ['mains', 'subwoofers', 'fills', 'delay line'];
  return groups
    .map((g): SystemGroup => {
      const aheadM = along({ position: centreOf(g.loudspeakers) }) - from;
      return { ...g, role: roleOf(g, aheadM), aheadM };
    })
    .sort((a, b) => order.indexOf(a.role) - order.indexOf(b.role) || a.aheadM - b.aheadM);
}

const WITH: Record<GroupRole, string> = {
  mains: '',
  subwoofers: 'Mains with subwoofers',
  fills: 'Fills to the mains',
  'delay line': 'Delay line to the mains',
};

const NAMES: Record<GroupRole, string> = {
  mains: 'Mains',
  subwoofers: 'subwoofers',
  fills: 'fills',
  'delay line': 'delay line',
};
/** "Mains, subwoofers and fills". */
function together(roles: readonly GroupRole[]): string {
  const names = [...new Set(roles)].map((role) => NAMES[role]);
  return [names.slice(0, -1).join(', '), names.at(-1)].filter((n) => n !== '').join(' and ');
}

/**
 * The order in which a whole system is brought together: mains and subwoofers first, then what fills in near them, then delay lines
 * from the front to the back, each against everything before it. All from the models, until something was measured.
 * @param id a new one at each call
 */
export function systemSteps(groups: readonly SystemGroup[], id: () => string): AlignStep[] {
  const [mains, ...others] = groups;
  if (!mains) return [];
  const channels = (g: ChannelGroup): AlignSource => ({
    ...plainSetting(),
    id: id(),
    name: g.name,
    of: { kind: 'channels', loudspeakerIds: g.loudspeakers.map((l) => l.id), from: 'models' },
  });
  const steps: AlignStep[] = [];
  const done: GroupRole[] = ['mains'];
  for (const group of others) {
    const before = steps.at(-1);
    const still: AlignSource = before
      ? { ...plainSetting(), id: id(), name: together(done), of: { kind: 'step', stepId: before.id } }
      : channels(mains);
    done.push(group.role);
    const many = others.filter((o) => o.role === group.role).length > 1;
    const name = many ? `${group.name} to what is before` : WITH[group.role];
    steps.push(newStep(id(), name, [still, channels(group)]));
  }
  return steps;
}
