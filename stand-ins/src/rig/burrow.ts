/** The Burrow 8: inputs, outputs, latency, response and noise of its own; with expanders it has as many outputs as a place asks for. */
export const BURROW = {
  name: 'Burrow 8',
  rate: 48000,
  outputs: 8,
  inputs: ['Microphone', 'Loopback', 'Input 3', 'Input 4', 'Input 5', 'Input 6', 'Input 7', 'Input 8'],
  /** the input that a cable ties to whatever is played */
  loopbackInput: 2,
  /** samples from output to input */
  latency: 574.37,
  /** sound pressure level that a Siskin M1 turns into full scale (RMS 1) at no gain */
  fullScaleSplDb: 120,
} as const;

/** dB re full scale over the whole band: the room's own noise at the microphone input, and the interface's. */
export const ROOM_NOISE_DB = -68;
export const INPUT_NOISE_DB = -96;
/** Traffic below 30 Hz, ventilation above it, falling faster towards the highs. */
export const roomNoise = (f: number) => (f < 12 ? 0 : (1 / f) * (1 + 20 / f) * (1 / (1 + (f / 900) ** 0.7)));
