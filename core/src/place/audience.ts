import { areaOf, type Corner, type Point } from '../geometry/index.js';
import { floorAt, type Shape } from './shape.js';

/** Where people sit or stand in rows. Its floor follows that of the room. */
export interface AudienceArea {
  id: string;
  name: string;
  outline: Corner[];
  /** azimuth in which they look, degrees counter-clockwise from x */
  facingDeg: number;
  /** height of the first row's floor over that of the room */
  floorM: number;
  /** each row above the one ahead of it */
  riseM: number;
  /** ears over the floor that they are on */
  earM: number;
  /** from row to row, and from seat to seat */
  rowM: number;
  seatM: number;
}

/** Heights of ears over the floor, metres: of people who sit and who stand. */
export const EAR_M = { seated: 1.2, standing: 1.6 } as const;

export interface AreaSeat {
  id: string;
  name: string;
  row: number;
  seat: number;
  position: Point;
}

/** More seats are more than anybody can look at. */
export const MOST_SEATS = 5000;

/**
 * The seats of an area: rows across the way they look, the first one half a pitch behind the front edge, each filled from
 * its middle with as many seats as fit. A row that the outline cuts in two is filled part by part.
 * @throws RangeError where the pitches leave more than 5,000 seats, or none can be told
 */
export function seatsOf(area: AudienceArea, shape: Pick<Shape, 'floorRise'>): AreaSeat[] {
  const { outline, facingDeg, floorM, riseM, earM, rowM, seatM } = area;
  if (!(rowM > 0 && seatM > 0) || !(areaOf(outline) / (rowM * seatM) <= MOST_SEATS))
    throw new RangeError(`seatsOf: pitches of ${rowM} and ${seatM} m leave too many seats`);
  const angle = (facingDeg * Math.PI) / 180;
  // back: away from where they look; across: from their left to their right
  const [back, across] = [
    { x: -Math.cos(angle), y: -Math.sin(angle) },
    { x: Math.sin(angle), y: -Math.cos(angle) },
  ];
  const dot = (a: Corner, b: Corner) => a.x * b.x + a.y * b.y;
  const local = outline.map((c) => ({ u: dot(c, back), v: dot(c, across) }));
  const front = Math.min(...local.map((c) => c.u));
  const rear = Math.max(...local.map((c) => c.u));
  const seats: AreaSeat[] = [];
  const rows = Math.floor((rear - front) / rowM + 1e-9);
  for (let row = 1; row <= rows; row++) {
    const u = front + (row - 0.5) * rowM;
    const cuts = local
      .flatMap((a, i) => {
        const b = local[(i + 1) % local.length]!;
        return a.u > u === b.u > u ? [] : [a.v + ((u - a.u) * (b.v - a.v)) / (b.u - a.u)];
      })
      .sort((a, b) => a - b);
    let seat = 0;
    for (let part = 0; part + 1 < cuts.length; part += 2) {
      const width = cuts[part + 1]! - cuts[part]!;
      const count = Math.floor(width / seatM + 1e-9);
      const first = cuts[part]! + (width - (count - 1) * seatM) / 2;
      for (let i = 0; i < count; i++) {
        const v = first + i * seatM;
        const at = { x: u * back.x + v * across.x, y: u * back.y + v * across.y };
        seat++;
        seats.push({
          id: `${area.id}-r${row}-s${seat}`,
          name: `${area.name}, row ${row}, seat ${seat}`,
          row,
          seat,
          position: { ...at, z: floorAt(shape, at) + floorM + (row - 1) * riseM + earM },
        });
      }
    }
  }
  return seats;
}

/** Height of ears at any point of an area, metres over the origin: of whoever sits in the row that goes there. */
export function earHeightAt(area: AudienceArea, shape: Pick<Shape, 'floorRise'>, at: Corner): number {
  const angle = (area.facingDeg * Math.PI) / 180;
  const along = (c: Corner) => -c.x * Math.cos(angle) - c.y * Math.sin(angle);
  const front = Math.min(...area.outline.map(along));
  const row = Math.max(0, Math.floor((along(at) - front) / area.rowM + 1e-9));
  return floorAt(shape, at) + area.floorM + row * area.riseM + area.earM;
}

/** The same where too many are told elsewhere: then there are none. */
export function seatsOrNone(area: AudienceArea, shape: Pick<Shape, 'floorRise'>): AreaSeat[] {
  try {
    return seatsOf(area, shape);
  } catch {
    return [];
  }
}
