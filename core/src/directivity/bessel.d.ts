declare module 'bessel' {
  /** Bessel function of the first kind of whole order n. */
  const functions: { besselj(x: number, n: number): number };
  export default functions;
}
