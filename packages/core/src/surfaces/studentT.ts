/** Continued fractions of the incomplete beta function end by then; more means that they don't converge. */
const MOST_TERMS = 500;
const SMALL = 1e-300;

/** ln Γ(x) for x > 0: Lanczos, good to 1e-13. Source: Lanczos, SIAM J. Numer. Anal. B 1 (1964), coefficients for g = 7. */
function lnGamma(x: number): number {
  const c = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
    12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - lnGamma(1 - x);
  const t = x + 6.5;
  const sum = c.slice(1).reduce((all, ck, k) => all + ck / (x + k), c[0]!);
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

/** Regularised incomplete beta function by its continued fraction (modified Lentz). Source: DLMF 8.17.22. */
function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front = Math.exp(lnGamma(a + b) - lnGamma(a) - lnGamma(b) + a * Math.log(x) + b * Math.log1p(-x)) / a;
  let [c, d] = [1, 1 - ((a + b) * x) / (a + 1)];
  d = 1 / (Math.abs(d) < SMALL ? SMALL : d);
  let f = d;
  for (let m = 1; m <= MOST_TERMS; m++) {
    for (const numerator of [
      (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m)),
      (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1)),
    ]) {
      d = 1 + numerator * d;
      d = 1 / (Math.abs(d) < SMALL ? SMALL : d);
      c = 1 + numerator / c;
      if (Math.abs(c) < SMALL) c = SMALL;
      f *= c * d;
    }
    if (Math.abs(c * d - 1) < 1e-14) break;
  }
  return front * f;
}

/**
 * Probability that Student's t with ν degrees of freedom is at most t.
 * @throws RangeError freedom that is not above 0, t that is no number
 */
export function tBelow(t: number, freedom: number): number {
  if (!(freedom > 0)) throw new RangeError(`tBelow needs degrees of freedom above 0, got ${freedom}`);
  if (Number.isNaN(t)) throw new RangeError('tBelow needs a number, got NaN');
  const tail = incompleteBeta(freedom / (freedom + t * t), freedom / 2, 0.5) / 2;
  return t > 0 ? 1 - tail : tail;
}

/**
 * The value that Student's t with ν degrees of freedom stays below with a probability.
 * @param probability above 0.5, below 1
 * @param freedom above 0
 * @throws RangeError a probability or freedom outside of that
 * Source: W. S. Gosset ("Student"), Biometrika 6 (1908); checked against the NIST/SEMATECH e-Handbook §1.3.6.7.2.
 * @example tQuantile(0.975, 1) // 12.706
 */
export function tQuantile(probability: number, freedom: number): number {
  if (!(probability > 0.5 && probability < 1))
    throw new RangeError(`tQuantile needs a probability above 0.5 and below 1, got ${probability}`);
  if (!(freedom > 0)) throw new RangeError(`tQuantile needs degrees of freedom above 0, got ${freedom}`);
  let [low, high] = [0, 2];
  while (tBelow(high, freedom) < probability && high < 1e12) high *= 2;
  for (let i = 0; i < 200 && high - low > 1e-9 * high; i++) {
    const middle = (low + high) / 2;
    if (tBelow(middle, freedom) < probability) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
