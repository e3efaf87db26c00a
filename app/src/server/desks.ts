import { HOUSE_UNIT } from '@pebble-hall/core/project';
import { houseMemory, plainMemory, Processor, UNIT_HEADER } from '@pebble-hall/stand-ins/processor';
import type { AstroCookies } from 'astro';

/**
 * Every place of every browser has a Skerry 12 of its own, browsers told apart by a cookie, places by a header; the ones longest
 * unused are switched off.
 */
const MOST_DESKS = 200;
const COOKIE = 'pebble-desk';
const desks = new Map<string, Processor>();

/** @param request tells the place; where it does not, it is the one that somebody has set up already */
export function processorFor(cookies: AstroCookies, { headers }: Pick<Request, 'headers'>): Processor {
  const asked = headers.get(UNIT_HEADER) ?? HOUSE_UNIT;
  const unit = /^[A-Za-z0-9-]{1,64}$/.test(asked) ? asked : HOUSE_UNIT;
  let id = cookies.get(COOKIE)?.value;
  if (!id || !/^[0-9a-f-]{36}$/.test(id)) {
    id = crypto.randomUUID();
    cookies.set(COOKIE, id, { path: '/', httpOnly: true, sameSite: 'strict', maxAge: 60 * 60 * 24 * 365 });
  }
  const key = `${id} ${unit}`;
  const desk = desks.get(key) ?? new Processor(unit === HOUSE_UNIT ? houseMemory() : plainMemory());
  desks.delete(key);
  desks.set(key, desk); // the newest lies last
  if (desks.size > MOST_DESKS) desks.delete(desks.keys().next().value!);
  return desk;
}
