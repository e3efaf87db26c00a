import { describe, expect, it } from 'vitest';
import type { FollowState } from '../services/followState';
import { CODE_LENGTH, FollowedRounds } from './rounds';

const state = { round: 'First round', phase: 'idle', spot: 'Home spot' } as FollowState;
const begun = (rounds: FollowedRounds) => {
  const round = rounds.begin('computer');
  rounds.publish(round.link, round.key, state);
  return round;
};

describe('a round that is followed', () => {
  it('shows itself to whoever has the code, in small letters and groups too, and takes what they ask for once', () => {
    const rounds = new FollowedRounds();
    const { code, key, link } = rounds.begin('computer');
    expect(code).toHaveLength(CODE_LENGTH);
    expect(rounds.publish(link, key, state)).toEqual([]);
    const paired = rounds.pair(`${code.slice(0, 4)} ${code.slice(4).toLowerCase()}`, 'phone');
    expect(rounds.look(paired)).toEqual(state);
    rounds.ask(paired, { do: 'take' });
    expect(rounds.publish(link, key, state)).toEqual([{ do: 'take' }]);
    expect(rounds.publish(link, key, state)).toEqual([]);
  });

  it('gives a stranger nothing, and makes one who guesses wait; a paired phone goes on, and so does one beside it', () => {
    let now = 0;
    const rounds = new FollowedRounds(() => now);
    const { code, link, key } = begun(rounds);
    for (let i = 0; i < 12; i++)
      expect(() => rounds.pair('AAAAAAAA', 'stranger')).toThrow(/No round answers/);
    expect(() => rounds.pair(code, 'stranger')).toThrow(/Too many wrong codes/);
    expect(rounds.look(link)).toEqual(state);
    expect(rounds.pair(code, 'phone')).toBe(link);
    now += 61_000;
    rounds.publish(link, key, state);
    expect(rounds.pair(code, 'stranger')).toBe(link);
  });

  it('makes all codes wait when many addresses guess together, and no link', () => {
    let now = 0;
    const rounds = new FollowedRounds(() => now);
    const { code, link } = begun(rounds);
    let refused = 0;
    for (let i = 0; i < 6000; i++) {
      now += 2;
      try {
        rounds.pair('AAAAAAAA', `stranger ${i % 1000}`);
      } catch (error) {
        if (/Too many/.test(String(error))) refused++;
      }
    }
    expect(refused).toBe(5400);
    expect(() => rounds.pair(code, 'phone')).toThrow(/scan the square/);
    expect(rounds.look(link)).toEqual(state);
  });

  it('cannot be published or ended with another key, and is forgotten when its tab falls silent', () => {
    let now = 0;
    const rounds = new FollowedRounds(() => now);
    const { link, key } = begun(rounds);
    expect(() => rounds.publish(link, 'f'.repeat(32), state)).toThrow(/over/);
    rounds.end(link, 'f'.repeat(32));
    expect(rounds.look(link)).toEqual(state);
    now = 61_000;
    expect(() => rounds.look(link)).toThrow(/over/);
    expect(() => rounds.publish(link, key, state)).toThrow(/over/);
  });

  it('does not pile up what is asked for, nor lets one address take all the room', () => {
    const rounds = new FollowedRounds();
    const { link } = begun(rounds);
    for (let i = 0; i < 8; i++) rounds.ask(link, { do: 'take' });
    expect(() => rounds.ask(link, { do: 'take' })).toThrow(/not answered yet/);
    for (let i = 0; i < 6; i++) rounds.begin('stranger');
    expect(() => rounds.begin('stranger')).toThrow(/Too many rounds/);
    expect(rounds.begin('another').code).toHaveLength(CODE_LENGTH);
  });
});
