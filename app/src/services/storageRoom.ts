/** How much room the browser gives this site, and whether it may take it back by itself. */
export interface StorageRoom {
  usedBytes: number;
  mostBytes: number;
  /** whether what is stored stays until the user removes it, however short the disk is */
  isKept: boolean;
}

/** @returns null where the browser does not tell */
export async function storageRoom(): Promise<StorageRoom | null> {
  try {
    const { usage, quota } = await navigator.storage.estimate();
    if (usage === undefined || quota === undefined) return null;
    return { usedBytes: usage, mostBytes: quota, isKept: await navigator.storage.persisted() };
  } catch {
    return null;
  }
}

let isAsked = false;
/** Asks the browser, once, to keep what was measured until the user removes it. */
export function askToKeep(): void {
  if (isAsked) return;
  isAsked = true;
  // a browser that says no, or does not know the question, stores all the same
  void navigator.storage?.persist?.().catch(() => undefined);
}
