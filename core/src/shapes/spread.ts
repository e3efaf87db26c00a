/**
 * Variance of one residual, from what a fit leaves: its mean square over the degrees of freedom, times how many neighbours say the same
 * (integrated autocorrelation, Sokal 1997). Noise that differs from point to point is counted once; what is left of a wrong model is not
 * taken for many independent witnesses.
 */
export function spreadOf(residuals: ArrayLike<number>, parameters: number): number {
  const n = residuals.length;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += residuals[i]! ** 2;
  if (!(sum > 0) || n <= parameters) return 0;
  let alike = 1;
  for (let lag = 1; lag < n / 4; lag++) {
    let product = 0;
    for (let i = lag; i < n; i++) product += residuals[i]! * residuals[i - lag]!;
    const correlation = product / sum;
    // what a fit leaves of noise is negatively correlated; only what is clearly alike counts
    if (correlation < 2 / Math.sqrt(n)) break;
    alike += 2 * correlation;
  }
  return (alike * sum) / (n - parameters);
}
