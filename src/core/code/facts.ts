import type { Recogniser } from '../network/recognise.js';
import type { SurveyContext } from '../roster/survey-context.js';
import type { Fact, Unresolved } from '../facts/model.js';
import { readPlacebook } from '../placebook/read.js';
import { placeAt } from '../facts/place.js';
import type { TextDocument } from '../text/document.js';
import type { Tree } from '../tree/tree.js';
import type { Platform } from '../words/words.js';
import { both } from '../syntax/compiled.js';
import { codePlace } from './code-place.js';
import { HeldIds } from './held-ids.js';
import { networksTaking } from './named-calls.js';
import type { SourceString } from './source-reading.js';
import { isPlacebook, readingOf, type CodeFile } from './source-files.js';

/** Facts for the IDs in a source file's string literals: unit IDs, and app IDs of networks that take them in code. */
export function codeFacts(
  tree: Tree,
  file: CodeFile,
  context: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const document = tree.text(file.path);
  if (!document) return { facts: [], unresolved: [] };
  const carrier = isPlacebook(tree, file.path) ? 'placebook' : 'code';
  const entries = carrier === 'placebook' ? (tree.read(file.path, readPlacebook)?.entries ?? []) : [];
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const held = new HeldIds(tree, file);
  const taking = networksTaking(tree, file.path, context.profiles);
  for (const literal of readingOf(tree, file.path).strings) {
    for (const reading of idsInCode(literal, file.platform, { ...context, taking })) {
      const place = placeAt(file.path, document, literal);
      const what = carrier === 'placebook' ? 'placebook' : 'string literal';
      const chain = [{ what, value: literal.value, place }];
      const base = {
        kind: reading.kind === 'app' ? ('app-id' as const) : ('unit-id' as const),
        network: reading.network,
        platform: file.platform,
        module: file.module,
      };
      const states = new Map(
        file.variants.map((variant) => {
          const here = file.compiled(variant, literal.start, literal.context.conditions);
          const isHeld = here !== 'no' && carrier === 'code';
          return [variant, isHeld ? both(here, held.state(literal, variant)) : here];
        }),
      );
      const variants = file.variants.filter((variant) => states.get(variant) === 'yes');
      const open = file.variants.filter((variant) => states.get(variant) === 'unknown');
      if (variants.length > 0) {
        const code = codePlace(literal.context, { flow: literal.flow ?? undefined });
        const entry = entries.findLast(({ start }) => start < literal.start);
        const named = entry && base.kind === 'unit-id' ? { name: entry.placement } : {};
        const more = { value: literal.value, effective: true as const, code, place, chain };
        facts.push({ ...base, ...named, ...more, variants, carrier });
      }
      if (open.length > 0) {
        const reason = 'the code around it depends on a condition that reading cannot decide';
        unresolved.push({
          ...base,
          what: `whether ${literal.value} is used`,
          value: literal.value,
          reason,
          variants: open,
          place,
          chain,
        });
      }
    }
  }
  if (carrier === 'placebook') facts.push(...settingsFacts(tree, file, document));
  return { facts, unresolved };
}

/** The settings that a placebook gives its placements. */
function settingsFacts(tree: Tree, file: CodeFile, document: TextDocument): Fact[] {
  const { entries } = tree.read(file.path, readPlacebook) ?? { entries: [] };
  return entries.flatMap((entry): Fact[] => {
    const variants = file.variants.filter((variant) => file.compiled(variant, entry.start, []) === 'yes');
    if (variants.length === 0) return [];
    const place = placeAt(file.path, document, entry);
    return [
      {
        kind: 'placement-settings',
        network: null,
        placement: entry.placement,
        platform: file.platform,
        module: file.module,
        variants,
        name: entry.placement,
        value: entry.settings,
        fields: entry.fields,
        ...(entry.format === undefined ? {} : { format: entry.format }),
        effective: true,
        place,
        chain: [{ what: 'placebook', value: entry.settings, place }],
      },
    ];
  });
}

function idsInCode(
  { value, start }: SourceString,
  platform: Platform,
  { recogniser, profiles, taking }: SurveyContext & { taking: ReadonlyMap<number, string> },
): ReturnType<Recogniser['recognise']> {
  // A text begins after its quotes, an argument before them.
  const taker = [0, 1, 2, 3, 4].map((quotes) => taking.get(start - quotes)).find((one) => one !== undefined);
  return recogniser.recognise(value.trim(), taker).filter(({ network, kind }) => {
    const needs = profiles.find((profile) => profile.id === network)?.[platform];
    return kind === 'unit' || needs?.['app-id']?.place === 'code';
  });
}
