import type { CodeContext } from './source-reading.js';

const statements =
  /^(?:for|while|do|foreach|enhanced_for|for_in|for_each|repeat_while|do_while)(?:_statement|_in_statement|_element)$/;

/** What calls a closure for each of several, by the last part of its name. */
const calls = /(?:^|\.)(?:for[Ee]ach|ForEach|forEachIndexed|map|mapIndexed|flatMap|Select|repeat|times)$/;

/** The position of code under a node: in a loop, if the node is one. */
export function underNode(context: CodeContext, type: string): CodeContext {
  return !context.looped && statements.test(type) ? { ...context, looped: true } : context;
}

/** Where the closures of a call stand: in a loop, if it calls them for each of several. */
export function underCall(context: CodeContext, name: string): CodeContext {
  return !context.looped && calls.test(name) ? { ...context, looped: true } : context;
}
