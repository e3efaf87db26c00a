declare module 'fft.js' {
  /** Radix-4 FFT of a power-of-two size; complex data interleaved (re, im). */
  export default class FFT {
    constructor(size: number);
    readonly size: number;
    realTransform(out: ArrayLike<number>, data: ArrayLike<number>): void;
    completeSpectrum(spectrum: ArrayLike<number>): void;
    transform(out: ArrayLike<number>, data: ArrayLike<number>): void;
    inverseTransform(out: ArrayLike<number>, data: ArrayLike<number>): void;
  }
}
