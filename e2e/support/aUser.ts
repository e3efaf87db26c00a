import { afterAll, beforeAll } from 'vitest';
import { startServer } from './server.mjs';
import { User } from './user';

/** A user at an empty browser, with a server of its own, for all tests of a file; both are let go of at its end. */
export function aUser(options?: Parameters<User['open']>[1]): User {
  const user = new User();
  let server: Awaited<ReturnType<typeof startServer>> | undefined;
  beforeAll(async () => {
    server = await startServer();
    await user.open(server.url, options);
  });
  afterAll(async () => {
    await user.close();
    await server?.stop();
  });
  return user;
}

/** A browser that draws in 3D by the processor: there is no graphics card here. */
export const DRAWS_IN_THREE = { args: ['--use-angle=swiftshader', '--enable-unsafe-swiftshader'] };
