import { describe, expect, it } from 'vitest';
import type { FollowState } from '../services/followState';
import { addressesInNetwork, CODE_LENGTH, FollowedRounds } from './rounds';

const state = { round: 'First round', phase: 'idle', spot: 'Home spot' } as FollowState;

describe('a round that is followed', () => {
  it('shows itself to whoever has the code, in small letters too, and takes what they ask for once', () => {
    const rounds = new FollowedRounds();
    const { code, key } = rounds.begin();
    expect(code).toHaveLength(CODE_LENGTH);
    expect(rounds.publish(code, key, state)).toEqual([]);
    expect(rounds.look(code.toLowerCase(), 'phone')).toEqual(state);
    rounds.ask(code, 'phone', { do: 'take' });
    expect(rounds.publish(code, key, state)).toEqual([{ do: 'take' }]);
    expect(rounds.publish(code, key, state)).toEqual([]);
  });

  it('gives a stranger nothing, and makes one who guesses wait; the phone with the code goes on', () => {
    let now = 0;
    const rounds = new FollowedRounds(() => now);
    const { code, key } = rounds.begin();
    rounds.publish(code, key, state);
    for (let i = 0; i < 12; i++) expect(() => rounds.look('AAAAAA', 'stranger')).toThrow(/No round answers/);
    expect(() => rounds.look(code, 'stranger')).toThrow(/Too many wrong codes/);
    expect(() => rounds.ask(code, 'stranger', { do: 'stop' })).toThrow(/Too many/);
    expect(rounds.look(code, 'phone')).toEqual(state);
    now += 61_000;
    rounds.publish(code, key, state);
    expect(rounds.look(code, 'stranger')).toEqual(state);
  });

  it('cannot be published or ended with another key, and is forgotten when its tab falls silent', () => {
    let now = 0;
    const rounds = new FollowedRounds(() => now);
    const { code, key } = rounds.begin();
    expect(() => rounds.publish(code, 'f'.repeat(32), state)).toThrow(/No round/);
    rounds.publish(code, key, state);
    rounds.end(code, 'f'.repeat(32));
    expect(rounds.look(code, 'phone')).toEqual(state);
    now = 61_000;
    expect(() => rounds.look(code, 'phone')).toThrow(/No round/);
    expect(() => rounds.publish(code, key, state)).toThrow(/No round/);
  });

  it('does not pile up what is asked for', () => {
    const rounds = new FollowedRounds();
    const { code, key } = rounds.begin();
    rounds.publish(code, key, state);
    for (let i = 0; i < 8; i++) rounds.ask(code, 'phone', { do: 'take' });
    expect(() => rounds.ask(code, 'phone', { do: 'take' })).toThrow(/not answered yet/);
  });
});

it('has no address for a phone while it listens to its own machine only', () => {
  expect(addressesInNetwork(undefined)).toEqual([]);
  expect(addressesInNetwork('127.0.0.1')).toEqual([]);
  expect(addressesInNetwork('192.0.2.7')).toEqual(['192.0.2.7']);
});
