import { randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import Joi from 'joi';
import type { FollowCommand, FollowState } from '../services/followState';
import { BadRequest } from './answers';

/**
 * Rounds that can be followed from a second device: the tab that measures publishes where it is and fetches what was
 * asked for. Another device pairs with a short code that is read off the screen, or with the long link of its QR code, and
 * goes on with the link: guessing codes neither finds a round nor shuts a paired device out. Nothing is kept once the tab
 * stops publishing.
 */
interface FollowedRound {
  code: string;
  link: string;
  key: string;
  from: string;
  state: FollowState | null;
  commands: FollowCommand[];
  publishedAt: number;
}

/** What the tab that measures gets: the code and the link for others, the key to publish with. */
export interface BegunRound {
  code: string;
  link: string;
  key: string;
}

/** No 0 and O, 1 and I: the code is read off one screen and typed into another. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
export const CODE_LENGTH = 8;
/** A round whose tab is silent for so long is over. */
const FORGOTTEN_MS = 60_000;
const MOST_ROUNDS = 200;
/** Of one address: nobody takes all the room. */
const MOST_OF_ONE = 6;
const MOST_COMMANDS = 8;
/**
 * Wrong codes within a minute, of one address and of all, before codes have to wait: 2^40 codes at this rate take three
 * thousand years. Links do not wait, they cannot be guessed.
 */
const MOST_GUESSES = 12;
const MOST_GUESSES_OF_ALL = 600;
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

export const pairSchema: Joi.Schema<{ code: string }> = Joi.object({ code: Joi.string().max(40) });

export class FollowedRounds {
  /** by their links */
  private readonly rounds = new Map<string, FollowedRound>();
  private guesses: { from: string; at: number }[] = [];

  constructor(private readonly now: () => number = Date.now) {}

  /**
   * A new round to follow.
   * @param from address that asks
   * @throws BadRequest 429 where too many are followed
   */
  begin(from: string): BegunRound {
    this.forget();
    const rounds = [...this.rounds.values()];
    if (rounds.length >= MOST_ROUNDS || rounds.filter((r) => r.from === from).length >= MOST_OF_ONE)
      throw new BadRequest(429, 'Too many rounds are followed at the moment. Close one of them.');
    let code: string;
    do code = Array.from({ length: CODE_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');
    while (rounds.some((r) => r.code === code));
    const [link, key] = [randomBytes(16).toString('hex'), randomBytes(16).toString('hex')];
    this.rounds.set(link, { code, link, key, from, state: null, commands: [], publishedAt: this.now() });
    return { code, link, key };
  }

  /** Tells how far the round is; returns what was asked for meanwhile, once. */
  publish(link: string, key: string, state: FollowState): FollowCommand[] {
    const round = this.rounds.get(link);
    if (!round || !same(round.key, key)) throw over();
    round.state = state;
    round.publishedAt = this.now();
    return round.commands.splice(0);
  }

  end(link: string, key: string): void {
    const round = this.rounds.get(link);
    if (round && same(round.key, key)) this.rounds.delete(link);
  }

  /**
   * The link of a round by its code.
   * @throws BadRequest 404 for a wrong code, 429 after too many of them
   */
  pair(code: string, from: string): string {
    this.forget();
    if (
      this.guesses.length >= MOST_GUESSES_OF_ALL ||
      this.guesses.filter((guess) => guess.from === from).length >= MOST_GUESSES
    )
      throw new BadRequest(
        429,
        'Too many wrong codes. Wait a minute, then read the code again, or scan the square beside it.',
      );
    const asked = code.toUpperCase().replace(/[^A-Z0-9]/g, '');
    const round = [...this.rounds.values()].find((r) => same(r.code, asked));
    if (round) return round.link;
    this.guesses.push({ from, at: this.now() });
    throw new BadRequest(
      404,
      'No round answers to this code. Read it again from the computer that measures.',
    );
  }

  /** @throws BadRequest 404 where the round is over */
  look(link: string): FollowState {
    const { state } = this.find(link);
    if (!state) throw new BadRequest(409, 'The round is about to begin; try again in a moment.');
    return state;
  }

  ask(link: string, command: FollowCommand): void {
    const { commands } = this.find(link);
    if (commands.length >= MOST_COMMANDS)
      throw new BadRequest(429, 'The computer has not answered yet; wait a moment.');
    commands.push(command);
  }

  private find(link: string): FollowedRound {
    this.forget();
    const round = this.rounds.get(link);
    if (!round) throw over();
    return round;
  }

  private forget(): void {
    for (const [link, { publishedAt }] of this.rounds)
      if (this.now() - publishedAt > FORGOTTEN_MS) this.rounds.delete(link);
    this.guesses = this.guesses.filter(({ at }) => this.now() - at < GUESS_MS);
  }
}

const same = (a: string, b: string) =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));
const over = () => new BadRequest(404, 'This round is over. Pair again with the computer that measures.');

/** The one register of this server. */
export const followedRounds = new FollowedRounds();
