import {
  literal,
  pathOf,
  settingIn,
  type FoundCall,
  type FoundValue,
} from '../../../formats/gradle/query.js';
import { readGradle } from '../../../formats/gradle/read.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import { folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';

/** Statements that are in one script. What configures a module may come from several. */
export interface Part {
  path: string;
  statements: readonly Statement[];
}

/** A script that is pulled in by `apply from:` and is not in the tree. */
export interface MissingScript {
  path: string;
  statement: Statement;
  from: string;
}

const maxApplied = 40;

/** A script with all that it pulls in by `apply from:`, in the order in which Gradle runs it. */
export function scriptParts(
  tree: Tree,
  root: string,
  script: string | undefined,
): { parts: Part[]; missing: MissingScript[] } {
  if (script === undefined) return { parts: [], missing: [] };
  return tree.once(`gradle parts of ${script} in ${root}`, () => {
    const parts: Part[] = [];
    const missing: MissingScript[] = [];
    const seen = new Set<string>();
    const add = (path: string): void => {
      if (seen.has(path) || seen.size >= maxApplied) return;
      seen.add(path);
      const statements = tree.read(path, readGradle)?.statements ?? [];
      let from = 0;
      statements.forEach((statement, index) => {
        const applied = appliedScript(statement);
        if (!applied) return;
        parts.push({ path, statements: statements.slice(from, index) });
        from = index + 1;
        const found = locate(tree, applied, { root, project: folderOf(script), script: path });
        if (found === undefined) missing.push({ path, statement, from: applied.text });
        else add(found);
      });
      parts.push({ path, statements: statements.slice(from) });
    };
    add(script);
    return { parts: parts.filter(({ statements }) => statements.length > 0), missing };
  });
}

/** The file that `apply from: …` or `apply(from = …)` names, and what it is relative to. */
function appliedScript(statement: Statement): { text: string; base: 'root' | 'project' } | undefined {
  if (statement.type !== 'expression' || statement.value.type !== 'call') return undefined;
  const { callee, args } = statement.value;
  if (pathOf(callee) !== 'apply' && pathOf(callee) !== 'project.apply') return undefined;
  let value = args.find(({ name }) => name === 'from')?.value;
  if (!value) return undefined;
  let base: 'root' | 'project' = 'project';
  while (value?.type === 'call') {
    const path = pathOf(value.callee) ?? '';
    if (path.startsWith('rootProject.') || path.startsWith('isolated.rootProject.')) base = 'root';
    value = value.args.at(-1)?.value;
  }
  if (value?.type === 'binary' && value.operator === '+' && value.right.type === 'string') {
    const left = pathOf(value.left) ?? '';
    if (/^(rootDir|rootProject\.(projectDir|rootDir))$/.test(left))
      return { text: value.right.raw, base: 'root' };
  }
  return value?.type === 'string' ? { text: value.raw, base } : { text: 'a computed name', base };
}

const rootMarks =
  /^\$\{?(rootDir|rootProject\.(projectDir|rootDir)(\.\w+)?|project\.rootDir|settingsDir)\}?\/?/;
const projectMarks = /^\$\{?(projectDir|project\.projectDir)\}?\/?/;

function locate(
  tree: Tree,
  { text, base }: { text: string; base: 'root' | 'project' },
  { root, project, script }: { root: string; project: string; script: string },
): string | undefined {
  if (/^[a-z]+:\/\//.test(text)) return undefined;
  const atRoot = rootMarks.test(text);
  const plain = text.replace(rootMarks, '').replace(projectMarks, '').replace(/^\/+/, '');
  if (plain.includes('$')) return undefined;
  const folders = atRoot || base === 'root' ? [root] : [project, folderOf(script)];
  return folders.flatMap((folder) => joinPath(folder, plain) ?? []).find((path) => tree.has(path));
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
export interface PlacedCall extends FoundCall {
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
