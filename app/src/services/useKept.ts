import { useState } from 'react';

/** State of a screen that is still there after a reload of this tab. @param key of its own @param isRight whether what was kept can be used */
export function useKept<T>(
  key: string,
  first: T,
  isRight: (value: unknown) => value is T,
): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => {
    try {
      const kept: unknown = JSON.parse(sessionStorage.getItem(key) ?? 'null');
      return isRight(kept) ? kept : first;
    } catch {
      return first;
    }
  });
  return [
    value,
    (next) => {
      setValue(next);
      try {
        sessionStorage.setItem(key, JSON.stringify(next));
      } catch {
        // without room for it the screen only begins anew after a reload
      }
    },
  ];
}

export const isText = (value: unknown): value is string => typeof value === 'string';
export const isIndex = (value: unknown): value is number => Number.isInteger(value) && (value as number) >= 0;
export const isOneOf =
  <T extends string>(choices: readonly T[]) =>
  (value: unknown): value is T =>
    choices.includes(value as T);
