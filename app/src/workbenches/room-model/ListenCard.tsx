import { Button, NativeSelect, SegmentedControl } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { OwnHead } from '@pebble-hall/core/project';
import { isAbort } from '../../ports/abort';
import { FilePicker } from '../../parts/FilePicker';
import { CandidatePlayer } from '../../services/candidatePlayer';
import { runJob, type RunAsked } from '../../services/jobs';
import { OWN_MATERIALS, RATE, shippedMaterial, type MaterialKind } from '../../services/listenMaterial';
import { notifyProblem } from '../../services/notify';
import { exclusively } from '../../services/running';
import { isOneOf, useKept } from '../../services/useKept';
import { sentenceOf } from '../../store';
import { headNumbers, takeHead } from './ownHead';
import { SaveResponse } from './SaveResponse';

interface Props {
  asked: RunAsked | null;
  askedBeside: RunAsked | null;
  index: number;
  besideIndex: number;
  name: string;
  head: OwnHead | null;
}

const EARS = ['two ears', 'one ear', 'own head'] as const;
type Ears = (typeof EARS)[number];
/** Chosen among ears: asks for a file. */
const FROM_FILE = 'from a file';
const PIECES = OWN_MATERIALS.filter((m) => m.value !== 'band');
const ANY_BAND = { from: 100, to: 10_000, name: 'Noise' };
/** So much of a piece is heard, seconds. */
const PIECE_S = 12;

/** What a worker is asked to hear with. */
const hearing = async (ears: Ears, head: OwnHead | null) =>
  ears === 'own head' && head
    ? { hearer: 'two ears' as const, head: await headNumbers(head) }
    : { hearer: ears === 'one ear' ? ears : ('two ears' as const) };

/** A piece as it would be heard at a receiver, with the ears of a head or with one; beside it the same in another run, at matched loudness. */
export function ListenCard({ asked, askedBeside, index, besideIndex, name, head }: Props) {
  const [piece, setPiece] = useState<MaterialKind>('story');
  const [kept, setEars] = useKept<Ears>('room-model ears', EARS[0], isOneOf(EARS));
  // a head of another project is not here
  const ears = kept === 'own head' && !head ? 'two ears' : kept;
  const picker = useRef<HTMLInputElement>(null);
  const [work, setWork] = useState<string | null>(null);
  const [playing, setPlaying] = useState(false);
  const [at, setAt] = useState(0);
  const player = useRef<CandidatePlayer | null>(null);
  const stopped = useRef<(() => void) | null>(null);
  /** what was asked for last: an answer to anything earlier, or after the page was left, is not played */
  const turn = useRef(0);
  const end = () => {
    turn.current++;
    void player.current?.stop();
    stopped.current?.();
    stopped.current = null;
    setPlaying(false);
  };
  useEffect(
    () => () => {
      turn.current++;
      void player.current?.stop();
      stopped.current?.();
    },
    [],
  );
  const responses = async () => {
    const how = { rate: RATE, ...(await hearing(ears, head)) };
    return Promise.all(
      [
        ...(asked ? [{ ...asked, index, ...how }] : []),
        ...(askedBeside ? [{ ...askedBeside, index: besideIndex, ...how }] : []),
      ].map((of) => runJob('rays.response', of)),
    );
  };
  const take = async (file: File) => {
    end();
    setWork('Reading the head …');
    try {
      if (await takeHead(file)) setEars('own head');
    } catch (error) {
      notifyProblem(`${file.name}: ${sentenceOf(error)}`);
    } finally {
      setWork(null);
    }
  };
  const play = async () => {
    const mine = ++turn.current;
    setWork('Working out what is heard …');
    try {
      const [{ channels }, ...heard] = await Promise.all([
        shippedMaterial(piece, ANY_BAND),
        ...(await responses()),
      ]);
      const mono = channels[0]!.slice(0, PIECE_S * RATE);
      const rendered = await runJob('listen.renderResponses', {
        material: mono,
        candidates: heard.map((h) => h.channels),
        matched: true,
        loops: true,
      });
      if (turn.current !== mine) return;
      setWork(null);
      const first = Math.min(at, rendered.sounds.length - 1);
      setAt(first);
      await exclusively('listening', async (signal) => {
        const made = new CandidatePlayer(RATE);
        player.current = made;
        const over = new Promise<void>((resolve) => {
          stopped.current = resolve;
          signal.addEventListener('abort', () => resolve(), { once: true });
        });
        await made.play(rendered.sounds, first, true, () => stopped.current?.());
        setPlaying(true);
        await over;
        setPlaying(false);
        await made.stop();
      });
    } catch (error) {
      setPlaying(false);
      if (!isAbort(error)) notifyProblem(`It cannot be heard: ${sentenceOf(error)}`);
    } finally {
      setWork(null);
    }
  };
  return (
    <section className="card" aria-label="Listen">
      <h2>
        Listen<small>{work ?? 'at matched loudness'}</small>
      </h2>
      <div className="row" style={{ gap: 6 }}>
        <NativeSelect
          size="xs"
          aria-label="Piece"
          data={PIECES.map(({ value, label }) => ({ value, label }))}
          value={piece}
          onChange={(e) => {
            end();
            setPiece(e.currentTarget.value as MaterialKind);
          }}
          style={{ flex: 1 }}
        />
        <NativeSelect
          size="xs"
          aria-label="Ears"
          data={[
            'two ears',
            'one ear',
            ...(head ? [{ value: 'own head', label: `ears of ${head.name}` }] : []),
            { value: FROM_FILE, label: 'a head from a file …' },
          ]}
          value={ears}
          onChange={(e) => {
            const { value } = e.currentTarget;
            if (value === FROM_FILE) return picker.current?.click();
            end();
            setEars(value as Ears);
          }}
        />
        <Button
          size="compact-sm"
          disabled={!asked || work !== null}
          onClick={() => (playing ? end() : void play())}
        >
          {playing ? 'Stop' : 'Play'}
        </Button>
      </div>
      <div className="row" style={{ gap: 6 }}>
        {askedBeside ? (
          <SegmentedControl
            size="xs"
            aria-label="Which run is heard"
            data={[
              { value: '0', label: asked?.run.name ?? '' },
              { value: '1', label: askedBeside.run.name },
            ]}
            value={String(at)}
            onChange={(v) => {
              setAt(Number(v));
              player.current?.hear(Number(v));
            }}
          />
        ) : (
          <small className="quiet">Choose a run beside it to compare.</small>
        )}
        <SaveResponse asked={asked} index={index} name={name} head={head} />
      </div>
      <FilePicker
        label="Head as an AES69 file"
        accept=".sofa"
        picker={picker}
        onFile={(file) => void take(file)}
      />
    </section>
  );
}
