import {
  generatorSource,
  type FoundDelay,
  type GeneratorSource,
  type LiveFrame,
} from '@pebble-hall/core/live';
import type { Point } from '@pebble-hall/core/geometry';
import type { GeneratorChoice, Project } from '@pebble-hall/core/project';
import { gainOfDb } from '@pebble-hall/core/signal';
import { isEqual } from 'es-toolkit';
import { createStore } from 'zustand/vanilla';
import { isAbort } from '../ports/abort';
import type { RigSession } from '../ports/rig';
import { projectNow, projectOwner, sentenceOf } from '../store';
import { deskSettings, deviceGenerator, signalOf, standOf, type LiveSubject } from './liveSettings';
import { runJob } from './jobs';
import { clearProblem, notifyProblem } from './notify';
import { onProcessorChanged } from './processorChanged';
import { exclusively, setSounds } from './running';
import { placeMicrophones, rigOf, turnKnobs } from './theRig';

/** A live session of this tab; it goes on whichever workbench is looked at. */
export interface LiveState {
  status: 'off' | 'starting' | 'on';
  /** Hz; of the last session while none is on */
  rate: number;
  /** connectors that stream */
  inputs: { number: number; name: string }[];
  isPaused: boolean;
  /** whether the generator plays */
  isPlaying: boolean;
  /** what is measured; another one stops the generator, as it plays elsewhere */
  subject: LiveSubject;
  /** what the generator plays where a file was chosen for it */
  file: { name: string; samples: Float32Array } | null;
}

const OFF = { status: 'off', isPaused: false, isPlaying: false } as const;
export const liveSession = createStore<LiveState>(() => ({
  ...OFF,
  rate: 48_000,
  inputs: [],
  file: null,
  subject: 'room',
}));

/** How everything stands, as often as somebody looks; curves go by subscription, past rendering. */
export const liveFrames = createStore<{ frame: LiveFrame | null }>(() => ({ frame: null }));

/** So many inputs of a large interface are streamed. */
const MOST_INPUTS = 16;
/** From one frame to the next while somebody looks, and while nobody does, ms. */
const LOOK_MS = 33;
const GLANCE_MS = 500;

let session: RigSession | null = null;
let stop: (() => void) | null = null;
let watchers = 0;
let spectra = 0;

/** Spectra are made until the returned function is called; what was averaged of them goes on when one steps away and back. */
export function watchSpectra(): () => void {
  spectra++;
  tellDesk(projectNow());
  return () => {
    spectra--;
    // a step to another page of Live comes back at once: only then it is told
    setTimeout(() => spectra === 0 && liveSession.getState().status === 'on' && tellDesk(projectNow()), 1000);
  };
}

function tellDesk(project: Project): void {
  const { status, rate, subject } = liveSession.getState();
  if (status !== 'on') return;
  void runJob('live.change', deskSettings(project, rate, spectra > 0, subject)).catch(() => {});
}

/** Turns the session to the room, or to a device on the bench. */
export function setSubject(subject: LiveSubject): void {
  if (liveSession.getState().subject === subject) return;
  setPlaying(false);
  liveSession.setState({ subject });
  tellDesk(projectNow());
}

/** Frames come quickly until the returned function is called. */
export function watchLive(): () => void {
  watchers++;
  return () => void watchers--;
}

/** Starts a session; what ends it by itself is told. */
export async function startLive(): Promise<void> {
  if (liveSession.getState().status !== 'off') return;
  clearProblem();
  try {
    await exclusively('Live session', run, () => setPlaying(false));
  } catch (error) {
    if (!isAbort(error)) notifyProblem(`Live session: ${sentenceOf(error)}`);
  } finally {
    session = null;
    stop = null;
    sent = null;
    liveSession.setState(OFF);
  }
}

/** Ends it; what was measured last stays on the screen. */
export const stopLive = (): void => stop?.();

async function run(signal: AbortSignal): Promise<void> {
  liveSession.setState({ status: 'starting' });
  const project = projectNow();
  const rig = rigOf(project);
  const { inputs: all } = await rig.open();
  const inputs = all.slice(0, MOST_INPUTS);
  standUp(project);
  const { port1, port2 } = new MessageChannel();
  let lose: (error: Error) => void = () => {};
  const ended = new Promise<void>((resolve, reject) => {
    lose = reject;
    stop = resolve;
    signal.addEventListener('abort', () => resolve(), { once: true });
  });
  ended.catch(() => {});
  session = await rig.session({ inputs: inputs.map((i) => i.number), port: port1 }, (error) => lose(error));
  const { rate } = session;
  const forget: (() => void)[] = [];
  try {
    await runJob(
      'live.begin',
      {
        port: port2,
        rate,
        inputs: inputs.map((i) => i.number),
        settings: deskSettings(project, rate, spectra > 0, liveSession.getState().subject),
      },
      { transfer: [port2] },
    );
    liveSession.setState({ status: 'on', rate, inputs });
    forget.push(projectOwner().store.subscribe(follow(project)));
    forget.push(onProcessorChanged(() => session?.refresh()));
    forget.push(lookAgain());
    await ended;
  } finally {
    for (const end of forget) end();
    session.stop();
    await runJob('live.end', undefined);
  }
}

/** Asks for frames, one after the other, until the returned function is called. */
function lookAgain(): () => void {
  let isOver = false;
  const look = async () => {
    while (!isOver) {
      const began = performance.now();
      const frame = await runJob('live.frame', undefined);
      if (isOver) return;
      if (frame) liveFrames.setState({ frame });
      const every = watchers > 0 && !document.hidden ? LOOK_MS : GLANCE_MS;
      await new Promise((resolve) => setTimeout(resolve, Math.max(4, every - (performance.now() - began))));
    }
  };
  look().catch((error: unknown) => {
    if (!isOver) notifyProblem(`Live session: ${sentenceOf(error)}`);
    stop?.();
  });
  return () => void (isOver = true);
}

/** What the project says of the session goes to whom it is for, when it changes. */
function follow(project: Project): () => void {
  let before = project;
  return () => {
    const state = projectOwner().store.getState();
    if (state.status !== 'ready' || state.project.id !== before.id) return stop?.();
    const now = state.project;
    const was = before;
    before = now;
    if (now.live !== was.live || now.rig !== was.rig || now.calibrations !== was.calibrations) tellDesk(now);
    if (now.rig !== was.rig || now.place !== was.place || now.live.stands !== was.live.stands) standUp(now);
    const bench = now.live.electronics;
    const benchBefore = was.live.electronics;
    if (now.place !== was.place || bench.knobs !== benchBefore.knobs || bench.inputs !== benchBefore.inputs)
      session?.refresh();
    if (
      !isEqual(now.live.generator, was.live.generator) ||
      now.place !== was.place ||
      bench.levelDbfs !== benchBefore.levelDbfs ||
      bench.output !== benchBefore.output
    )
      play();
  };
}

/** A microphone that is carried: what is heard moves with it, before it is put down. */
export function moveStand(microphoneId: string, at: Point): void {
  if (liveSession.getState().status !== 'on') return;
  const project = projectNow();
  standUp({ ...project, live: { ...project.live, stands: { ...project.live.stands, [microphoneId]: at } } });
}

/** Puts the microphones where they stand in a session. */
function standUp(project: Project): void {
  placeMicrophones(
    rigOf(project),
    project,
    project.rig.microphones.map((microphone) => ({ microphone, at: standOf(project, microphone.id) })),
  );
}

/** Knobs of a stand-in that a hand turns: what is heard turns with them, before they are let go. */
export function turnDeviceKnobs(knobs: Record<string, number> | null): void {
  turnKnobs(knobs);
  session?.refresh();
}

let made: { of: unknown; rate: number; source: GeneratorSource } | null = null;
/** The same source as long as the signal is the same, so that a change of level does not begin it anew. */
function sourceOf(generator: GeneratorChoice, rate: number): GeneratorSource | null {
  const signal = signalOf(generator, liveSession.getState().file);
  if (!signal) return null;
  if (!made || made.rate !== rate || !isEqual(made.of, signal))
    made = { of: signal, rate, source: generatorSource(signal, rate) };
  return made.source;
}

/** The generator plays from now on, or no longer. */
export function setPlaying(isPlaying: boolean): void {
  if (isPlaying && liveSession.getState().status !== 'on') return;
  liveSession.setState({ isPlaying });
  setSounds(isPlaying);
  play();
}

/** Gives the generator something to play from a file. */
export function setGeneratorFile(file: LiveState['file']): void {
  liveSession.setState({ file });
  play();
}

/** what the rig has been given to play */
let sent: GeneratorSource | null = null;

function play(): void {
  if (!session) return;
  const project = projectNow();
  const { isPlaying, rate, subject } = liveSession.getState();
  const generator = subject === 'device' ? deviceGenerator(project) : project.live.generator;
  const { loudspeakerIds, levelDbfs, alternateS } = generator;
  const outputs =
    subject === 'device'
      ? [project.live.electronics.output]
      : loudspeakerIds.flatMap((id) => project.place.loudspeakers.find((l) => l.id === id)?.output ?? []);
  const source = isPlaying && outputs.length > 0 ? sourceOf(generator, rate) : null;
  const alternate = outputs.length > 1 ? alternateS : null;
  try {
    // what it plays already goes on at another level
    const order = source && source === sent ? 'same' : source;
    session.play({ source: order, gain: source ? gainOfDb(levelDbfs) : 0, alternateS: alternate }, outputs);
    sent = source;
  } catch (error) {
    liveSession.setState({ isPlaying: false });
    setSounds(false);
    notifyProblem(`Generator: ${sentenceOf(error)}`);
  }
}

/** Forgets what was averaged, and begins anew. */
export const resetLive = (): Promise<unknown> => runJob('live.reset', undefined);

export async function pauseLive(isPaused: boolean): Promise<void> {
  liveSession.setState({ isPaused });
  await runJob('live.pause', isPaused);
}

/**
 * Plays something else through the device on the bench for a while, or nothing.
 * @param order a source at a level, or null for silence
 */
export function playOnBench(order: { source: GeneratorSource; levelDbfs: number } | null): void {
  if (!session) throw new Error('Start the session first.');
  setPlaying(false);
  setSounds(order !== null);
  sent = null;
  session.play(
    { source: order?.source ?? null, gain: order ? gainOfDb(order.levelDbfs) : 0, alternateS: null },
    [projectNow().live.electronics.output],
  );
}

export const findLiveDelay = (id: string, band?: { from: number; to: number }): Promise<FoundDelay | null> =>
  runJob('live.find', band ? { id, band } : { id });
