/** What a failure of the browser's storage means and what to do next; null when it is no such failure. */
export function storageProblem(error: unknown): string | null {
  const chain: { name?: string; inner?: unknown; message?: string }[] = [];
  for (
    let e = error as { name?: string; inner?: unknown; message?: string } | undefined;
    e && chain.length < 4;
    e = e.inner as typeof e
  ) {
    chain.push(e);
  }
  const names = chain.map((e) => e.name ?? '');
  if (names.includes('QuotaExceededError')) {
    return (
      'The disk is full: the browser has no room left to store this. Nothing that was stored is lost. ' +
      'Save the project file first (Project), then free disk space and try again. Do not clear the data of this site: that is where your measurements are.'
    );
  }
  if (names.includes('VersionError')) {
    return 'The data in this browser were written by a newer Pebble Hall. Open them there; this one leaves them as they are.';
  }
  if (names.includes('DatabaseClosedError')) {
    return 'What this browser keeps was opened by a newer Pebble Hall in another tab. Reload this page; nothing that was stored is lost.';
  }
  if (
    names.some((n) =>
      ['SecurityError', 'InvalidStateError', 'MissingAPIError', 'OpenFailedError', 'UnknownError'].includes(
        n,
      ),
    )
  ) {
    return (
      'This browser does not let Pebble Hall store anything here, so nothing measured could be kept. ' +
      'Allow site data for this address, or leave private browsing, and reload.'
    );
  }
  return null;
}

/** Any error as a sentence for the user. */
export const sentenceOf = (error: unknown): string =>
  storageProblem(error) ?? (error instanceof Error ? error.message : String(error));
