/** A vector of real numbers, in double or single precision. */
export type RealArray = Float64Array | Float32Array;

/** Complex response on its own frequency axis: `frequency` in Hz, ascending; three arrays equally long. */
export interface FrequencyResponse {
  frequency: Float64Array;
  re: Float64Array;
  im: Float64Array;
}

/**
 * Spectrum of a real signal of `size` samples: bins 0 to size/2 (so size/2 + 1 of them), engineering sign e^{+jwt}.
 * Bin k lies at k * rate / size Hz.
 */
export interface HalfSpectrum {
  size: number;
  re: Float64Array;
  im: Float64Array;
}

/** Samples of an impulse response; time zero lies at the (whole) sample index `zero`. */
export interface ImpulseResponse {
  samples: RealArray;
  rate: number;
  zero: number;
}
