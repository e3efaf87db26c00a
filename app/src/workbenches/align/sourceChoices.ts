import {
  fittedOf,
  keptById,
  plainSetting,
  stepsBelow,
  systemGroups,
  usableSpots,
  variantOf,
  type AlignSource,
  type Loudspeaker,
  type Project,
  type SourceOf,
  type SystemGroup,
} from '@pebble-hall/core/project';
import type { SourceSetting } from '@pebble-hall/core/alignment';
import { modelOf } from '../../services/placeModels';
import { references } from '../../services/references';

/** Something that can be a source, as it stands in a list to choose from. */
export interface SourceChoice {
  value: string;
  label: string;
  /** how it is called once it is one */
  name: string;
  of: SourceOf;
}
export interface ChoiceGroup {
  group: string;
  items: SourceChoice[];
}

/** A loudspeaker of the library stands so far away until somebody says otherwise, metres. */
const DISTANCE_M = 5;
/** What is told by models is said to be so. */
const BY_MODEL = 'by its model';

/** The groups that the system of the plan is made of. */
export const groupsOfPlan = (project: Pick<Project, 'place'>): SystemGroup[] =>
  systemGroups(project, (l) => modelOf(project.place, l).largestDb);

/** Channels alone, and those that belong together. */
function channelChoices(
  project: Project,
  channels: readonly Loudspeaker[],
  from: 'sweeps' | 'models',
): SourceChoice[] {
  const ids = new Set(channels.map((l) => l.id));
  const several = groupsOfPlan(project)
    .filter((g) => g.loudspeakers.length > 1 && g.loudspeakers.every((l) => ids.has(l.id)))
    .map((g) => ({ name: g.name, loudspeakerIds: g.loudspeakers.map((l) => l.id) }));
  const alone = channels.map((l) => ({ name: l.name, loudspeakerIds: [l.id] }));
  return [...alone, ...several].map(({ name, loudspeakerIds }) => ({
    value: `${from} ${loudspeakerIds.join(' ')}`,
    label: from === 'models' ? `${name}, ${BY_MODEL}` : name,
    name,
    of: { kind: 'channels', loudspeakerIds, from },
  }));
}

/** Everything that can be a source: channels as they were swept or as their models tell, traces with a phase, loudspeakers in the open, groups. @param stepId that it is for; null for one that is yet to be made */
export function sourceChoices(project: Project, stepId: string | null): ChoiceGroup[] {
  const fitted = fittedOf(project);
  const swept = fitted.filter((l) => {
    const { averaged, leftOut } = usableSpots(project, l.id);
    return averaged.length + leftOut.length > 0;
  });
  const groups: ChoiceGroup[] = [
    { group: 'Channels, as they were swept', items: channelChoices(project, swept, 'sweeps') },
    {
      group: 'Traces',
      items: project.kept
        .filter((k) => k.kind === 'transfer function')
        .map(({ id, name }) => ({
          value: `trace ${id}`,
          label: name,
          name,
          of: { kind: 'traces', traceIds: [id], shownId: id },
        })),
    },
    { group: 'Channels of the plan, over all seats', items: channelChoices(project, fitted, 'models') },
    {
      group: 'Loudspeakers in the open, at a distance',
      items: references(project.place).map(({ id, name }) => ({
        value: `distance ${id}`,
        label: `${name}, by its distance`,
        name,
        of: { kind: 'distance', referenceId: id, distanceM: DISTANCE_M, count: 1 },
      })),
    },
    {
      group: 'Live, as it is heard',
      items: project.live.measurements.map(({ id, name }) => ({
        value: `live ${id}`,
        label: `${name}, live`,
        name: `${name}, live`,
        of: { kind: 'live', measurementId: id },
      })),
    },
    {
      group: 'What was brought together before',
      items: project.alignSteps
        .filter(
          (s) => s.id !== stepId && (stepId === null || !stepsBelow(project.alignSteps, s.id).has(stepId)),
        )
        .map(({ id, name }) => ({
          value: `step ${id}`,
          label: `${name}, together`,
          name,
          of: { kind: 'step', stepId: id },
        })),
    },
  ];
  return groups.filter((g) => g.items.length > 0);
}

/** As a list takes them. */
export const listed = (groups: readonly ChoiceGroup[]) =>
  groups.map(({ group, items }) => ({ group, items: items.map(({ value, label }) => ({ value, label })) }));

/** What is told by models starts with the crossovers of the shown variant. */
function startOf(project: Project, of: SourceOf): SourceSetting {
  if (of.kind !== 'channels' || of.from !== 'models') return plainSetting();
  const [first] = of.loudspeakerIds;
  const isSub = project.place.loudspeakers.find((l) => l.id === first)?.role === 'subwoofer';
  const { highPass = null, lowPass = null } = variantOf(project).correction.crossovers[first!] ?? {};
  return { ...plainSetting(), highPass, lowPass: isSub ? lowPass : null };
}

/** The source that a choice stands for; null where it is gone. */
export function chosenSource(project: Project, value: string): AlignSource | null {
  const found = sourceChoices(project, null)
    .flatMap((g) => g.items)
    .find((i) => i.value === value);
  if (!found) return null;
  const { name, of } = found;
  return { ...startOf(project, of), id: crypto.randomUUID(), name, of };
}

/** Two that are likely to be meant: a channel and a subwoofer, as they were swept; else the first two groups of the plan. */
export function likelyPair(project: Project): [string, string] | null {
  const swept = fittedOf(project).filter((l) => usableSpots(project, l.id).averaged.length > 0);
  const main = swept.find((l) => l.role === 'full range');
  const sub = swept.find((l) => l.role === 'subwoofer');
  if (main && sub) return [`sweeps ${main.id}`, `sweeps ${sub.id}`];
  const [mains, next] = groupsOfPlan(project);
  const value = (g: SystemGroup) => `models ${g.loudspeakers.map((l) => l.id).join(' ')}`;
  return keptById(project.kept).size === 0 && mains && next ? [value(mains), value(next)] : null;
}
