/** A vector of real numbers, in double or single precision. */
export type RealArray = Float64Array | Float32Array;

/**
 * Complex values over frequency: a spectrum on its bins, a response on any grid. Three arrays equally long; frequencies
 * ascend, in Hz (cycles per sample where a spectrum was made without a rate). Engineering sign e^{+jwt}.
 */
export interface ComplexTrace {
  frequency: Float64Array;
  re: Float64Array;
  im: Float64Array;
}

/** Samples of an impulse response; time zero lies at the (whole) sample index `zero`. */
export interface ImpulseResponse {
  samples: RealArray;
  rate: number;
  zero: number;
}
