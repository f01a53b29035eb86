import type { Node } from '../../syntax/grammars.js';
import { childOf, dottedName, named, type Shape } from '../../syntax/shape.js';

/** What runs a function of its own accord, and how often it does so depends on the list that follows it. */
const effects = /^(?:React\.)?use(?:Layout|Insertion)?Effect$/;

/** The name of a React hook. */
export const hook = /^(?:React\.)?use[A-Z]\w*$/;

/** The node types of functions that are values. */
export const functions = new Set(['arrow_function', 'function_expression', 'function', 'generator_function']);

/** The name of a function that an effect returns, which runs when its screen closes. */
export const cleanUp = 'cleanup';

/** The name of what is called or assigned: `banner.current?.release` is `banner.release`. */
export function nameOf(node: Node): string {
  return dottedName(node.text.replace(/\[\s*Platform\.OS\s*\]/g, '')).replace(/\.current(?=\.|$)/g, '');
}

/** `useCallback(() => …)`, `memo(() => …)`: the name refers to the function. */
export function wrapsFunction(node: Node): boolean {
  const [callee] = named(node);
  const list = childOf(node, 'arguments');
  const [first] = list ? named(list) : [];
  return (
    node.type === 'call_expression' &&
    /^(?:React\.)?(?:useCallback|memo|forwardRef)$/.test(callee?.text ?? '') &&
    first !== undefined &&
    functions.has(first.type)
  );
}

/**
 * The name of a function: that of the variable, field, key or attribute that it is assigned to, or the hook that runs
 * it. One without a name runs in place, and so does an effect without a dependency list, which runs after each render.
 */
export function callback(node: Node): Shape {
  const body = childOf(node, 'statement_block') ?? named(node).at(-1) ?? null;
  const own = node.type === 'arrow_function' ? undefined : childOf(node, 'identifier')?.text;
  const name = own ?? givenName(node);
  return name === undefined ? { is: 'lambda' } : { is: 'method', name, body };
}

function givenName(node: Node): string | undefined {
  const { parent } = node;
  switch (parent?.type) {
    case 'variable_declarator':
    case 'public_field_definition':
    case 'field_definition':
      return named(parent)[0]?.text;
    case 'pair':
      return keyOf(parent);
    case 'assignment_expression':
      return nameOf(named(parent)[0] ?? parent)
        .split('.')
        .at(-1);
    case 'jsx_expression':
      return parent.parent?.type === 'jsx_attribute' ? named(parent.parent)[0]?.text : undefined;
    case 'return_statement':
      return isEffect(parent.parent?.parent ?? null) ? cleanUp : undefined;
    case 'arrow_function':
      return isEffect(parent) ? cleanUp : undefined;
    case 'arguments':
      return argumentName(node, parent);
    default:
      return undefined;
  }
}

/** Whether a function is what an effect runs. */
function isEffect(node: Node | null): boolean {
  const list = node?.parent;
  if (!node || !functions.has(node.type) || list?.type !== 'arguments') return false;
  return /use\w*Effect$/.test(list.parent?.namedChild(0)?.text ?? '') || isCalledBack(list);
}

/** `useFocusEffect(useCallback(() => …, []))`. */
function isCalledBack(list: Node): boolean {
  const around = list.parent?.parent;
  return (
    /useCallback$/.test(list.parent?.namedChild(0)?.text ?? '') &&
    around?.type === 'arguments' &&
    /use\w*Effect$/.test(around.parent?.namedChild(0)?.text ?? '')
  );
}

function argumentName(node: Node, list: Node): string | undefined {
  const call = list.parent;
  const callee = call?.namedChild(0)?.text ?? '';
  if (!call) return undefined;
  if (/^AppState\.addEventListener$/.test(callee) && named(list)[1]?.id === node.id) return 'AppState.change';
  if (named(list)[0]?.id !== node.id) return undefined;
  if (/^(?:React\.)?(?:useCallback|memo|forwardRef)$/.test(callee)) {
    const above = call.parent;
    if (above?.type === 'variable_declarator') return named(above)[0]?.text;
    return above?.type === 'arguments' ? above.parent?.namedChild(0)?.text : undefined;
  }
  if (effects.test(callee) && named(list).length < 2) return undefined;
  return hook.test(callee) ? callee.replace(/^React\./, '') : undefined;
}

/** The key of a pair in an object, without quotes. */
export function keyOf(pair: Node): string {
  const [key] = named(pair);
  return key?.type === 'string' ? key.text.slice(1, -1) : (key?.text ?? '');
}
