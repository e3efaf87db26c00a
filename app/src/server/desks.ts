import { createHmac, randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import { HOUSE_UNIT } from '@pebble-hall/core/project';
import { houseMemory, plainMemory, Processor, UNIT_HEADER } from '@pebble-hall/stand-ins/processor';
import type { APIContext, AstroCookies } from 'astro';
import { BadRequest } from './answers';

const COOKIE = 'pebble-desk';
const YEAR_S = 60 * 60 * 24 * 365;
/** Cookies of this server alone are known, and only until it is started anew, as the processors are. */
const secret = randomBytes(32);
const signed = (id: string) => `${id}.${createHmac('sha256', secret).update(id).digest('hex')}`;

/** @returns the browser's id; null when the cookie is none of ours, or made up */
function idIn(value: string | undefined): string | null {
  const [id = ''] = (value ?? '').split('.');
  const [given, due] = [Buffer.from(value ?? ''), Buffer.from(signed(id))];
  return given.length === due.length && timingSafeEqual(given, due) ? id : null;
}

/** Knows a browser by its cookie, which is given to it where it has none. @returns its id, and whether it is a new one */
export function knownBrowser(cookies: AstroCookies): { id: string; isNew: boolean } {
  const id = idIn(cookies.get(COOKIE)?.value);
  if (id) return { id, isNew: false };
  const fresh = randomUUID();
  cookies.set(COOKIE, signed(fresh), { path: '/', httpOnly: true, sameSite: 'strict', maxAge: YEAR_S });
  return { id: fresh, isNew: true };
}

export interface DeskLimits {
  all: number;
  /** of one address */
  each: number;
  /** one that was used within this time is never switched off */
  usedMs: number;
}
const LIMITS: DeskLimits = { all: 400, each: 100, usedMs: 12 * 60 * 60 * 1000 };

interface Desk {
  processor: Processor;
  address: string;
  usedAt: number;
}

/**
 * Every place of every browser has a Skerry 12 of its own. One is kept once something is changed on it; until then it is as it
 * comes out of the box, and nobody can fill the shelf by looking.
 */
export class Desks {
  private readonly kept = new Map<string, Desk>();

  constructor(
    private readonly limits: DeskLimits = LIMITS,
    private readonly now: () => number = Date.now,
  ) {}

  /** @returns the one that is kept, or one out of the box that is forgotten after this request */
  look(id: string, unit: string): Processor {
    const desk = this.kept.get(`${id} ${unit}`);
    if (desk) desk.usedAt = this.now();
    return desk?.processor ?? outOfTheBox(unit);
  }

  /** @throws BadRequest 503 where all are in use */
  use(id: string, unit: string, address: string): Processor {
    const key = `${id} ${unit}`;
    const desk = this.kept.get(key);
    if (desk) return this.look(id, unit);
    const ofAddress = () => [...this.kept].filter(([, d]) => d.address === address);
    if (ofAddress().length >= this.limits.each) this.switchOffOldest(ofAddress());
    if (this.kept.size >= this.limits.all) this.switchOffOldest([...this.kept]);
    const processor = outOfTheBox(unit);
    this.kept.set(key, { processor, address, usedAt: this.now() });
    return processor;
  }

  private switchOffOldest(among: [string, Desk][]): void {
    const [oldest] = among.sort(([, a], [, b]) => a.usedAt - b.usedAt);
    if (!oldest || this.now() - oldest[1].usedAt < this.limits.usedMs)
      throw new BadRequest(
        503,
        'All processors of this server are in use. Start the server anew, or use another.',
      );
    this.kept.delete(oldest[0]);
  }
}

const outOfTheBox = (unit: string) => new Processor(unit === HOUSE_UNIT ? houseMemory() : plainMemory());

const desks = new Desks();

/** What of a request tells whose processor is meant; where it names no place, it is the one that somebody has set up already. */
type Asking = Pick<APIContext, 'cookies' | 'clientAddress'> & { request: Pick<Request, 'headers'> };

function unitOf({ request }: Asking): string {
  const asked = request.headers.get(UNIT_HEADER) ?? HOUSE_UNIT;
  return /^[A-Za-z0-9-]{1,64}$/.test(asked) ? asked : HOUSE_UNIT;
}

/** To look at, by anyone. */
export const processorSeen = (asking: Asking): Processor =>
  desks.look(knownBrowser(asking.cookies).id, unitOf(asking));

/**
 * To change something on.
 * @throws BadRequest 409 for a browser that this server does not know (yet); it is known the next time
 */
export function processorUsed(asking: Asking): Processor {
  const { id, isNew } = knownBrowser(asking.cookies);
  if (isNew)
    throw new BadRequest(409, 'The processor was switched on anew; nothing was changed on it. Try again.');
  return desks.use(id, unitOf(asking), asking.clientAddress);
}
