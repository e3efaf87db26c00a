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

const at = (code: string) => `/api/follow/${encodeURIComponent(code)}`;

export const lookAt = async (code: string): Promise<FollowState> =>
  (await call<{ state: FollowState }>(at(code))).state;

export const askFor = (code: string, command: FollowCommand): Promise<unknown> =>
  call(`${at(code)}/commands`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(command),
  });
