import type { Correction } from '@pebble-hall/core/project';

/** A correction while a hand is on it. */
export interface Held {
  /** the stored one that the hand began with */
  on: Correction;
  next: Correction;
}

/** A design takes a few milliseconds; a hand is not held back for longer than this if it takes more. */
const MOST_MS = 40;

/**
 * A correction that a hand is moving. A move waits for the designs that come of it and is drawn with them, once: target and
 * prediction on screen are of one state, and the page draws half as often.
 */
export class HeldCorrection {
  private latest: Held | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly listeners = new Set<() => void>();
  private shown: Held | null = null;

  /** What the hand has made of `on` so far. */
  nextOf = (on: Correction): Correction => (this.latest?.on === on ? this.latest.next : on);

  /** The hand has moved; its designs are asked for. */
  move(held: Held): void {
    this.latest = held;
    this.timer ??= setTimeout(this.draw, MOST_MS);
  }

  /** The designs of a move have come. */
  draw = (): void => {
    clearTimeout(this.timer);
    this.timer = undefined;
    if (this.shown === this.latest) return;
    this.shown = this.latest;
    for (const listener of this.listeners) listener();
  };

  /** The hand has let go: it is drawn at once. */
  letGo(held: Held): void {
    this.latest = held;
    this.draw();
  }

  /** What the hand did could not be stored: what is stored stands. */
  takeBack(): void {
    this.latest = null;
    this.draw();
  }

  /** null while no hand is on it */
  drawn = (): Held | null => this.shown;

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
}
