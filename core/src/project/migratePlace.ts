type Stored = Record<string, unknown>;

/** What the walls of the one room that projects knew up to version 8 swallowed, by octaves: with these its simulated sound stays what it was. */
const SWALLOWED = {
  front: [0.26, 0.22, 0.16, 0.16, 0.18, 0.2, 0.22, 0.24],
  rear: [0.28, 0.3, 0.36, 0.46, 0.52, 0.56, 0.58, 0.6],
  left: [0.25, 0.2, 0.14, 0.13, 0.13, 0.14, 0.15, 0.16],
  right: [0.27, 0.21, 0.15, 0.13, 0.14, 0.15, 0.16, 0.18],
  floor: [0.2, 0.2, 0.24, 0.36, 0.44, 0.5, 0.55, 0.58],
  ceiling: [0.32, 0.28, 0.22, 0.18, 0.15, 0.14, 0.15, 0.16],
};

/** Lower and upper side of what stood in that room, metres. */
const HEIGHTS: Record<string, [number, number]> = {
  sofa: [0, 0.8],
  chair: [0, 0.9],
  rug: [0, 0.02],
  window: [0.9, 2.1],
};

/** A place of version 8 as version 9 draws it: a box of its three numbers. */
export function drawn({ size, furniture, loudspeakers, ...place }: Stored): Stored {
  const { x, y, z } = size as { x: number; y: number; z: number };
  const face = (name: string, absorption: number[]) => ({ name, absorption });
  return {
    ...place,
    kind: 'listening room',
    lengthUnit: 'm',
    shape: {
      outline: [
        { x: 0, y: 0 },
        { x, y: 0 },
        { x, y },
        { x: 0, y },
      ],
      heightM: z,
      floorRise: 0,
      ceiling: { kind: 'flat' },
      isEnclosed: true,
      walls: [
        face('Left wall', SWALLOWED.left),
        face('Rear wall', SWALLOWED.rear),
        face('Right wall', SWALLOWED.right),
        face('Front wall', SWALLOWED.front),
      ],
      floor: face('Floor', SWALLOWED.floor),
      roof: face('Ceiling', SWALLOWED.ceiling),
    },
    relativeHumidityPercent: 50,
    audience: [],
    fixtures: (furniture as Stored[]).map((f, i) => {
      const kind = String(f['kind']);
      const [bottom, top] = HEIGHTS[kind] ?? [0, 1];
      const name = kind.charAt(0).toUpperCase() + kind.slice(1);
      return { ...f, id: `fixture-${i + 1}`, name, bottom, top };
    }),
    underlays: [],
    layoutId: null,
    loudspeakers: (loudspeakers as Stored[]).map((l) => ({
      ...l,
      abbreviation: abbreviated(String(l['name'])),
      feed: '',
      pitchDeg: 0,
      rollDeg: 0,
      mount: 'standing',
      group: null,
      locked: false,
      layoutLabel: null,
    })),
  };
}

/** The first letters of a name's words, figures whole: "Surround left" is SL, "Sub 1" is S1. */
export const abbreviated = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => (/^\d+$/.test(word) ? word : word.slice(0, 1).toUpperCase()))
    .join('')
    .slice(0, 12);

/** What surfaces scatter of which nobody ever said anything: as panels and joints do. */
const SCATTERED = [0.05, 0.05, 0.06, 0.08, 0.1, 0.12, 0.15, 0.18];

/** A place of version 12 as version 13 has it: its surfaces scatter, may be made of something, and a reverberation time may be wanted. */
export function surfaced(place: Stored): Stored {
  const shape = place['shape'] as Stored | undefined;
  const face = (of: unknown) => ({ ...(of as Stored), scattering: SCATTERED, material: null });
  return {
    ...place,
    shape: shape && {
      ...shape,
      walls: (shape['walls'] as Stored[]).map(face),
      floor: face(shape['floor']),
      roof: face(shape['roof']),
    },
    materials: [],
    wantedS: null,
  };
}
