import type { Stage } from '../../../words/words.js';
import type { Variant } from '../../../facts/model.js';

/** The source sets in which each stage's files stand, chosen so that every variant gets exactly one stage. */
export type StageSets = { stage: Stage; sourceSet: string }[];

/**
 * The coarsest source sets that keep the stages apart: build types when they alone decide, else flavours,
 * else one per variant. Undefined when a variant has no stage.
 */
export function stageSets(variants: readonly Variant[]): StageSets | undefined {
  const staged = variants.flatMap((variant) => (variant.stage ? [{ ...variant, stage: variant.stage }] : []));
  if (staged.length < variants.length || staged.length === 0) return undefined;
  const levels: ((variant: Variant) => string)[] = [
    ({ type }) => type,
    ({ flavours }) => flavours[0] ?? '',
    ({ name }) => name,
  ];
  for (const nameOf of levels) {
    const sets = new Map<string, Stage>();
    const clean = staged.every((variant) => {
      const name = nameOf(variant);
      const known = sets.get(name);
      sets.set(name, variant.stage);
      return name !== '' && (known === undefined || known === variant.stage);
    });
    if (clean) return [...sets].map(([sourceSet, stage]) => ({ stage, sourceSet }));
  }
  return undefined;
}
