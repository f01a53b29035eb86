import { callsIn, literal } from '../../../formats/gradle/query.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact, Unresolved } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { callsOf } from '../../common/gradle/parts.js';
import type { Collected } from '../../common/manifest/model.js';
import { moduleName } from './facts.js';
import { variantSetting, type AndroidVariant, type ModuleModel } from './variants.js';

const shrinkNames = ['isMinifyEnabled', 'minifyEnabled', 'setMinifyEnabled'];

/** The files of rules that a variant names, those of the SDK tools left out. */
function ruleFiles(model: ModuleModel, variant: AndroidVariant): string[] {
  const named = variant.configs.flatMap(({ parts }) =>
    callsOf(parts, callsIn)
      .filter(({ path }) => /^(set)?[pP]roguardFiles?$/.test(path))
      .flatMap(({ call }) => call.args)
      .flatMap(({ value }) => literal(value) ?? []),
  );
  return named.flatMap((file) => joinPath(model.module.folder, file) ?? []);
}

/** The shrinker rules that profiles require, for variants with code shrinking. */
export function shrinkerFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Collected {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const asking = profiles.filter(({ android }) => (android?.shrinker.length ?? 0) > 0);
  const shrinks = asking.length > 0 ? variantSetting(model, variant, shrinkNames) : undefined;
  if (!shrinks || shrinks.value === 'false') return { facts, unresolved };
  const base = {
    platform: 'android' as const,
    module: moduleName(model),
    variants: [variant.name],
  };
  const place = shrinks.chain[0]?.place ?? { path: model.module.script, line: 1, column: 1 };
  if (shrinks.value !== 'true') {
    const reason = shrinks.value === null ? shrinks.reason : `“${shrinks.value}” is neither true nor false`;
    const what = 'whether the code is shrunk';
    unresolved.push({ ...base, kind: 'shrinking', network: null, what, reason, place, chain: shrinks.chain });
    return { facts, unresolved };
  }
  const files = ruleFiles(model, variant);
  const own = files.find((path) => tree.has(path)) ?? '';
  const chain: ChainStep[] = [
    ...shrinks.chain,
    { what: 'rules', value: own, place: { path: own || place.path, line: 1, column: 1 } },
  ];
  const common = { ...base, effective: true as const };
  facts.push({ ...common, kind: 'shrinking', network: null, value: own, place, chain });
  for (const { id, android } of asking) {
    for (const { rule } of android?.shrinker ?? []) {
      for (const path of files) {
        const document = tree.text(path);
        const found = document && findRule(document.text, rule);
        if (!found) continue;
        const at = placeAt(path, document, found);
        const step = { what: 'shrinker rules', value: rule, place: at };
        facts.push({
          ...common,
          kind: 'shrinker-rule',
          network: id,
          name: rule,
          value: rule,
          place: at,
          chain: [step],
        });
      }
    }
  }
  return { facts, unresolved };
}

/** Where a file of rules has a rule, whatever blanks are in it; comments do not count. */
export function findRule(text: string, rule: string): { start: number; end: number } | undefined {
  const parts = rule.trim().split(/\s+/);
  const blanked = text.replace(/#[^\r\n]*/g, (comment) => ' '.repeat(comment.length));
  const [first = ''] = parts;
  for (let start = blanked.indexOf(first); start >= 0; start = blanked.indexOf(first, start + 1)) {
    let at = start;
    const fits = parts.every((part) => {
      at += /^\s*/.exec(blanked.slice(at, at + 200))?.[0].length ?? 0;
      const is = blanked.startsWith(part, at);
      at += part.length;
      return is;
    });
    if (fits) return { start, end: at };
  }
  return undefined;
}
