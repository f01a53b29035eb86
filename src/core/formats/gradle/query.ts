import type { Argument, Expression, Statement } from './model.js';

/** A call found in a script: `android { … }` has the path `android`, `plugins.apply(…)` the path `plugins.apply`. */
export interface FoundCall {
  path: string;
  call: Expression & { type: 'call' };
  /** Whether it is under an `if` or the like, so that reading cannot tell whether it takes effect. */
  conditional: boolean;
}

/** The dotted name of an expression; null when it is no plain name. */
export function pathOf(expression: Expression): string | null {
  if (expression.type === 'name') return expression.name;
  if (expression.type !== 'member') return null;
  const object = pathOf(expression.object);
  return object === null ? null : `${object}.${expression.name}`;
}

/** The calls that are directly in a list of statements, those under conditions included and marked. */
export function callsIn(statements: readonly Statement[], conditional = false): FoundCall[] {
  return statements.flatMap((statement): FoundCall[] => {
    if (statement.type === 'conditional') return callsIn(statement.body, true);
    if (statement.type !== 'expression' || statement.value.type !== 'call') return [];
    // Kotlin calls configurations that it does not know by a string: `"freeImplementation"("…")`.
    const path = pathOf(statement.value.callee) ?? literal(statement.value.callee) ?? null;
    return path === null ? [] : [{ path, call: statement.value, conditional }];
  });
}

/** The bodies of all blocks of one name, joined: scripts may open `android { }` more than once. */
export function blockBody(statements: readonly Statement[], name: string): Statement[] {
  return callsIn(statements).flatMap(({ path, call }) => (path === name && call.body ? call.body : []));
}

/** A property set in a block, in whichever form: `minSdk = 24`, `minSdk 24`, `minSdkVersion(24)`. */
export interface FoundValue {
  value: Expression;
  statement: Statement;
  conditional: boolean;
}

/** The last setting of any of the names, as the build would see it; undefined when there is none. */
export function settingIn(
  statements: readonly Statement[],
  names: readonly string[],
  conditional = false,
): FoundValue | undefined {
  let found: FoundValue | undefined;
  for (const statement of statements) {
    if (statement.type === 'conditional') {
      found = settingIn(statement.body, names, true) ?? found;
    } else if (statement.type === 'assign' && statement.operator === '=') {
      if (names.includes(pathOf(statement.target) ?? ''))
        found = { value: statement.value, statement, conditional };
    } else if (statement.type === 'expression' && statement.value.type === 'call') {
      const { callee, args, body } = statement.value;
      if (!names.includes(pathOf(callee) ?? '')) continue;
      const value = body ? releaseIn(body) : args[0]?.value;
      if (value) found = { value, statement, conditional };
    }
  }
  return found;
}

/** The level in `compileSdk { version = release(36) }`. */
function releaseIn(body: readonly Statement[]): Expression | undefined {
  const version = settingIn(body, ['version'])?.value;
  if (version?.type !== 'call') return version;
  return pathOf(version.callee) === 'release' ? version.args[0]?.value : version;
}

/** Whether parts of a string are computed: `"$name"`, `/${name}/`. */
export function isTemplate({ raw, quote }: Expression & { type: 'string' }): boolean {
  return !quote.startsWith("'") && raw.includes('$');
}

/** A plain string or number argument as text; undefined for anything else. */
export function literal(expression: Expression | undefined): string | undefined {
  if (expression?.type === 'string' && !isTemplate(expression)) return expression.raw;
  return expression?.type === 'number' ? expression.text : undefined;
}

/** An argument by its name, or else the first without a name. */
export function argument(args: readonly Argument[], name: string): Expression | undefined {
  return (args.find((arg) => arg.name === name) ?? args.find((arg) => arg.name === undefined))?.value;
}
