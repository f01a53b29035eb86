import { pathOf } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import { namedBlocks } from './containers.js';
import { pathIn, type PathScope } from '../../common/gradle/paths.js';
import { blockParts, type Part } from '../../common/gradle/parts.js';

/** Where the files of one source set lie, when a script moves them. */
interface SourceSetOverride {
  /** The folder that takes the place of `src/NAME`. */
  root?: string;
  manifest?: string;
  /** Folders of resources, of Java and Kotlin, of assets: those that take the usual one's place, and those added to it. */
  res?: FolderOverride;
  code?: FolderOverride;
  assets?: FolderOverride;
}

interface FolderOverride {
  replaces: boolean;
  folders: string[];
}

export type SourceSetPaths = ReadonlyMap<string, SourceSetOverride>;

/** What `sourceSets { }` says, in the forms people write: blocks, `srcDirs =`, `+=`, `srcDir(…)`, `srcFile`, `setRoot`. */
export function readSourceSets(android: readonly Part[], scope: PathScope): SourceSetPaths {
  const sets = new Map<string, SourceSetOverride>();
  for (const { name, parts } of namedBlocks(blockParts(android, 'sourceSets'), [])) {
    const override: SourceSetOverride = {};
    for (const { statements } of parts) {
      for (const statement of statements) readStatement(statement, [], scope, override);
    }
    if (Object.keys(override).length > 0) sets.set(name, override);
  }
  return sets;
}

function readStatement(
  statement: Statement,
  around: readonly string[],
  scope: PathScope,
  override: SourceSetOverride,
): void {
  if (statement.type === 'assign') {
    const way = [...around, ...(pathOf(statement.target)?.split('.') ?? [])];
    set(way, statement.operator === '=' ? 'replace' : 'add', [statement.value], scope, override);
  } else if (statement.type === 'expression' && statement.value.type === 'call') {
    const { callee, args, body } = statement.value;
    const way = [...around, ...(pathOf(callee)?.split('.') ?? [])];
    if (body) for (const inner of body) readStatement(inner, way, scope, override);
    else
      set(
        way,
        'add',
        args.map(({ value }) => value),
        scope,
        override,
      );
  }
}

function set(
  way: readonly string[],
  mode: 'replace' | 'add',
  values: readonly Expression[],
  scope: PathScope,
  override: SourceSetOverride,
): void {
  const [kind = '', property = ''] = way;
  const paths = values.flatMap((value) => pathsIn(value, scope));
  const [first] = paths;
  if (first === undefined) return;
  if (kind === 'setRoot' || kind === 'root') override.root = first;
  else if (kind === 'manifest' && /^(srcFile|setSrcFile)$/.test(property)) override.manifest = first;
  else if (/^(res|java|kotlin|assets)$/.test(kind) && /^(srcDirs?|setSrcDirs|directories)$/.test(property)) {
    const replaces = mode === 'replace' || property === 'setSrcDirs';
    const slot = kind === 'res' || kind === 'assets' ? kind : 'code';
    const known = override[slot];
    override[slot] = {
      replaces: replaces || (known?.replaces ?? false),
      folders: [...(replaces ? [] : (known?.folders ?? [])), ...paths],
    };
  }
}

/** The paths in an expression: alone, in a list, in `files(…)`, added up with `srcDirs + "…"`. */
function pathsIn(expression: Expression, scope: PathScope): string[] {
  const whole = pathIn(expression, scope);
  if (whole !== undefined) return [whole];
  if (expression.type === 'list') return expression.items.flatMap(({ value }) => pathsIn(value, scope));
  if (expression.type === 'call') return expression.args.flatMap(({ value }) => pathsIn(value, scope));
  if (expression.type === 'binary' && expression.operator === '+')
    return [...pathsIn(expression.left, scope), ...pathsIn(expression.right, scope)];
  return [];
}
