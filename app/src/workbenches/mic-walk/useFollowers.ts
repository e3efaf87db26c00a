import { useEffect, useRef, useState } from 'react';
import type { FollowCommand, FollowState } from '../../services/followState';

export interface Followers {
  /** null while nobody can follow */
  code: string | null;
  /** what makes the address of the page a link to this round, for the QR code */
  link: string | null;
  /** where a phone finds the page; none where the server listens to this machine only */
  addresses: string[];
  problem: string | null;
  open: () => Promise<void>;
  close: () => void;
}

const PUBLISH_EVERY_MS = 350;
const KEPT = 'pebble-hall.following';

interface Session {
  code: string;
  link: string;
  key: string;
  addresses: string[];
}

const kept = (): Session | null => {
  try {
    const session = JSON.parse(sessionStorage.getItem(KEPT) ?? 'null') as Session | null;
    return session?.link ? session : null;
  } catch {
    return null;
  }
};

/**
 * Lets others follow the round: publishes where it is and does what they ask for. The pairing survives a reload of this
 * tab, not its closing.
 */
export function useFollowers(state: FollowState, onCommand: (command: FollowCommand) => void): Followers {
  const [session, setSession] = useState<Session | null>(kept);
  const [problem, setProblem] = useState<string | null>(null);
  const latest = useRef({ state, onCommand });
  latest.current = { state, onCommand };

  useEffect(() => {
    if (!session) {
      sessionStorage.removeItem(KEPT);
      return;
    }
    sessionStorage.setItem(KEPT, JSON.stringify(session));
    let timer: ReturnType<typeof setTimeout>;
    let over = false;
    const publish = async () => {
      try {
        const response = await fetch(`/api/follow/${session.link}`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ key: session.key, state: latest.current.state }),
        });
        if (over) return;
        if (response.status === 404) {
          setSession(null); // the server was started anew
          setProblem('The pairing has ended. Open it again for a new code.');
          return;
        }
        const { commands } = (await response.json()) as { commands?: FollowCommand[] };
        for (const command of commands ?? []) latest.current.onCommand(command);
      } catch {
        // the server is away for the moment: the round goes on without it
      }
      if (!over) timer = setTimeout(() => void publish(), PUBLISH_EVERY_MS);
    };
    void publish();
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [session]);

  return {
    code: session?.code ?? null,
    link: session?.link ?? null,
    addresses: session?.addresses ?? [],
    problem,
    open: async () => {
      setProblem(null);
      try {
        const response = await fetch('/api/follow', {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: '{}',
        });
        if (!response.ok) throw new Error(((await response.json()) as { problem: string }).problem);
        setSession((await response.json()) as Session);
      } catch (error) {
        setProblem(error instanceof Error ? error.message : String(error));
      }
    },
    close: () => {
      if (session)
        void fetch(`/api/follow/${session.link}`, {
          method: 'DELETE',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ key: session.key }),
        }).catch(() => undefined);
      setSession(null);
    },
  };
}
