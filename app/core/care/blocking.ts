/**
 * How an element blocks: at constant flow dR/dx = k R^n over hours or litres (J. Hermia, Trans. IChemE 60, 1982, p. 183,
 * from memory): n = 0 a cake, 1 pores inside, 3/2 and 2 pores shut. In z = (R^(1-n) - 1)/(1-n), ln R for n = 1, it is a
 * straight line. Fitted by weighted least squares; where it crosses a target by E. C. Fieller (J. R. Stat. Soc. B 16, 1954),
 * by Student's t with n - 2 degrees, the spread of the points scaled up where they scatter more than they should.
 */
import jstat from "jstat";

export interface LoadingPoint {
  /** Hours or litres. */
  x: number;
  /** Restriction of the medium over the clean one's; more than nothing. */
  loading: number;
  /** One standard deviation. */
  plusMinus: number;
}

/** Orders of the laws that are held against each other. */
export const blockingOrders = [0, 1, 1.5, 2] as const;

export interface Trend {
  /** Of z per x. */
  rate: number;
  atStart: number;
  chi2PerFreedom: number;
  /** Where the line reaches the target; null where it does not rise. */
  due: number | null;
  /** Bounds of that at the share asked for; null where they lie open. */
  earliest: number | null;
  latest: number | null;
}

export const straightened = (loading: number, order: number): number =>
  order === 1 ? Math.log(loading) : (loading ** (1 - order) - 1) / (1 - order);

/** The loading back from its straight line; null where the law has run away before. */
export function bentBack(z: number, order: number): number | null {
  if (order === 1) return Math.exp(z);
  const base = 1 + (1 - order) * z;
  return base > 0 ? base ** (1 / (1 - order)) : null;
}

interface Line {
  w0: number;
  meanX: number;
  meanZ: number;
  sxx: number;
  rate: number;
  chi2PerFreedom: number;
}

const weightOf = ({ loading, plusMinus }: LoadingPoint, order: number): number =>
  (loading ** order / plusMinus) ** 2;

/** Weighted least squares of three points or more at two places or more; null with fewer. */
function lineOf(points: readonly LoadingPoint[], order: number): Line | null {
  if (points.length < 3) return null;
  let [w0, wx, wz] = [0, 0, 0];
  const rows = points.map((point) => {
    const z = straightened(point.loading, order);
    const w = weightOf(point, order);
    w0 += w;
    wx += w * point.x;
    wz += w * z;
    return { x: point.x, z, w };
  });
  const [meanX, meanZ] = [wx / w0, wz / w0];
  let [sxx, sxz] = [0, 0];
  for (const { x, z, w } of rows) {
    sxx += w * (x - meanX) ** 2;
    sxz += w * (x - meanX) * (z - meanZ);
  }
  if (!(sxx > 0)) return null;
  const rate = sxz / sxx;
  const chi2 = rows.reduce((sum, { x, z, w }) => sum + w * (z - meanZ - rate * (x - meanX)) ** 2, 0);
  return { w0, meanX, meanZ, sxx, rate, chi2PerFreedom: chi2 / (points.length - 2) };
}

/**
 * How far a reading lies over what others foretell for it, in spreads of that prediction, by the law that meets the others
 * best; null where they tell nothing.
 */
export function offBy(others: readonly LoadingPoint[], point: LoadingPoint): number | null {
  const lines = blockingOrders.flatMap((order) => {
    const line = lineOf(others, order);
    return line ? [{ order, line }] : [];
  });
  const [best] = lines.sort((a, b) => a.line.chi2PerFreedom - b.line.chi2PerFreedom);
  if (!best) return null;
  const { order, line } = best;
  const said = line.meanZ + line.rate * (point.x - line.meanX);
  const variance =
    Math.max(1, line.chi2PerFreedom) * (1 / line.w0 + (point.x - line.meanX) ** 2 / line.sxx) +
    1 / weightOf(point, order);
  return (straightened(point.loading, order) - said) / Math.sqrt(variance);
}

/**
 * A law of an order fitted to three points or more at two places or more; null with fewer.
 * @param share of the interval about the crossing, two-sided
 */
export function trendOf(
  points: readonly LoadingPoint[],
  order: number,
  target: number,
  share: number,
): Trend | null {
  const line = lineOf(points, order);
  if (!line) return null;
  const { w0, meanX, meanZ, sxx, rate, chi2PerFreedom } = line;
  const atStart = meanZ - rate * meanX;
  const freedom = points.length - 2;
  const t2 = jstat.studentt.inv((1 + share) / 2, freedom) ** 2 * Math.max(1, chi2PerFreedom);
  const over = straightened(target, order) - meanZ;
  // (over - rate u)^2 = t^2 (1/w0 + u^2/sxx), u from the mean place: its roots are the bounds.
  const a = rate ** 2 - t2 / sxx;
  const b = -2 * rate * over;
  const c = over ** 2 - t2 / w0;
  const root = b * b - 4 * a * c;
  const due = rate > 0 ? meanX + over / rate : null;
  // What falls, and surely, never comes there: where it crosses lies behind.
  if (root < 0 || (rate <= 0 && a > 0))
    return { rate, atStart, chi2PerFreedom, due, earliest: null, latest: null };
  const [low, high] = [(-b - Math.sqrt(root)) / (2 * a), (-b + Math.sqrt(root)) / (2 * a)].sort(
    (one, other) => one - other,
  ) as [number, number];
  // Growth that is not told from none leaves the late side open: the one root that lies ahead is the earliest.
  if (a <= 0) {
    const ahead = [low, high].filter((u) => u >= 0);
    return {
      rate,
      atStart,
      chi2PerFreedom,
      due,
      earliest: ahead.length > 0 ? meanX + Math.min(...ahead) : null,
      latest: null,
    };
  }
  return { rate, atStart, chi2PerFreedom, due, earliest: meanX + low, latest: meanX + high };
}

/** The line of a fit between two places, in so many pieces; it ends where the law runs away or passes `most`. */
export const lawCurve = (
  { rate, atStart }: Trend,
  order: number,
  { from, to, most, pieces }: { from: number; to: number; most: number; pieces: number },
): { x: number; y: number }[] =>
  Array.from({ length: pieces + 1 }, (_, i) => from + (i / pieces) * (to - from)).flatMap((x) => {
    const loading = bentBack(atStart + rate * x, order);
    return loading !== null && loading < most ? [{ x, y: loading }] : [];
  });

export interface Weighed {
  fits: { order: number; trend: Trend; share: number }[];
  /** The middle of what the laws say, weighed; null where none rises. */
  due: number | null;
  /** The earliest that any law that is worth a word gives: what is acted on. */
  earliest: number | null;
  latest: number | null;
}

/** A law that explains the readings this much worse than the best is left out of the band. */
const WORTH_A_WORD = 0.05;

/** All four laws held against the readings: none of them can be defended alone, so the earliest date is acted on. */
export function weighedTrend(points: readonly LoadingPoint[], target: number, share: number): Weighed | null {
  const freedom = points.length - 2;
  const found = blockingOrders.flatMap((order) => {
    const trend = trendOf(points, order, target, share);
    return trend ? [{ order, trend, likelihood: Math.exp((-trend.chi2PerFreedom * freedom) / 2) }] : [];
  });
  const sum = found.reduce((all, { likelihood }) => all + likelihood, 0);
  if (found.length === 0 || !(sum > 0)) return null;
  const fits = found.map(({ order, trend, likelihood }) => ({ order, trend, share: likelihood / sum }));
  const best = Math.max(...fits.map((fit) => fit.share));
  const worth = fits.filter((fit) => fit.share >= WORTH_A_WORD * best);
  const rising = worth.filter(({ trend }) => trend.due !== null);
  const weight = rising.reduce((all, fit) => all + fit.share, 0);
  const ends = (pick: (trend: Trend) => number | null) =>
    worth.map(({ trend }) => pick(trend)).filter((one): one is number => one !== null);
  const early = ends(({ earliest }) => earliest);
  const isOpen = worth.some(({ trend }) => trend.latest === null);
  return {
    fits,
    due:
      weight > 0
        ? rising.reduce((all, fit) => all + fit.share * (fit.trend.due as number), 0) / weight
        : null,
    earliest: early.length > 0 ? Math.min(...early) : null,
    latest: isOpen ? null : Math.max(...ends(({ latest }) => latest)),
  };
}
