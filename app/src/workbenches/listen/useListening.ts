import type { ListeningChain, Project } from '@pebble-hall/core/project';
import { useEffect, useRef, useState } from 'react';
import { CandidatePlayer } from '../../services/candidatePlayer';
import { exclusively, silence } from '../../services/running';
import { notifyProblem } from '../../services/notify';
import { isAbort } from '../../ports/abort';
import { sentenceOf } from '../../store';
import type { CandidateOutput, Rendered } from '@pebble-hall/core/auralisation';
import type { CorrectedHeadphones } from '@pebble-hall/core/correct';
import { runJob } from '../../services/jobs';
import { waysOf, type Candidate, type Place } from './candidates';
import { RATE, type Material } from '../../services/listenMaterial';

export interface Heard {
  candidates: Candidate[];
  rendered: Rendered;
}

export interface ListenRequest {
  candidates: Candidate[];
  chain: ListeningChain | null;
  place: Place;
  material: Material;
  section: { fromS: number; toS: number };
  matched: boolean;
  loops: boolean;
  /** for headphones: their correction */
  corrected?: CorrectedHeadphones | null;
  /** for a file: at the level that it has by itself */
  ownLevel?: boolean;
}

/** Rendering, playing and switching of candidates. */
export function useListening(project: Project) {
  const player = useRef<CandidatePlayer | null>(null);
  const [playing, setPlaying] = useState(false);
  const [work, setWork] = useState<string | null>(null);
  const [heard, setHeard] = useState<Heard | null>(null);
  const [at, setAt] = useState(0);
  const [positionS, setPositionS] = useState(0);
  const stopWaiting = useRef<(() => void) | null>(null);

  useEffect(() => {
    const timer = setInterval(() => player.current?.playing && setPositionS(player.current.position()), 100);
    return () => clearInterval(timer);
  }, []);
  useEffect(
    () => () => {
      void player.current?.stop();
      stopWaiting.current?.();
    },
    [],
  );

  /** Renders all candidates alike. Rendered again only when something of them changes. */
  const render = async (request: ListenRequest): Promise<Heard> => {
    const {
      candidates,
      chain,
      place,
      material,
      section,
      matched,
      loops,
      ownLevel = false,
      corrected = null,
    } = request;
    setWork('Preparing what is to be heard …');
    try {
      const ways: CandidateOutput[][] = [];
      for (const c of candidates)
        ways.push(
          await waysOf(
            project,
            c,
            place,
            c.source === chain?.source && c.name === chain.name ? chain : null,
            corrected,
          ),
        );
      const [from, to] = [section.fromS, section.toS].map((s) => Math.round(s * RATE)) as [number, number];
      const cut = material.channels.map((c) => c.slice(from, Math.max(from + RATE / 4, to)));
      const rendered = await runJob(
        'listen.render',
        { material: cut, candidates: ways, matched, loops, ownLevel },
        { transfer: cut },
      );
      return { candidates, rendered };
    } finally {
      setWork(null);
    }
  };

  const play = async (request: ListenRequest, first = 0) => {
    if (player.current?.playing) silence();
    try {
      const now = await render(request);
      setHeard(now);
      await exclusively('Listening', async (signal) => {
        const rigOutput = project.rig.kind === 'web audio' ? (project.rig.device?.outputId ?? '') : '';
        const mine = new CandidatePlayer(RATE, request.chain ? request.chain.outputId : rigOutput);
        player.current = mine;
        const ended = new Promise<void>((resolve) => {
          stopWaiting.current = resolve;
          signal.addEventListener('abort', () => resolve());
        });
        setAt(first);
        await mine.play(now.rendered.sounds, first, request.loops, () => stopWaiting.current?.());
        setPlaying(true);
        await ended;
        await mine.stop();
      });
    } catch (error) {
      if (!isAbort(error)) notifyProblem(`Not played: ${sentenceOf(error)}`);
    } finally {
      setPlaying(false);
      setPositionS(0);
    }
  };

  const hear = (index: number) => {
    setAt(index);
    player.current?.hear(index);
  };
  const stop = () => stopWaiting.current?.();
  return { playing, work, heard, at, positionS, play, hear, stop, render };
}
