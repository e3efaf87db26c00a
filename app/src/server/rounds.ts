import { networkInterfaces } from 'node:os';
import { randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import Joi from 'joi';
import type { FollowCommand, FollowState } from '../services/followState';
import { BadRequest } from './answers';

/**
 * Rounds that can be followed from a second device: the tab that measures publishes where it is and fetches what was
 * asked for; whoever has the pairing code may look and ask. Nothing is kept once the tab stops publishing.
 */
interface FollowedRound {
  key: string;
  state: FollowState | null;
  commands: FollowCommand[];
  publishedAt: number;
}

/** No 0 and O, 1 and I: the code is read off one screen and typed into another. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
export const CODE_LENGTH = 6;
/** A round whose tab is silent for so long is over. */
const FORGOTTEN_MS = 60_000;
const MOST_ROUNDS = 50;
const MOST_COMMANDS = 8;
/** Wrong codes from one address within a minute before it has to wait: guessing would take centuries. */
const MOST_GUESSES = 12;
const GUESS_MS = 60_000;

const text = Joi.string().max(300).allow('');
export const stateSchema: Joi.Schema<{ key: string; state: FollowState }> = Joi.object({
  key: Joi.string().hex().length(32),
  state: Joi.object({
    round: text,
    phase: Joi.valid('idle', 'counting', 'sweeping'),
    spotId: text,
    spot: text,
    where: text,
    channel: text.allow(null),
    leftS: Joi.number().min(0).max(1000),
    done: Joi.number().min(0).max(100_000),
    total: Joi.number().min(0).max(100_000),
    share: Joi.number().min(0).max(1),
    spots: Joi.array()
      .items(Joi.object({ id: text, name: text, state: Joi.valid('taken', 'trouble', 'now', 'empty') }))
      .max(1000),
    trouble: text.allow(null),
  }),
});
export const commandSchema: Joi.Schema<FollowCommand> = Joi.alternatives(
  Joi.object({ do: Joi.valid('take', 'take all', 'begin', 'stop') }),
  Joi.object({ do: Joi.valid('choose'), spotId: Joi.string().max(64) }),
);

export class FollowedRounds {
  private readonly rounds = new Map<string, FollowedRound>();
  private readonly guesses = new Map<string, number[]>();

  constructor(private readonly now: () => number = Date.now) {}

  /** A new round to follow, with the code for others and the key for the tab that measures. */
  begin(): { code: string; key: string } {
    this.forget();
    if (this.rounds.size >= MOST_ROUNDS)
      throw new BadRequest(503, 'Too many rounds are followed at the moment. Close one of them.');
    let code: string;
    do code = Array.from({ length: CODE_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');
    while (this.rounds.has(code));
    const key = randomBytes(16).toString('hex');
    this.rounds.set(code, { key, state: null, commands: [], publishedAt: this.now() });
    return { code, key };
  }

  /** Tells how far the round is; returns what was asked for meanwhile, once. */
  publish(code: string, key: string, state: FollowState): FollowCommand[] {
    const round = this.rounds.get(code);
    if (!round || !same(round.key, key)) throw unknown();
    round.state = state;
    round.publishedAt = this.now();
    return round.commands.splice(0);
  }

  end(code: string, key: string): void {
    const round = this.rounds.get(code);
    if (round && same(round.key, key)) this.rounds.delete(code);
  }

  /** @throws BadRequest 404 for a wrong code, 429 after too many of them */
  look(code: string, from: string): FollowState {
    const { state } = this.find(code, from);
    if (!state) throw new BadRequest(409, 'The round is about to begin; try again in a moment.');
    return state;
  }

  ask(code: string, from: string, command: FollowCommand): void {
    const { commands } = this.find(code, from);
    if (commands.length >= MOST_COMMANDS)
      throw new BadRequest(429, 'The computer has not answered yet; wait a moment.');
    commands.push(command);
  }

  private find(code: string, from: string): FollowedRound {
    this.forget();
    const wrong = (this.guesses.get(from) ?? []).filter((at) => this.now() - at < GUESS_MS);
    if (wrong.length >= MOST_GUESSES)
      throw new BadRequest(429, 'Too many wrong codes. Wait a minute, then read the code again.');
    const round = this.rounds.get(code.toUpperCase());
    if (!round) {
      this.guesses.set(from, [...wrong, this.now()]);
      throw unknown();
    }
    return round;
  }

  private forget(): void {
    for (const [code, { publishedAt }] of this.rounds)
      if (this.now() - publishedAt > FORGOTTEN_MS) this.rounds.delete(code);
    if (this.guesses.size > 10_000) this.guesses.clear();
  }
}

const same = (a: string, b: string) =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));
const unknown = () =>
  new BadRequest(404, 'No round answers to this code. Read it again from the computer that measures.');

/** The one register of this server. */
export const followedRounds = new FollowedRounds();

/** Addresses of this machine in its networks, for the phone; none where the server listens to the machine itself only. */
export function addressesInNetwork(listensOn: string | undefined): string[] {
  if (!listensOn || ['localhost', '127.0.0.1', '::1'].includes(listensOn)) return [];
  const own = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((n) => n.family === 'IPv4' && !n.internal)
    .map((n) => n.address);
  return ['0.0.0.0', '::', 'true'].includes(listensOn) ? own : [listensOn];
}
