import { callsIn, literal } from '../../../formats/gradle/query.js';
import type { Expression } from '../../../formats/gradle/model.js';
import type { ChainStep } from '../../../facts/evidence.js';
import { placeAt } from '../../../facts/place.js';
import { evaluate } from './evaluate.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import { callsOf } from '../../common/gradle/parts.js';
import type { FoundString } from './found-string.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** Strings that `resValue("string", "name", "value")` makes for a variant; the strongest block wins. */
export function resValuesOf(model: ModuleModel, variant: AndroidVariant): FoundString[] {
  return madeBy(model, variant, /^resValue$/).flatMap(({ type, name, value, step }): FoundString[] => {
    if (type !== 'string' || value.value === null || !step.place) return [];
    return [{ name, value: value.value, sourceSet: 'script', place: step.place, step }];
  });
}

/** The string constants of `BuildConfig` that scripts give a variant. */
export function buildConfigOf(
  model: ModuleModel,
  variant: AndroidVariant,
): { name: string; value: Resolved; step: ChainStep }[] {
  return madeBy(model, variant, /^buildConfigField$/).flatMap(({ type, name, value, step }) => {
    if (!/^(java\.lang\.)?String$/.test(type)) return [];
    // The value is source text: `"\"CH-…\""`.
    const inner = value.value === null ? null : /^"((?:[^"\\]|\\.)*)"$/s.exec(value.value.trim())?.[1];
    if (inner === undefined) return [];
    return [{ name, value: inner === null ? value : { value: inner, chain: value.chain }, step }];
  });
}

interface Made {
  type: string;
  name: string;
  value: Resolved;
  step: ChainStep;
}

function madeBy(model: ModuleModel, variant: AndroidVariant, called: RegExp): Made[] {
  const made = new Map<string, Made>();
  for (const { name: config, parts } of variant.configs) {
    for (const { path, call, script, conditional } of callsOf(parts, callsIn)) {
      if (!called.test(path)) continue;
      const [type, name, value] = argumentsOf(call);
      const typeText = literal(type);
      const nameText = literal(name);
      if (typeText === undefined || nameText === undefined || !value) continue;
      const scope = { ...model.scope, path: script };
      const resolved = evaluate(value, scope);
      const place = placeAt(script, scope.tree.text(script), call);
      made.set(`${typeText} ${nameText}`, {
        type: typeText,
        name: nameText,
        value: conditional
          ? { value: null, reason: 'it is set under a condition', chain: resolved.chain }
          : resolved,
        step: { what: `${path} of ${config}`, value: resolved.value, place },
      });
    }
  }
  return [...made.values()];
}

function argumentsOf(call: Expression & { type: 'call' }): (Expression | undefined)[] {
  return ['type', 'name', 'value'].map(
    (label, index) => (call.args.find(({ name }) => name === label) ?? call.args[index])?.value,
  );
}
