/** Calibration files that the maker's look-up has for a microphone. */
export interface FoundMicrophone {
  make: string;
  serial: string;
  files: { name: string; text: string }[];
}

/**
 * Asks the look-up for a serial.
 * @throws Error with a sentence: unknown, no serial at all, or not reached
 */
export async function lookUpMicrophone(serial: string): Promise<FoundMicrophone> {
  let response: Response;
  try {
    response = await fetch(`/api/microphones/${encodeURIComponent(serial.trim() || 'none')}`);
  } catch (error) {
    throw new Error('The look-up cannot be reached. Load the file that came with the microphone instead.', {
      cause: error,
    });
  }
  const told = (await response.json().catch(() => null)) as (FoundMicrophone & { problem?: string }) | null;
  if (!response.ok || !told?.files)
    throw new Error(told?.problem ?? `The look-up answered ${response.status}.`);
  return told;
}
