import {
  type Microphone,
  type Project,
  type Sweep,
  fittedOf,
  isSpotTaken,
  sweepOf,
} from '@pebble-hall/core/project';
import type { AtSpot } from './measuring';

/** One play: a loudspeaker, heard at a spot by each microphone that walks. */
export interface WalkJob {
  places: AtSpot[];
  loudspeakerId: string;
}

/** Spots that are taken with the microphones put up once, and the plays that takes. */
export interface WalkStop {
  places: AtSpot[];
  jobs: WalkJob[];
}

/** Microphones that take spots of their own, the measuring one first; those on the floor below another take none. */
export function walkingMicrophones({ rig }: Pick<Project, 'rig'>): Microphone[] {
  const onFloor = new Set(rig.pairs.map((p) => p.floorId));
  const ids = [...new Set([rig.microphoneId, ...rig.alongIds])].filter((id) => !onFloor.has(id));
  return ids.flatMap((id) => rig.microphones.find((m) => m.id === id) ?? []);
}

/** Channels that these places still lack a good sweep of; all of them when they lack none. */
export function stopAt(project: Project, places: AtSpot[]): WalkStop {
  const fitted = fittedOf(project);
  const lacking = fitted.filter((l) =>
    places.some(({ spotId }) => sweepOf(project, spotId, l.id)?.verdict.state !== 'good'),
  );
  const channels = lacking.length > 0 ? lacking : fitted;
  return { places, jobs: channels.map((l) => ({ places, loudspeakerId: l.id })) };
}

/** A spot, and beside it as many others that are not taken yet as there are microphones that walk along. */
export function placesFrom(project: Project, spotId: string): AtSpot[] {
  const others = project.place.spots.filter((s) => s.id !== spotId && !isSpotTaken(project, s));
  // the next ones in the plan's order, from this one on
  const at = project.place.spots.findIndex((s) => s.id === spotId);
  const order = (s: (typeof others)[number]) => {
    const i = project.place.spots.indexOf(s);
    return i > at ? i : i + project.place.spots.length;
  };
  const next = others.sort((a, b) => order(a) - order(b)).map((s) => s.id);
  return walkingMicrophones(project).flatMap((m, i) => {
    const id = i === 0 ? spotId : next[i - 1];
    return id === undefined ? [] : [{ spotId: id, microphoneId: m.id }];
  });
}

/** Every stop that is left of a round. */
export function stopsLeft(project: Project): WalkStop[] {
  const left = project.place.spots.filter((s) => !isSpotTaken(project, s));
  const microphones = walkingMicrophones(project);
  const stops: WalkStop[] = [];
  for (let i = 0; i < left.length; i += microphones.length) {
    const spots = left.slice(i, i + microphones.length);
    stops.push(
      stopAt(
        project,
        spots.map((s, k) => ({ spotId: s.id, microphoneId: microphones[k]!.id })),
      ),
    );
  }
  return stops;
}

/** Sweeps that are to be taken again, in their order, each with the measuring microphone. */
export function stopsAgain(project: Project, sweeps: Pick<Sweep, 'spotId' | 'loudspeakerId'>[]): WalkStop[] {
  const microphoneId = walkingMicrophones(project)[0]!.id;
  const spotIds = [...new Set(sweeps.map((s) => s.spotId))];
  return spotIds.map((spotId) => {
    const places = [{ spotId, microphoneId }];
    const jobs = sweeps
      .filter((s) => s.spotId === spotId)
      .map(({ loudspeakerId }) => ({ places, loudspeakerId }));
    return { places, jobs };
  });
}
