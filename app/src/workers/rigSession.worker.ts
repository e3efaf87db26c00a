import type { GeneratorOrder } from '@pebble-hall/core/live';
import {
  BURROW,
  SimulatedSession,
  type Faults,
  type SessionMicrophone,
  type SessionWays,
} from '@pebble-hall/stand-ins/rig';
import { SESSION_FRAMES } from '../ports/rig/rigSession';
import { SessionPump } from '../ports/rig/sessionPump';
import { serveJobs } from './serveJobs';

let session: SimulatedSession | null = null;

const jobs = {
  begin: ({ inputs, port, speed }: { inputs: number[]; port: MessagePort; speed: number }) => {
    session = new SimulatedSession(SESSION_FRAMES, inputs);
    new SessionPump(session, port, { inputs: inputs.length, rate: BURROW.rate, speed });
  },
  play: ({ order, outputs }: { order: GeneratorOrder; outputs: number[] }) => session?.play(order, outputs),
  set: ({ microphones, faults }: { microphones: SessionMicrophone[]; faults: Faults }) =>
    session?.set(microphones, faults),
  change: (ways: SessionWays) => session?.change(ways),
};
export type RigSessionJobs = typeof jobs;
serveJobs(jobs);
