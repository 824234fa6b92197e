export interface Candidate {
  id: string;
  predicted: number;
  prior: number;
}
export interface InferInput {
  closure: number;
  /** Standard uncertainty of the method, above zero. */
  u: number;
  /** Least step of the reading; its δ/√12 is added in quadrature. */
  resolution?: number;
  /** Prior of "no mistake". */
  none: number;
  candidates: readonly Candidate[];
  /** "Something else": a uniform density of that span about zero. */
  other?: { prior: number; span: number };
}
export interface Ranked {
  ids: string[];
  probability: number;
}
export interface Inference {
  ranked: Ranked[];
  unexplained: boolean;
}

const PAIR_FACTOR = 0.1;
const REPORT_OVER = 0.05;
const REACH_IN_DEVIATIONS = 4;

/**
 * Explanations of a closure, most likely first: none, each mistake, each pair (predictions added, prior product × 0.1),
 * and "something else". Normal likelihood with σ = √(u² + δ²/12). Unexplained, and nothing named, when no explanation
 * predicts the closure within 4σ or "something else" leads. Feed it closure less the method's bias.
 */
export function infer(input: InferInput): Inference {
  const { closure, u, resolution = 0, none, candidates, other } = input;
  const sigma = Math.sqrt(u * u + (resolution * resolution) / 12);
  const hypotheses: { ids: string[]; predicted: number; prior: number }[] = [{ ids: [], predicted: 0, prior: none }];
  candidates.forEach((first, i) => {
    hypotheses.push({ ids: [first.id], predicted: first.predicted, prior: first.prior });
    for (const second of candidates.slice(i + 1)) {
      hypotheses.push({
        ids: [first.id, second.id],
        predicted: first.predicted + second.predicted,
        prior: first.prior * second.prior * PAIR_FACTOR,
      });
    }
  });
  const scaled = hypotheses.map(({ ids, predicted, prior }) => ({ ids, prior, z: (closure - predicted) / sigma }));
  if (!scaled.some(({ z, prior }) => prior > 0 && Math.abs(z) <= REACH_IN_DEVIATIONS))
    return { ranked: [], unexplained: true };
  const peak = 1 / (sigma * Math.sqrt(2 * Math.PI));
  const weighed = scaled.map(({ ids, prior, z }) => ({ ids, weight: prior * peak * Math.exp(-0.5 * z * z) }));
  if (other) {
    weighed.push({ ids: ["other"], weight: Math.abs(closure) <= other.span / 2 ? other.prior / other.span : 0 });
  }
  const total = weighed.reduce((sum, { weight }) => sum + weight, 0);
  const ranked = weighed
    .map(({ ids, weight }) => ({ ids, probability: total > 0 ? weight / total : 0 }))
    .filter(({ probability }) => probability > REPORT_OVER)
    .sort((a, b) => b.probability - a.probability);
  const otherLeads = ranked[0]?.ids[0] === "other" && ranked[0].ids.length === 1 && other !== undefined;
  return otherLeads || ranked.length === 0 ? { ranked: [], unexplained: true } : { ranked, unexplained: false };
}
