import type { Stage } from '../words/words.js';
import type { Stages } from './model.js';

/** What a variant is called and made of. */
export interface VariantNames {
  name: string;
  /** Build type or configuration. */
  type: string;
  flavours: readonly string[];
}

/** The stage of a variant, or why it has none. */
export type StageMatch = { stage: Stage; by: string } | { stage: null; reason: string };

/**
 * The stage of a variant. Whole variant names win over flavours, flavours over build types and
 * configurations; case is ignored. Two stages at the same level are no answer: it is never guessed.
 */
export function stageOf(variant: VariantNames, stages: Stages): StageMatch {
  const levels: [string, readonly string[]][] = [
    ['variant', variant.name === variant.type ? [] : [variant.name]],
    ['flavour', variant.flavours],
    ['build type', [variant.type]],
  ];
  for (const [level, names] of levels) {
    const hits = (['test', 'production'] as const).flatMap((stage) =>
      stages[stage]
        .filter((match) => names.some((name) => same(name, match)))
        .map((match) => ({ stage, match })),
    );
    const [first] = hits;
    if (!first) continue;
    const other = hits.find(({ stage }) => stage !== first.stage);
    if (!other) return { stage: first.stage, by: `${level} ${first.match}` };
    return {
      stage: null,
      reason: `“${first.match}” says ${first.stage} and “${other.match}” says ${other.stage}`,
    };
  }
  return { stage: null, reason: `no stage of the title names “${variant.name}” or a part of it` };
}

function same(a: string, b: string): boolean {
  return a.toLowerCase() === b.toLowerCase();
}
