import { trialSentence } from '../../words/trials';
import { Button, MultiSelect, SegmentedControl } from '@mantine/core';
import { type BlindTrial, type Project } from '@pebble-hall/core/project';
import { seededRandom, type Random } from '@pebble-hall/core/signal';
import { useEffect, useRef, useState } from 'react';
import type { Change } from '../../services/changeProject';
import { answerOf, nextTurn, type Turn } from './blind';
import type { Candidate } from './candidates';

interface BlindCardProps {
  project: Project;
  change: Change;
  candidates: Candidate[];
  active: boolean;
  onActive: (active: boolean) => void;
  spotName: string;
  material: string;
  matched: boolean;
  disabled: boolean;
  onPlay: (candidates: Candidate[], first: number) => void;
  onHear: (index: number) => void;
  onStop: () => void;
  /** whether something is to be heard */
  ready: boolean;
}

const MOST = 4;

/** A blind trial: candidates behind stones in random order, a choice in each turn, and at the end what chance would give. */
export function BlindCard(props: BlindCardProps) {
  const { project, change, candidates, active, onActive } = props;
  const [kind, setKind] = useState<Turn['kind']>('preference');
  const [picked, setPicked] = useState<string[]>(candidates.slice(0, 2).map((c) => c.source));
  const [turn, setTurn] = useState<Turn | null>(null);
  const [stone, setStone] = useState(0);
  const [answers, setAnswers] = useState<number[]>([]);
  const random = useRef<Random | null>(null);
  const taking = candidates
    .filter((c) => picked.includes(c.source))
    .slice(0, kind === 'preference' ? MOST : 2);
  const last = project.trials.at(-1);
  const begin = () => {
    random.current = seededRandom(crypto.getRandomValues(new Uint32Array(1))[0]!);
    const first = nextTurn(kind, taking.length, random.current);
    setTurn(first);
    setStone(0);
    setAnswers([]);
    onActive(true);
    props.onPlay(taking, first.order[0]!);
  };
  const hear = (i: number) => {
    setStone(i);
    props.onHear(turn!.order[i]!);
  };
  // the same keys as with open eyes: the number of what is to be heard
  useEffect(() => {
    if (!active || !turn) return;
    const onKey = (event: KeyboardEvent) => {
      const typing = (event.target as Element | null)?.closest?.('input, textarea');
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      const digit = Number(event.key);
      if (!(digit >= 1 && digit <= turn.order.length)) return;
      hear(digit - 1);
      event.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
  const answer = (choice: number | 'same' | 'different') => {
    setAnswers([...answers, answerOf(turn!, choice)]);
    const next = nextTurn(kind, taking.length, random.current!);
    setTurn(next);
    setStone(0);
    props.onHear(next.order[0]!);
  };
  const end = () => {
    props.onStop();
    onActive(false);
    setTurn(null);
    if (answers.length === 0) return;
    const trial: BlindTrial = {
      id: crypto.randomUUID(),
      kind,
      startedAt: Date.now(),
      spotName: props.spotName,
      material: props.material,
      candidates: taking,
      answers,
      matched: props.matched,
    };
    void change(`blind trial of ${taking.map((c) => c.name).join(', ')}`, (p) => ({
      ...p,
      trials: [...p.trials, trial],
    }));
  };
  if (active && turn)
    return (
      <section className="card" aria-label="Blind">
        <h2>
          Blind{' '}
          <small>
            keys 1 to {turn.order.length}, turn {answers.length + 1}
          </small>
        </h2>
        <div style={{ display: 'flex', gap: 10 }} role="group" aria-label="Stones">
          {turn.order.map((_, i) => (
            <button
              key={i}
              className="chip"
              style={{
                padding: '10px 18px',
                fontSize: 16,
                borderRadius: '52% 48% 58% 42% / 46% 56% 44% 54%',
              }}
              aria-label={`Stone ${i + 1}`}
              aria-pressed={i === stone}
              onClick={() => hear(i)}
            >
              {i + 1}
            </button>
          ))}
        </div>
        <div style={{ display: 'flex', gap: 6, flexWrap: 'wrap' }}>
          {kind === 'preference' ? (
            <Button size="compact-sm" disabled={!props.ready} onClick={() => answer(stone)}>
              Stone {stone + 1} is better
            </Button>
          ) : (
            <>
              <Button size="compact-sm" disabled={!props.ready} onClick={() => answer('same')}>
                The same
              </Button>
              <Button size="compact-sm" disabled={!props.ready} onClick={() => answer('different')}>
                Different
              </Button>
            </>
          )}
          <Button size="compact-sm" variant="default" onClick={end}>
            End and tell
          </Button>
        </div>
      </section>
    );
  return (
    <section className="card" aria-label="Blind">
      <h2>
        Blind
        <SegmentedControl
          size="xs"
          aria-label="Kind of trial"
          data={[
            { value: 'preference', label: 'Which is better' },
            { value: 'same or different', label: 'Same or not' },
          ]}
          value={kind}
          onChange={(v) => setKind(v as Turn['kind'])}
        />
      </h2>
      <div className="row">
        <MultiSelect
          size="xs"
          style={{ flex: 1, minWidth: 0 }}
          aria-label="Candidates"
          maxValues={kind === 'preference' ? MOST : 2}
          data={candidates.map((c) => ({ value: c.source, label: c.name }))}
          value={picked}
          onChange={setPicked}
        />
        <Button
          size="compact-sm"
          style={{ flexShrink: 0 }}
          disabled={props.disabled || taking.length < 2}
          onClick={begin}
        >
          Begin
        </Button>
      </div>
      <small className="quiet" role="status" aria-label="Last blind trial" style={{ overflow: 'auto' }}>
        {last
          ? trialSentence(last)
          : 'Two to four candidates in random order; the result is kept with what chance would give.'}
      </small>
    </section>
  );
}
