import {
  literal,
  pathOf,
  settingIn,
  type FoundCall,
  type FoundValue,
} from '../../../formats/gradle/query.js';
import { readGradle } from '../../../formats/gradle/read.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import { folderOf } from '../../../text/paths.js';
import { pluginClass, pluginScript } from './build-code.js';
import { pathIn, type PathScope } from './paths.js';
import { pluginsIn, type NamedPlugin } from './plugins.js';
import type { Tree } from '../../../tree/tree.js';

/** Statements that are in one script. What configures a module may come from several. */
export interface Part {
  path: string;
  statements: readonly Statement[];
}

/** A script that a build pulls in and that cannot be read. */
export interface MissingScript {
  path: string;
  statement: Statement;
  /** The script as it is named. */
  from: string;
  reason: string;
  /** Whether it is applied only where it exists, and it does not. */
  isOptional: boolean;
  /** The source of a plugin class, in the tree. */
  source: string | null;
}

/** A plugin class in the build's own code: the plugins it applies can be read, but not its settings. */
export interface PluginClass {
  path: string;
  applies: NamedPlugin[];
}

/** A script with all that it takes over from other scripts. */
export interface ScriptParts {
  parts: Part[];
  missing: MissingScript[];
  classes: PluginClass[];
}

/** Scripts that frameworks install, and the plugins that each one applies. */
const frameworkScripts: readonly { name: RegExp; applies: readonly string[] }[] = [
  // Templates before Flutter 3.16 apply the script; newer ones the plugin that it became.
  { name: /(^|\/)flutter_tools\/gradle\/flutter\.gradle$/, applies: ['dev.flutter.flutter-gradle-plugin'] },
];

const maxApplied = 40;

/** A script with everything it applies, by `apply from:` and by script plugins, in the order in which Gradle runs it. */
export function scriptParts(tree: Tree, root: string, script: string | undefined): ScriptParts {
  if (script === undefined) return { parts: [], missing: [], classes: [] };
  return tree.once(`gradle parts of ${script} in ${root}`, () => {
    const collector = new PartCollector(tree, root, script);
    collector.add(script);
    const { parts, missing, classes } = collector;
    return { parts: parts.filter(({ statements }) => statements.length > 0), missing, classes };
  });
}

class PartCollector {
  readonly parts: Part[] = [];
  readonly missing: MissingScript[] = [];
  readonly classes: PluginClass[] = [];
  private readonly seen = new Set<string>();

  constructor(
    private readonly tree: Tree,
    private readonly root: string,
    private readonly script: string,
  ) {}

  add(path: string): void {
    if (this.seen.has(path) || this.seen.size >= maxApplied) return;
    this.seen.add(path);
    const statements = this.tree.read(path, readGradle)?.statements ?? [];
    for (const plugin of pluginsIn(this.tree, this.root, statements, path))
      if (plugin.applied) this.addPlugin(plugin, path);
    let from = 0;
    statements.forEach((statement, index) => {
      const applied = appliedIn(statement);
      if (applied.length === 0) return;
      this.parts.push({ path, statements: statements.slice(from, index) });
      from = isAlone(statement) ? index + 1 : index;
      for (const one of applied) this.addApplied(one, statement, { path, statements });
    });
    this.parts.push({ path, statements: statements.slice(from) });
  }

  private addApplied(one: Applied, statement: Statement, { path, statements }: Part): void {
    const { tree, root, script } = this;
    const scope = { root, project: folderOf(script), statements: [...statements, ...one.declared] };
    const found = one.isOpen ? undefined : locate(tree, one.value, scope, folderOf(path));
    if (found !== undefined) return this.add(found);
    const missing = reasonFor(tree, one, scope);
    const known = frameworkScripts.find(({ name }) => name.test(missing.from));
    if (!known) this.missing.push({ path, statement, source: null, ...missing });
    else {
      const { start, end } = statement;
      const base = { version: undefined, applied: true, script: path, start, end };
      this.classes.push({ path, applies: known.applies.map((id) => ({ ...base, id })) });
    }
  }

  /** A plugin of the build's own code is part of the script that applies it. */
  private addPlugin({ id, start, end }: NamedPlugin, path: string): void {
    const { tree, root } = this;
    const script = pluginScript(tree, root, id);
    if (script !== undefined) {
      this.add(script);
      return;
    }
    const source = pluginClass(tree, root, id);
    if (source === undefined || this.seen.has(source)) return;
    this.seen.add(source);
    const applies = appliedByClass(tree.text(source)?.text ?? '').map((each) => ({
      id: each,
      version: undefined,
      applied: true,
      script: path,
      start,
      end,
    }));
    this.classes.push({ path: source, applies });
    const value: Expression = { type: 'string', raw: id, quote: "'", start, end };
    this.missing.push({
      path,
      statement: { type: 'expression', value, start, end },
      from: id,
      reason: `it is a plugin class (${source})`,
      isOptional: false,
      source,
    });
  }
}

/** The plugins that the source of a plugin class names: `apply("com.android.application")`. */
function appliedByClass(text: string): string[] {
  return [...text.matchAll(/\bapply(?:Plugin)?\s*(?:\(\s*)?["']([\w.-]{1,200})["']/g)].flatMap(
    ([, id]) => id ?? [],
  );
}

/** A script that a statement applies: the expression that names it, and what is declared around it. */
interface Applied {
  value: Expression;
  /** Whether a condition decides, or something else that only the build knows. */
  isOpen: boolean;
  declared: Statement[];
}

/** The scripts that a statement applies: by itself, in a block, in a loop over a list, under a condition. */
function appliedIn(statement: Statement, isOpen = false, declared: Statement[] = []): Applied[] {
  if (statement.type === 'conditional')
    return statement.body.flatMap((each) => appliedIn(each, true, declared));
  if (statement.type !== 'expression' || statement.value.type !== 'call') return [];
  const { callee, args, body } = statement.value;
  const name = pathOf(callee) ?? '';
  if (name === 'apply' || name === 'project.apply') {
    const inBlock = (body ?? []).flatMap((each) =>
      each.type === 'expression' && each.value.type === 'call' && pathOf(each.value.callee) === 'from'
        ? each.value.args.slice(0, 1)
        : each.type === 'assign' && pathOf(each.target) === 'from'
          ? [{ value: each.value }]
          : [],
    );
    return [...args.filter(({ name: label }) => label === 'from'), ...inBlock].map(({ value }) => ({
      value,
      isOpen,
      declared,
    }));
  }
  if (!body || callee.type !== 'member' || !/^(each|forEach)$/.test(callee.name)) return [];
  const items = itemsOf(callee.object);
  // What goes round and round over something else is known to the build alone.
  if (!items) return body.flatMap((each) => appliedIn(each, true, declared));
  return items.flatMap((value) => {
    const { start, end } = statement;
    const it: Statement = { type: 'declare', name: 'it', value, delegated: false, start, end };
    return body.flatMap((each) => appliedIn(each, isOpen, [...declared, it]));
  });
}

function itemsOf(expression: Expression): Expression[] | undefined {
  if (expression.type === 'list') return expression.items.map(({ value }) => value);
  const isList =
    expression.type === 'call' && /^(listOf|setOf|arrayOf)$/.test(pathOf(expression.callee) ?? '');
  return isList ? expression.args.map(({ value }) => value) : undefined;
}

/** Whether a statement only applies a script. */
function isAlone(statement: Statement): boolean {
  return statement.type === 'expression' && statement.value.type === 'call' && statement.value.body === null;
}

function locate(
  tree: Tree,
  value: Expression,
  scope: Omit<PathScope, 'base'>,
  folder: string,
): string | undefined {
  // Relative names begin at the project, or at the script that holds them.
  const places = [scope.project, folder].map((base) => pathIn(value, { ...scope, base }));
  return places.find((path) => path !== undefined && tree.has(path));
}

function reasonFor(
  tree: Tree,
  { value, isOpen }: Applied,
  scope: Omit<PathScope, 'base'>,
): Pick<MissingScript, 'from' | 'reason' | 'isOptional'> {
  const path = pathIn(value, scope);
  const from = value.type === 'string' ? value.raw : (path ?? 'a computed name');
  const isRemote = /^[a-z]+:\/\//.test(from);
  if (path === undefined && !isRemote) return { from, reason: 'its path is computed', isOptional: false };
  if (isOpen && path !== undefined && tree.has(path))
    return { from, reason: 'it is applied under a condition', isOptional: false };
  return { from, reason: 'it is not in the tree', isOptional: isOpen && !isRemote };
}

/** The bodies of all blocks of one name in their order, `android { }` and `android.defaultConfig { }` alike. */
export function blockParts(parts: readonly Part[], name: string): Part[] {
  return parts.flatMap(({ path, statements }): Part[] =>
    statements.flatMap((statement): Part[] => {
      const inside = insideOf(statement, name);
      return inside ? [{ path, statements: inside }] : [];
    }),
  );
}

function insideOf(statement: Statement, name: string): readonly Statement[] | undefined {
  if (statement.type === 'conditional') {
    const inner = statement.body.flatMap((each) => insideOf(each, name) ?? []);
    return inner.length > 0 ? [{ ...statement, body: inner }] : undefined;
  }
  if (statement.type === 'assign') {
    const rest = restOf(statement.target, name);
    return rest && [{ ...statement, target: rest }];
  }
  if (statement.type !== 'expression' || statement.value.type !== 'call') return undefined;
  const { callee, body, args } = statement.value;
  const path = pathOf(callee);
  if (path === name && body) return body;
  if (path === `${name}.apply` && body) return body;
  const first = args[0]?.value;
  const container = path === 'getByName' || path === 'named' || path === 'maybeCreate';
  if (container && literal(first) === name && body) return body;
  const rest = restOf(callee, name);
  return rest && [{ ...statement, value: { ...statement.value, callee: rest } }];
}

/** `android.buildTypes.debug` without its head, when that is the name. */
function restOf(expression: Expression, name: string): Expression | undefined {
  if (expression.type === 'index') {
    const object = restOf(expression.object, name);
    return object && { ...expression, object };
  }
  if (expression.type !== 'member') return undefined;
  const { object, start, end } = expression;
  if (object.type === 'name')
    return object.name === name ? { type: 'name', name: expression.name, start, end } : undefined;
  const inner = restOf(object, name);
  return inner && { ...expression, object: inner };
}

/** The last setting of any of the names, with the script that makes it. */
export function settingOf(
  parts: readonly Part[],
  names: readonly string[],
): (FoundValue & { path: string }) | undefined {
  let last: (FoundValue & { path: string }) | undefined;
  for (const { path, statements } of parts) {
    const found = settingIn(statements, names);
    if (found) last = { ...found, path };
  }
  return last;
}

/** A call with the script in which it is. */
interface PlacedCall extends FoundCall {
  script: string;
}

/** The calls that are directly in the parts, those under conditions marked. */
export function callsOf(
  parts: readonly Part[],
  callsIn: (statements: readonly Statement[]) => FoundCall[],
): PlacedCall[] {
  return parts.flatMap(({ path, statements }) =>
    callsIn(statements).map((found) => ({ ...found, script: path })),
  );
}
