import { houseMemory, Processor } from '@pebble-hall/stand-ins/processor';
import type { AstroCookies } from 'astro';

/** Every browser has a Skerry 12 of its own, told apart by a cookie; the ones longest unused are switched off. */
const MOST_DESKS = 200;
const COOKIE = 'pebble-desk';
const desks = new Map<string, Processor>();

export function processorFor(cookies: AstroCookies): Processor {
  let id = cookies.get(COOKIE)?.value;
  if (!id || !/^[0-9a-f-]{36}$/.test(id)) {
    id = crypto.randomUUID();
    cookies.set(COOKIE, id, { path: '/', httpOnly: true, sameSite: 'strict', maxAge: 60 * 60 * 24 * 365 });
  }
  const desk = desks.get(id) ?? new Processor(houseMemory());
  desks.delete(id);
  desks.set(id, desk); // the newest lies last
  if (desks.size > MOST_DESKS) desks.delete(desks.keys().next().value!);
  return desk;
}
