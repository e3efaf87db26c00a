import type { FollowCommand, FollowState } from '../../services/followState';

/** What the server says to a device that follows. */
export class FollowProblem extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

async function call<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new FollowProblem(
      0,
      'The computer that measures does not answer. Check that both are in one network.',
    );
  }
  const body = (await response.json().catch(() => ({}))) as T & { problem?: string };
  if (!response.ok) throw new FollowProblem(response.status, body.problem ?? 'The computer refused.');
  return body;
}

const post = (path: string, body: unknown): Promise<unknown> =>
  call(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const at = (link: string) => `/api/follow/${encodeURIComponent(link)}`;

/** The link of the round that has this code. */
export const pairWith = async (code: string): Promise<string> =>
  ((await post('/api/follow/pair', { code })) as { link: string }).link;

export const lookAt = async (link: string): Promise<FollowState> =>
  (await call<{ state: FollowState }>(at(link))).state;

export const askFor = (link: string, command: FollowCommand): Promise<unknown> =>
  post(`${at(link)}/commands`, command);
