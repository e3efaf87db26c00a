/** A device of this machine as the browser lists it. */
export interface ListedDevice {
  id: string;
  name: string;
}

export interface ListedDevices {
  inputs: ListedDevice[];
  outputs: ListedDevice[];
}

/**
 * Asks for the microphone once, so that the browser tells the devices' names, and lists them.
 * @throws Error with a sentence when it is refused or there is none
 */
export async function askForDevices(): Promise<ListedDevices> {
  const media = mediaDevices();
  try {
    const stream = await media.getUserMedia({ audio: plainAudio({}) });
    for (const track of stream.getTracks()) track.stop();
  } catch (error) {
    throw new Error(deviceProblem(error, 'An audio input'), { cause: error });
  }
  return listDevices();
}

export async function listDevices(): Promise<ListedDevices> {
  const all = await mediaDevices().enumerateDevices();
  const of = (kind: MediaDeviceKind, fallback: string) =>
    all
      .filter((d) => d.kind === kind)
      .map((d, i) => ({ id: d.deviceId, name: d.label || `${fallback} ${i + 1}` }));
  return { inputs: of('audioinput', 'Input'), outputs: of('audiooutput', 'Output') };
}

export function mediaDevices(): MediaDevices {
  if (!navigator.mediaDevices?.getUserMedia) {
    throw new Error(
      'This browser gives no access to audio inputs here. Open Pebble Hall at localhost or over https, in a current browser.',
    );
  }
  return navigator.mediaDevices;
}

/** What a measurement needs: nothing done to the sound. */
export const plainAudio = (wanted: {
  deviceId?: string;
  channels?: number;
  rate?: number;
}): MediaTrackConstraints => ({
  ...(wanted.deviceId ? { deviceId: { exact: wanted.deviceId } } : {}),
  ...(wanted.channels ? { channelCount: { ideal: wanted.channels } } : {}),
  ...(wanted.rate ? { sampleRate: { ideal: wanted.rate } } : {}),
  echoCancellation: false,
  noiseSuppression: false,
  autoGainControl: false,
});

/** Why a device could not be opened, and what to do. */
export function deviceProblem(error: unknown, name: string): string {
  const kind = error instanceof DOMException ? error.name : '';
  switch (kind) {
    case 'NotAllowedError':
    case 'SecurityError':
      return 'The browser was not allowed to use the microphone. Allow it beside the address bar, then connect again.';
    case 'NotFoundError':
    case 'OverconstrainedError':
      return `${name} is not there. Plug it in, or choose another one under Connect.`;
    case 'NotReadableError':
    case 'AbortError':
      return `${name} cannot be opened: another program may be using it. Close that program, then connect again.`;
    default:
      return `${name} cannot be opened: ${error instanceof Error ? error.message : String(error)}.`;
  }
}

/** What the browser does to the sound although it was asked not to, and what else is not as asked. */
export function trackWarnings(
  settings: MediaTrackSettings,
  wanted: { channels: number; rate: number },
): string[] {
  const processing = [
    settings.echoCancellation && 'echo cancellation',
    settings.noiseSuppression && 'noise suppression',
    settings.autoGainControl && 'gain control',
  ].filter((s): s is string => typeof s === 'string');
  const warnings = processing.map(
    (what) =>
      `The browser does not switch its ${what} off: levels and responses will be wrong. Use another browser or input.`,
  );
  if (settings.channelCount !== undefined && settings.channelCount < wanted.channels) {
    warnings.push(`The input gives ${settings.channelCount} of the ${wanted.channels} channels asked for.`);
  }
  if (settings.sampleRate !== undefined && settings.sampleRate !== wanted.rate) {
    warnings.push(
      `The input runs at ${settings.sampleRate} Hz and the browser converts it to ${wanted.rate} Hz. Set the interface to ${wanted.rate} Hz.`,
    );
  }
  return warnings;
}
