import '@mantine/core/styles.css';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import '../../parts/look.css';
import { Button, MantineProvider, NativeSelect, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import { FarFigures } from '../../parts/FarFigures';
import type { FollowCommand, FollowState } from '../../services/followState';
import { styleNonce } from '../../parts/styleNonce';
import { theme } from '../../parts/theme';
import { askFor, FollowProblem, lookAt, pairWith } from './followClient';

const LOOK_EVERY_MS = 400;
/** The link that a QR code brings along stands behind the #, which is sent to no server. */
const scanned = () => /^#([0-9a-f]{32})$/.exec(location.hash)?.[1] ?? null;

/** A round in the hand: what to do now, and the buttons to do it, for whoever has the pairing code or scanned its square. */
export function FollowWorkbench() {
  const [link, setLink] = useState<string | null>(scanned);
  const [state, setState] = useState<FollowState | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  useEffect(() => {
    if (!link) return;
    let timer: ReturnType<typeof setTimeout>;
    let over = false;
    const look = async () => {
      try {
        const next = await lookAt(link);
        if (over) return;
        setState(next);
        setProblem(null);
      } catch (error) {
        if (over) return;
        setProblem(error instanceof Error ? error.message : String(error));
        if (error instanceof FollowProblem && error.status === 404) {
          setLink(null);
          setState(null);
          return;
        }
      }
      timer = setTimeout(() => void look(), LOOK_EVERY_MS);
    };
    void look();
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [link]);

  const ask = (command: FollowCommand) => {
    if (!link) return;
    askFor(link, command).catch((error: unknown) =>
      setProblem(error instanceof Error ? error.message : String(error)),
    );
  };
  const pair = (code: string) =>
    pairWith(code).then(
      (found) => {
        setProblem(null);
        setLink(found);
      },
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    );
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto" {...styleNonce}>
      <main
        aria-label="Follow a round"
        style={{ minHeight: '100dvh', display: 'grid', alignContent: 'center', gap: 24, padding: 20 }}
      >
        {problem ? (
          <p role="alert" style={{ color: 'var(--buoy)', textAlign: 'center', fontSize: 17, margin: 0 }}>
            {problem}
          </p>
        ) : null}
        {state ? (
          <Followed state={state} ask={ask} />
        ) : link ? (
          <p className="quiet">Looking for the round …</p>
        ) : (
          <Pair onCode={(code) => void pair(code)} />
        )}
      </main>
    </MantineProvider>
  );
}

function Pair({ onCode }: { onCode: (code: string) => void }) {
  const [typed, setTyped] = useState('');
  return (
    <form
      style={{ display: 'grid', gap: 14, width: 'min(340px, 100%)', margin: '0 auto' }}
      onSubmit={(e) => {
        e.preventDefault();
        if (typed.trim()) onCode(typed);
      }}
    >
      <h1 style={{ fontSize: 26, margin: 0 }}>Follow a round</h1>
      <TextInput
        label="Pairing code"
        description="It stands on the screen that measures: Mic walk, Phone."
        size="lg"
        autoCapitalize="characters"
        autoComplete="off"
        maxLength={12}
        value={typed}
        onChange={(e) => setTyped(e.currentTarget.value)}
      />
      <Button size="lg" type="submit" disabled={typed.trim() === ''}>
        Follow
      </Button>
    </form>
  );
}

function Followed({ state, ask }: { state: FollowState; ask: (command: FollowCommand) => void }) {
  const { phase, spotId, spots } = state;
  return (
    <>
      <FarFigures state={state} />
      <div style={{ display: 'grid', gap: 12, width: 'min(420px, 100%)', margin: '0 auto' }}>
        {phase === 'idle' ? (
          <>
            <Button size="xl" fz={22} onClick={() => ask({ do: 'take' })}>
              Take this spot
            </Button>
            <Button size="md" variant="default" onClick={() => ask({ do: 'take all' })}>
              Take all that are left
            </Button>
            <NativeSelect
              aria-label="Spot"
              size="md"
              data={spots.map((s) => ({
                value: s.id,
                label: s.state === 'taken' ? `${s.name} (taken)` : s.name,
              }))}
              value={spotId}
              onChange={(e) => ask({ do: 'choose', spotId: e.currentTarget.value })}
            />
          </>
        ) : (
          <>
            {phase === 'counting' ? (
              <Button size="xl" fz={22} onClick={() => ask({ do: 'begin' })}>
                Begin now
              </Button>
            ) : null}
            <Button size="xl" fz={22} variant="default" onClick={() => ask({ do: 'stop' })}>
              Stop
            </Button>
          </>
        )}
      </div>
    </>
  );
}
