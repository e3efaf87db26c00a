import { asSet as sourceAsSet, type HeardTwo, type SourceSetting } from '@pebble-hall/core/alignment';
import {
  evenedOut,
  meetingLines,
  meetingPlaces,
  type ChannelOf,
  type LevelGrid,
  type MeetingLines,
  type MeetingPlace,
} from '@pebble-hall/core/coverage';
import { meanPoint } from '@pebble-hall/core/geometry';
import { channelSettings, type AlignStep, type Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import type { AlignedPoint } from '../../services/alignSources';
import { audienceGrid } from '../../services/audienceGrid';
import type { AskedModel, MeetingAsked } from '../../services/jobs';
import { modelledChannel, pressuresAsked } from '../../services/modelledChannels';
import { theProcessor } from '../../services/theProcessor';
import { useJob } from '../../services/useJob';

/** Where two groups meet over the audience, by their models. */
export interface Meets {
  grid: LevelGrid;
  lines: MeetingLines;
  places: MeetingPlace[];
}

const GRID_POINTS = 1600;
/** Frequencies over the shared band at which levels are held against each other. */
const FREQUENCIES = 24;
/** Finer patterns are evened out over this radius, metres: half a dozen seats. */
const EVEN_M = 0.75;

/** Speech is understood by this band, Hz. */
const SPEECH = { from: 500, to: 4000 };

const frequenciesOf = ({ from, to }: { from: number; to: number }) =>
  Float64Array.from({ length: FREQUENCIES }, (_, n) => from * (to / from) ** ((n + 0.5) / FREQUENCIES));

/** All the others, and the moved source, as they are asked for at points; null where one of them is no channel of the plan. */
function askedOf(
  project: Project,
  step: AlignStep,
  movedId: string,
  frequency: Float64Array,
  points: Float64Array,
): MeetingAsked | null {
  const channels = (isMoved: boolean) =>
    channelsAsSet(
      project,
      { ...step, sources: step.sources.filter((s) => (s.id === movedId) === isMoved) },
      frequency,
    );
  const [first, second] = [channels(false), channels(true)];
  if (!first || !second) return null;
  const { channels: _, ...request } = pressuresAsked(project, [], [], frequency);
  return { ...request, first, second, points };
}

/** When, and how loud, the moved source is heard after the others at each point, in the band of speech; null where that is not known. */
export function useHeardAfter(
  project: Project,
  step: AlignStep,
  movedId: string,
  points: readonly AlignedPoint[],
): HeardTwo[] | null {
  const asked = useMemo(() => {
    const places = points.flatMap((p) => (p.position ? [p.position.x, p.position.y, p.position.z] : []));
    const isKnown = points.length > 0 && places.length === 3 * points.length;
    return isKnown ? askedOf(project, step, movedId, frequenciesOf(SPEECH), Float64Array.from(places)) : null;
  }, [project, step, movedId, points]);
  const { value } = useJob('coverage.meeting', asked);
  return useMemo(
    () =>
      value &&
      Array.from(value.laterS, (laterS, p) => ({
        laterS,
        louderDb: 10 * Math.log10(value.second[p]! / value.first[p]!),
      })),
    [value],
  );
}

/** The moved source and all the others over the audience. @param band that both share, Hz; null asks for nothing */
export function useMeeting(
  project: Project,
  step: AlignStep,
  movedId: string,
  band: { from: number; to: number } | null,
) {
  const [from, to] = [band?.from, band?.to];
  const asked = useMemo((): { request: MeetingAsked; grid: LevelGrid } | null => {
    if (from === undefined || to === undefined) return null;
    const grid = gridOrNone(project);
    const request = grid && askedOf(project, step, movedId, frequenciesOf({ from, to }), grid.points);
    return grid && request ? { request, grid } : null;
  }, [project, step, movedId, from, to]);
  const { value, busy, problem } = useJob('coverage.meeting', asked?.request ?? null);
  const meets = useMemo((): Meets | null => {
    if (!value || !asked) return null;
    const { grid, request } = asked;
    const even = (power: Float64Array) =>
      evenedOut(
        grid,
        power.map((p) => 10 * Math.log10(p)),
        EVEN_M,
      );
    const [one, other] = [even(value.first), even(value.second)];
    const ground = {
      grid,
      apartDb: other.map((v, p) => v - one[p]!),
      laterS: value.laterS,
      first: centresOf(request.first),
      second: centresOf(request.second),
    };
    const lines = meetingLines(ground);
    return { grid, lines, places: meetingPlaces(ground, lines) };
  }, [value, asked]);
  return { meets, busy, problem };
}

/** The channels of some sources as they are set; null where one of them is no channel of the place. */
function channelsAsSet(
  project: Project,
  step: AlignStep,
  frequency: Float64Array,
): ChannelOf<AskedModel>[] | null {
  const settings = channelSettings(project.alignSteps, step);
  if (!settings) return null;
  const { rate } = theProcessor().profile;
  return [...settings].flatMap(([id, setting]) => {
    const channel = modelledChannel(project, id, rate);
    return channel ? [asSet(channel, setting, frequency)] : [];
  });
}

/** A channel with what a setting does at the frequencies that are looked at. */
function asSet<Model>(
  channel: ChannelOf<Model>,
  { delayS, ...setting }: SourceSetting,
  frequency: Float64Array,
): ChannelOf<Model> {
  const one = { frequency, re: frequency.map(() => 1), im: frequency.map(() => 0) };
  const { path } = channel;
  return {
    ...channel,
    // the delay by itself: when it arrives is read from there
    path: { ...path, delayS: path.delayS + delayS },
    filter: sourceAsSet(one, { ...setting, delayS: 0 }),
  };
}

/** The centre of each channel's boxes. */
const centresOf = (channels: readonly ChannelOf<AskedModel>[]) =>
  channels.map(({ boxes }) => meanPoint(boxes.map((b) => b.position)));

function gridOrNone({ place }: Project): LevelGrid | null {
  try {
    return audienceGrid(place, GRID_POINTS);
  } catch {
    // a place of no area has nothing to look at
    return null;
  }
}
