import { isEqual } from 'es-toolkit';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { sentenceOf } from '../store';
import { Derivation, type Compute, type DerivationOptions } from './derivation';

export interface DerivedState<T> {
  /** null until it is there; never of anything else than what is asked for */
  value: T | null;
  /** why it cannot be had, as a sentence */
  problem: string | null;
  busy: boolean;
  share: number | null;
}

/**
 * A value that takes time to work out, from inputs that change: computed again when they are other ones (compared by their
 * contents), cancelled when nobody looks, and shown only with what it was asked for.
 * @param inputs all that it is computed from; null asks for nothing
 * @param compute a function of the module, not of the render: it gets all it needs with the inputs
 */
export function useDerived<Inputs extends object, T>(
  inputs: Inputs | null,
  compute: Compute<Inputs, T>,
  options?: DerivationOptions<Inputs>,
): DerivedState<T> {
  const [derivation] = useState(() => new Derivation(compute, options));
  return useDerivation(derivation, inputs);
}

/** The same of a derivation that others ask, too. */
export function useDerivation<Inputs extends object, T>(
  derivation: Derivation<Inputs, T>,
  inputs: Inputs | null,
): DerivedState<T> {
  const asked = useAlike(inputs);
  useEffect(() => derivation.ask(asked), [derivation, asked]);
  useEffect(() => () => derivation.stop(), [derivation]);
  const read = () => derivation.shownFor(asked);
  const { value, error, busy, share } = useSyncExternalStore(derivation.subscribe, read, read);
  return { value, problem: error === null ? null : sentenceOf(error), busy, share };
}

/** The same value as long as its contents are. */
export function useAlike<T>(value: T): T {
  const [held, setHeld] = useState(value);
  if (isEqual(held, value)) return held;
  setHeld(value);
  return value;
}
