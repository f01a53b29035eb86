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
 * configurations, and these over the words that a name is composed of: `dev` in `Debug-dev`. Of words, several
 * together win over one, and others over the build types that every build has. Case is ignored. Two stages at the
 * same level are no answer: it is never guessed.
 */
export function stageOf(variant: VariantNames, stages: Stages): StageMatch {
  const levels: [string, readonly string[]][] = [
    ['variant', variant.name === variant.type ? [] : [variant.name]],
    ['flavour', variant.flavours],
    ['build type', [variant.type]],
    ...wordLevels(variant.name),
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

/** Build types that nearly every project has. Any other word in a name is more specific. */
const usualTypes: ReadonlySet<string> = new Set(['debug', 'release', 'profile']);

/** Longer names are cut to this many words. */
const maxWords = 12;

/** The words of a composed name, from most to least specific: runs of words, single words, then the usual build types. */
function wordLevels(name: string): [string, string[]][] {
  const words = (name.match(/[A-Z]+(?![a-z])|[A-Z]?[a-z]+|\d+/g) ?? []).slice(0, maxWords);
  if (words.length < 2) return [];
  const together = words.slice(1).map((_, less) => {
    const length = words.length - 1 - less;
    const runs = words.slice(0, words.length - length + 1);
    return runs.map((__, at) => words.slice(at, at + length).join(''));
  });
  const [single = [], ...more] = together.reverse();
  const isUsual = (word: string) => usualTypes.has(word.toLowerCase());
  return [
    ...more.reverse().map((runs): [string, string[]] => ['part', runs]),
    ['part', single.filter((word) => !isUsual(word))],
    ['part', single.filter(isUsual)],
  ];
}

/** Compares two names, ignoring case and the separators between words. */
function same(a: string, b: string): boolean {
  const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
  return a.toLowerCase() === b.toLowerCase() || (plain(a) !== '' && plain(a) === plain(b));
}
