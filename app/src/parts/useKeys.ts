import { useEffect, useRef } from 'react';

/** Single keys of a workbench; none of them while one types. */
export function useKeys(keys: Record<string, () => void>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      const { target } = event;
      if (
        target instanceof Element &&
        target.closest('input, textarea, select, [contenteditable], [role=dialog]')
      )
        return;
      const call = latest.current[event.key.toLowerCase()];
      if (!call) return;
      event.preventDefault();
      call();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
}
