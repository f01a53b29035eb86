import type { Platform } from '../network/model.js';
import type { Recogniser } from '../network/recognise.js';
import type { SurveyContext } from '../stacks/stack.js';
import type { Fact, Unresolved } from '../survey/model.js';
import { placeAt } from '../survey/place.js';
import type { Tree } from '../tree/tree.js';
import { placebookMark } from '../placebook/model.js';
import type { Compiled } from './swift-conditions.js';
import { stringLiterals, type LiteralSyntax } from './literals.js';

/** A source file to look for IDs in, and the variants that compile it. */
export interface CodeFile {
  path: string;
  syntax: LiteralSyntax;
  platform: Platform;
  module: string;
  /** Whether a variant compiles what stands at an offset. */
  compiled(variant: string, offset: number): Compiled;
  variants: readonly string[];
}

/** Facts for the IDs in a source file's string literals: unit IDs, and app IDs of networks that take them in code. */
export function codeFacts(
  tree: Tree,
  file: CodeFile,
  context: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const document = tree.text(file.path);
  if (!document) return { facts: [], unresolved: [] };
  const standsIn = document.text.slice(0, 400).includes(placebookMark) ? 'placebook' : 'code';
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  for (const literal of stringLiterals(document.text, file.syntax)) {
    for (const reading of idsInCode(literal.value, file.platform, context)) {
      const place = placeAt(file.path, document, literal);
      const chain = [
        { what: standsIn === 'placebook' ? 'placebook' : 'string literal', value: literal.value, place },
      ];
      const base = {
        kind: reading.kind === 'app' ? ('app-id' as const) : ('unit-id' as const),
        network: reading.network,
        platform: file.platform,
        module: file.module,
      };
      const state = (variant: string) => file.compiled(variant, literal.start);
      const variants = file.variants.filter((variant) => state(variant) === 'yes');
      const open = file.variants.filter((variant) => state(variant) === 'unknown');
      if (variants.length > 0)
        facts.push({ ...base, variants, value: literal.value, standsIn, place, chain });
      if (open.length > 0) {
        const reason = 'the code around it chooses by a condition that reading cannot settle';
        unresolved.push({
          ...base,
          what: `Whether ${literal.value} is used`,
          reason,
          variants: open,
          place,
          chain,
        });
      }
    }
  }
  return { facts, unresolved };
}

function idsInCode(
  value: string,
  platform: Platform,
  { recogniser, profiles }: SurveyContext,
): ReturnType<Recogniser['recognise']> {
  return recogniser.recognise(value.trim()).filter(({ network, kind }) => {
    const needs = profiles.find((profile) => profile.id === network)?.[platform];
    return kind === 'unit' || needs?.['app-id']?.place === 'code';
  });
}
