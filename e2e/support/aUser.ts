import { afterAll, beforeAll } from 'vitest';
import { startServer } from './server.mjs';
import { User } from './user';

/** A user at an empty browser, with a server of its own, for all tests of a file; both are let go of at its end. */
export function aUser(): User {
  const user = new User();
  let server: Awaited<ReturnType<typeof startServer>> | undefined;
  beforeAll(async () => {
    server = await startServer();
    await user.open(server.url);
  });
  afterAll(async () => {
    await user.close();
    await server?.stop();
  });
  return user;
}
