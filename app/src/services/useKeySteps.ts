import { useRef } from 'react';
import { KeySteps } from './keySteps';

/** Steps by keys that are not lost, however fast they come. @param shown the value as it is drawn */
export function useKeySteps<T>(shown: T, isSame?: (a: T, b: T) => boolean): KeySteps<T> {
  const steps = useRef<KeySteps<T> | null>(null);
  steps.current ??= new KeySteps(shown, isSame);
  steps.current.shows(shown);
  return steps.current;
}

/** For values that are made anew at every drawing. */
export const isAlike = <T>(a: T, b: T): boolean => JSON.stringify(a) === JSON.stringify(b);
