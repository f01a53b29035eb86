import type { Expression } from '../../../formats/gradle/model.js';
import { isTemplate, pathOf } from '../../../formats/gradle/query.js';
import { readGradle } from '../../../formats/gradle/read.js';
import type { ChainStep } from '../../../facts/evidence.js';
import { placeAt } from '../../../facts/place.js';
import { accessPath, plainName } from '../../common/gradle/declared.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import { catalogVersion, gradleProperty, type Scope } from './look-up.js';
import { entryIn, locate, missingFor, nameRead, unknownName, type Located } from './names.js';
import { loadedProperty } from './properties-files.js';

const transparentCalls = new Set([
  'get',
  'toInt',
  'toInteger',
  'toString',
  'trim',
  'orNull',
  'toBoolean',
  'getOrElse',
  'asString',
]);

const maxSteps = 40;

const computed = 'it is a computed expression';

/** Computes an expression as Gradle would, as far as that can be read from the files. */
export function evaluate(expression: Expression, scope: Scope, steps = 0): Resolved {
  const resolved = evaluateStep(expression, scope, steps);
  const [first] = resolved.chain;
  const place = placeAt(scope.path, scope.tree.text(scope.path), expression);
  if (steps > 0 || (first?.place?.path === place.path && first.place.line === place.line)) return resolved;
  // The evidence begins where the value is used, then leads to where it is set.
  const written = scope.tree.text(scope.path)?.text.slice(expression.start, expression.end) ?? null;
  return { ...resolved, chain: [{ what: 'Gradle', value: written, place }, ...resolved.chain] };
}

function evaluateStep(expression: Expression, scope: Scope, steps: number): Resolved {
  if (steps > maxSteps) return { value: null, reason: 'it refers to itself', chain: [] };
  const here = (what: string, value: string | null): ChainStep => ({
    what,
    value,
    place: placeAt(scope.path, scope.tree.text(scope.path), expression),
  });
  const cannot = (reason: string): Resolved => ({
    value: null,
    reason,
    chain: [
      here('expression', scope.tree.text(scope.path)?.text.slice(expression.start, expression.end) ?? null),
    ],
  });
  switch (expression.type) {
    case 'string':
      return evaluateString(expression, scope, steps, here);
    case 'number':
      return {
        value: expression.text.replace(/_/g, '').replace(/[LlFfDd]$/, ''),
        chain: [here('Gradle', expression.text)],
      };
    case 'name':
      if (expression.name === 'true' || expression.name === 'false')
        return { value: expression.name, chain: [here('Gradle', expression.name)] };
      return (
        evaluateName(expression, scope, steps) ?? cannot(unknownName(nameRead(expression) ?? 'this', scope))
      );
    case 'member':
      return (
        evaluateName(expression, scope, steps) ?? cannot(unknownName(nameRead(expression) ?? 'this', scope))
      );
    case 'index':
      return evaluateIndex(expression, scope, steps) ?? cannot(computed);
    case 'call':
      return evaluateCall(expression, scope, steps) ?? cannot('it is computed when the build runs');
    case 'binary': {
      if (expression.operator === ':') return evaluateChoice(expression, scope, steps) ?? cannot(computed);
      const left = evaluate(expression.left, scope, steps + 1);
      if (expression.operator === 'as') return left;
      if (expression.operator === '?:')
        return left.value === null && left.absent ? evaluate(expression.right, scope, steps + 1) : left;
      if (expression.operator !== '+' || left.value === null)
        return left.value === null ? left : cannot(computed);
      const right = evaluate(expression.right, scope, steps + 1);
      return right.value === null
        ? right
        : { value: left.value + right.value, chain: [...left.chain, ...right.chain] };
    }
    default:
      return cannot(computed);
  }
}

function evaluateString(
  expression: Expression & { type: 'string' },
  scope: Scope,
  steps: number,
  here: (what: string, value: string | null) => ChainStep,
): Resolved {
  const { raw } = expression;
  if (!isTemplate(expression)) {
    return { value: unescape(raw), chain: [here('Gradle', raw)] };
  }
  let failed: Resolved | undefined;
  const chain = [here('Gradle', raw)];
  const value = raw.replace(
    /\\\$|\$\{([^}]*)\}|\$([A-Za-z_][\w.]*)/g,
    (whole, braced: string | undefined, bare: string | undefined) => {
      if (whole === '\\$') return '$';
      const inner = readGradle(braced ?? bare ?? '').statements[0];
      const part = inner?.type === 'expression' ? evaluate(inner.value, { ...scope }, steps + 1) : undefined;
      if (part?.value == null) {
        failed ??= {
          value: null,
          reason: part && 'reason' in part ? part.reason : computed,
          chain,
        };
        return whole;
      }
      // Offsets inside the part are relative to its start; only references to other places are evidence.
      if (inner?.type === 'expression' && pathOf(inner.value) !== null) chain.push(...part.chain);
      return part.value;
    },
  );
  return failed ?? { value: unescape(value), chain };
}

function unescape(raw: string): string {
  return raw.replace(/\\(["'\\$nt])/g, (_, char: string) =>
    char === 'n' ? '\n' : char === 't' ? '\t' : char,
  );
}

function evaluateCall(
  expression: Expression & { type: 'call' },
  scope: Scope,
  steps: number,
): Resolved | undefined {
  const { callee, args } = expression;
  const path = pathOf(callee) ?? '';
  const first = args[0]?.value;
  if (/(^|\.)(getenv|environmentVariable)$/.test(path)) {
    const name = first?.type === 'string' ? first.raw : '?';
    return unresolvedAt(expression, scope, `it comes from the environment variable ${name}`);
  }
  if (
    /(^|\.)(findProperty|property|getProperty|gradleProperty|extra\.get|ext\.get|extraProperties\.get)$/.test(
      path,
    ) &&
    first?.type === 'string'
  ) {
    const loaded = callee.type === 'member' && loadedProperty(callee.object, first.raw, scope, expression);
    const isSystem = /(^|\.)System\.getProperty$/.test(path);
    const found = loaded || lookUp(isSystem ? `systemProp.${first.raw}` : first.raw, scope, steps);
    if (found) return found;
    const isKnown = missingFor(scope).length === 0;
    return {
      ...unresolvedAt(
        expression,
        scope,
        isKnown
          ? `the property ${first.raw} is not set in any file of the tree`
          : unknownName(first.raw, scope),
      ),
      absent: isKnown,
    };
  }
  if (callee.type === 'member' && transparentCalls.has(callee.name))
    return evaluate(callee.object, scope, steps + 1);
  return undefined;
}

/** `project.hasProperty("x") ? x : y`: which side holds is known when the property is. */
function evaluateChoice(
  { left, right }: Expression & { type: 'binary' },
  scope: Scope,
  steps: number,
): Resolved | undefined {
  if (left.type !== 'binary' || left.operator !== '?' || left.left.type !== 'call') return undefined;
  const { callee, args } = left.left;
  const name = args[0]?.value;
  if (!/(^|\.)(hasProperty|has)$/.test(pathOf(callee) ?? '') || name?.type !== 'string') return undefined;
  const known = lookUp(name.raw, scope, steps) !== undefined;
  return evaluate(known ? left.right : right, scope, steps + 1);
}

function unresolvedAt(expression: Expression, scope: Scope, reason: string): Resolved & { value: null } {
  const document = scope.tree.text(scope.path);
  const text = document?.text.slice(expression.start, expression.end) ?? null;
  return {
    value: null,
    reason,
    chain: [{ what: 'Gradle', value: text, place: placeAt(scope.path, document, expression) }],
  };
}

function evaluateIndex(
  expression: Expression & { type: 'index' },
  scope: Scope,
  steps: number,
): Resolved | undefined {
  const { object, index } = expression;
  if (index.type !== 'string' && index.type !== 'number') return undefined;
  const key = index.type === 'string' ? index.raw : index.text;
  const loaded = loadedProperty(object, key, scope, expression);
  if (loaded) return loaded;
  const holder = accessPath(object);
  if (holder === null) return undefined;
  if (/(^|\.)(ext|extra|properties)$/.test(holder)) return lookUp(key, scope, steps);
  const map = locate(plainName(holder), scope);
  const found = lookUp(`${plainName(holder)}.${key}`, scope, steps);
  if (found || !map) return found;
  const entry = entryIn(map, key);
  return entry && resolve(entry, steps);
}

function evaluateName(expression: Expression, scope: Scope, steps: number): Resolved | undefined {
  const path = pathOf(expression);
  if (path === null) return undefined;
  const version = /^(\w+)\.versions\.(.+?)(\.get)?$/.exec(path);
  const inCatalog = version?.[1] && version[2] ? catalogVersion(version[1], version[2], scope) : undefined;
  return inCatalog ?? lookUp(plainName(path), scope, steps);
}

/** A property by name, as scripts, the build's own code and `gradle.properties` set it; undefined when none does. */
export function lookUp(name: string, scope: Scope, steps: number): Resolved | undefined {
  const found = locate(name, scope);
  return found ? resolve(found, steps) : gradleProperty(name, scope);
}

function resolve({ value, conditional, scope }: Located, steps: number): Resolved {
  const resolved = evaluate(value, scope, steps + 1);
  return conditional
    ? { value: null, reason: 'it is set under a condition', chain: resolved.chain }
    : resolved;
}
