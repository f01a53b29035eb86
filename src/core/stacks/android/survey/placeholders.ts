import { pathOf } from '../../../formats/gradle/query.js';
import type { Argument, Expression, Statement } from '../../../formats/gradle/model.js';
import { evaluate } from './evaluate.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** The manifest placeholders of a variant, the strongest setting of each, in all the forms people write. */
export function placeholdersOf(model: ModuleModel, variant: AndroidVariant): Map<string, Resolved> {
  const found = new Map<string, Resolved>(
    Object.entries(model.implied.placeholders).map(([name, value]) => [name, { value, chain: [] }]),
  );
  let script = model.scope.path;
  const set = (name: string | undefined, value: Expression | undefined, conditional: boolean) => {
    if (name === undefined || !value) return;
    const resolved = evaluate(value, { ...model.scope, path: script });
    found.set(
      name,
      conditional ? { value: null, reason: 'it is set under a condition', chain: resolved.chain } : resolved,
    );
  };
  const walk = (statements: readonly Statement[], conditional: boolean): void => {
    for (const statement of statements) {
      if (statement.type === 'conditional') walk(statement.body, true);
      else if (statement.type === 'assign') {
        const { target, value } = statement;
        if (target.type === 'index' && pathOf(target.object) === 'manifestPlaceholders') {
          set(target.index.type === 'string' ? target.index.raw : undefined, value, conditional);
        } else if (target.type === 'member' && pathOf(target.object) === 'manifestPlaceholders') {
          set(target.name, value, conditional);
        } else if (pathOf(target) === 'manifestPlaceholders')
          entries(value).forEach(([name, item]) => set(name, item, conditional));
      } else if (statement.type === 'expression' && statement.value.type === 'call') {
        const path = pathOf(statement.value.callee) ?? '';
        const { args } = statement.value;
        const [first, second] = args;
        if (path === 'manifestPlaceholders.put' || path === 'manifestPlaceholders.set') {
          set(first?.value.type === 'string' ? first.value.raw : undefined, second?.value, conditional);
        } else if (
          /^(manifestPlaceholders(\.putAll)?|addManifestPlaceholders|setManifestPlaceholders)$/.test(path)
        ) {
          for (const [name, item] of args.some((arg) => arg.name)
            ? named(args)
            : args.flatMap((arg) => entries(arg.value)))
            set(name, item, conditional);
        }
      }
    }
  };
  for (const config of variant.configs) {
    for (const { path, statements } of config.parts) {
      script = path;
      walk(statements, false);
    }
  }
  return found;
}

/** The entries of a map: `[a: "b"]`, `mapOf("a" to "b")`. */
function entries(map: Expression): [string, Expression][] {
  if (map.type === 'list') return named(map.items);
  if (map.type !== 'call') return [];
  return map.args.flatMap(({ value }): [string, Expression][] => {
    if (value.type !== 'binary' || value.operator !== 'to' || value.left.type !== 'string') return [];
    return [[value.left.raw, value.right]];
  });
}

function named(items: readonly Argument[]): [string, Expression][] {
  return items.flatMap(({ name, value }): [string, Expression][] =>
    name === undefined ? [] : [[name, value]],
  );
}
