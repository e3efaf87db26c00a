import { useEffect } from 'react';

/** Keys n and p step through the channels, unless something is typed. */
export function useTour(ids: string[], shownId: string | null, onShow: (id: string) => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = (event.target as Element | null)?.closest?.('input, textarea, [contenteditable]');
      if (typing || event.ctrlKey || event.metaKey || event.altKey || ids.length === 0) return;
      const step = { n: 1, p: -1 }[event.key];
      if (!step) return;
      const at = ids.indexOf(shownId ?? '');
      onShow(ids[(at + step + ids.length) % ids.length]!);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
}
