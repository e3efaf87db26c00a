export const JSON_BODY = { 'content-type': 'application/json' };
export const json = (body: string) => ({ method: 'POST', headers: JSON_BODY, body });

/** Requests as a page of the server itself would make them: with its origin, and known by its cookie. */
export async function callsOf(url: string) {
  const newCookie = async () =>
    (await fetch(`${url}/api/processor`)).headers.get('set-cookie')!.split(';')[0]!;
  const cookie = await newCookie();
  const own = (path: string, init: RequestInit = {}, as = cookie) =>
    fetch(`${url}${path}`, {
      ...init,
      headers: { origin: url, cookie: as, ...(init.headers as Record<string, string>) },
    });
  return { own, newCookie, cookie };
}
