/** Where a loudspeaker of a layout stands, seen from the home spot. */
export interface LayoutChannel {
  /** as the layout's source calls it */
  label: string;
  name: string;
  role: 'full range' | 'subwoofer';
  /** degrees to the left of straight ahead, -180 to 180; null where no direction is asked for */
  azimuthDeg: number | null;
  /** degrees above ear height */
  elevationDeg: number;
  /** what is still within the recommendation, to the left where positive; none where only the nominal angle is given */
  azimuthRange?: [from: number, to: number];
  elevationRange?: [from: number, to: number];
}

export interface Layout {
  id: string;
  name: string;
  /** where its angles are published */
  source: string;
  channels: LayoutChannel[];
}

type Range = [from: number, to: number];
interface Angles {
  azimuth?: Range;
  elevation?: Range;
}

const channel = (
  label: string,
  name: string,
  azimuthDeg: number,
  elevationDeg = 0,
  { azimuth, elevation }: Angles = {},
): LayoutChannel => ({
  label,
  name,
  role: 'full range',
  azimuthDeg,
  elevationDeg,
  ...(azimuth ? { azimuthRange: azimuth } : {}),
  ...(elevation ? { elevationRange: elevation } : {}),
});

/** Both of a pair: positive azimuths stand on the left. */
function pair(
  label: string,
  name: string,
  azimuthDeg: number,
  elevationDeg = 0,
  angles: Angles = {},
): LayoutChannel[] {
  const right: Angles = {
    ...angles,
    ...(angles.azimuth ? { azimuth: [-angles.azimuth[1], -angles.azimuth[0]] } : {}),
  };
  return [
    channel(`${label}+${digits(azimuthDeg)}`, `${name} left`.trim(), azimuthDeg, elevationDeg, angles),
    channel(`${label}-${digits(azimuthDeg)}`, `${name} right`.trim(), -azimuthDeg, elevationDeg, right),
  ];
}

const digits = (degrees: number): string => String(degrees).padStart(3, '0');

const low = (label: string, name: string): LayoutChannel => ({
  label,
  name,
  role: 'subwoofer',
  azimuthDeg: null,
  elevationDeg: 0,
});

const UPPER: Range = [30, 55];
const LOWER: Range = [-30, -15];
const FRONT = pair('M', '', 30).map((c, i) => ({ ...c, name: i === 0 ? 'Left' : 'Right' }));
const CENTRE = channel('M+000', 'Centre', 0);
const LFE = low('LFE1', 'Low-frequency');
const TWO_LFE = [low('LFE1', 'Low-frequency 1'), low('LFE2', 'Low-frequency 2')];
const SURROUND = pair('M', 'Surround', 110, 0, { azimuth: [100, 120] });
const SIDES = pair('M', 'Side', 90, 0, { azimuth: [85, 110] });
const REARS = pair('M', 'Rear', 135, 0, { azimuth: [120, 150] });
const UPPER_FRONT = pair('U', 'Upper front', 45, 30, { azimuth: [30, 45], elevation: UPPER });
const UPPER_REAR = pair('U', 'Upper rear', 135, 30, { azimuth: [100, 150], elevation: UPPER });
const FIVE = [...FRONT, CENTRE, LFE, ...SURROUND];
const SEVEN = [...FRONT, CENTRE, LFE, ...SIDES, ...REARS];
const UPPER_NEAR = pair('U', 'Upper front', 30, 30, { azimuth: [30, 45], elevation: UPPER });
const UPPER_BACK = pair('U', 'Upper rear', 110, 30, { azimuth: [100, 135], elevation: UPPER });
const BS2051 = 'ITU-R BS.2051';

/** Layouts by the trade's own names, with the angles as they are published. */
export const LAYOUTS: Layout[] = [
  { id: 'one', name: 'One in front', source: 'straight ahead', channels: [CENTRE] },
  { id: 'two', name: 'Two in front', source: 'ITU-R BS.775, system A of BS.2051 (0+2+0)', channels: FRONT },
  { id: 'three', name: 'Three in front', source: 'ITU-R BS.775 (3/0)', channels: [...FRONT, CENTRE] },
  { id: '5.1', name: '5.1', source: 'ITU-R BS.775, system B of BS.2051 (0+5+0)', channels: FIVE },
  { id: '2+5+0', name: '2+5+0', source: `${BS2051}, system C`, channels: [...FIVE, ...UPPER_NEAR] },
  {
    id: '4+5+0',
    name: '4+5+0',
    source: `${BS2051}, system D`,
    channels: [...FIVE, ...UPPER_NEAR, ...UPPER_BACK],
  },
  {
    id: '4+5+1',
    name: '4+5+1',
    source: `${BS2051}, system E`,
    channels: [
      ...FIVE,
      ...UPPER_NEAR,
      ...UPPER_BACK,
      channel('B+000', 'Bottom centre', 0, -30, { elevation: LOWER }),
    ],
  },
  {
    id: '3+7+0',
    name: '3+7+0',
    source: `${BS2051}, system F`,
    channels: [
      ...FRONT,
      CENTRE,
      ...TWO_LFE,
      ...pair('U', 'Upper front', 45, 30, { azimuth: [30, 45], elevation: [30, 45] }),
      ...pair('M', 'Side', 90, 0, { azimuth: [60, 150] }),
      ...pair('M', 'Rear', 135, 0, { azimuth: [60, 150] }),
      channel('UH+180', 'Upper rear centre', 180, 45, { elevation: [45, 90] }),
    ],
  },
  {
    id: '4+9+0',
    name: '4+9+0',
    source: `${BS2051}, system G`,
    channels: [
      ...FRONT,
      CENTRE,
      ...TWO_LFE,
      ...SIDES,
      ...REARS,
      ...UPPER_FRONT,
      ...UPPER_REAR,
      ...pair('M', 'Screen', 15, 0, { azimuth: [5, 25] }).map((c, i) => ({
        ...c,
        label: i === 0 ? 'M+SC' : 'M-SC',
      })),
    ],
  },
  {
    id: '9+10+3',
    name: '9+10+3',
    source: `${BS2051}, system H`,
    channels: [
      ...pair('M', 'Front', 60, 0, { azimuth: [55, 60] }),
      CENTRE,
      ...TWO_LFE,
      ...pair('M', 'Rear', 135, 0, { azimuth: [110, 135] }),
      ...pair('M', 'Front centre', 30, 0, { azimuth: [22.5, 30] }),
      channel('M+180', 'Rear centre', 180),
      ...pair('M', 'Side', 90, 0, { azimuth: [60, 90] }),
      ...pair('U', 'Upper front', 45, 30, { azimuth: [45, 60], elevation: [30, 45] }),
      channel('U+000', 'Upper front centre', 0, 30, { elevation: [30, 45] }),
      channel('T+000', 'Above', 0, 90),
      ...pair('U', 'Upper rear', 135, 30, { azimuth: [110, 135], elevation: [30, 45] }),
      ...pair('U', 'Upper side', 90, 30, { azimuth: [60, 90], elevation: [30, 45] }),
      channel('U+180', 'Upper rear centre', 180, 30, { elevation: [30, 45] }),
      channel('B+000', 'Bottom centre', 0, -30, { elevation: LOWER }),
      ...pair('B', 'Bottom front', 45, -30, { azimuth: [45, 60], elevation: LOWER }),
    ],
  },
  { id: '7.1', name: '7.1', source: `${BS2051}, system I (0+7+0)`, channels: SEVEN },
  {
    id: '7.1.4',
    name: '7.1.4',
    source: `${BS2051}, system J (4+7+0)`,
    channels: [...SEVEN, ...UPPER_FRONT, ...UPPER_REAR],
  },
];
