import type { Node } from 'jsonc-parser';
import type { Edit } from '../../text/edit.js';
import { nodesAt, readJson } from './read.js';

/** Sets the value at a path of keys. Objects that are missing on the way are made; a document that is no object gets no edit. */
export function setJson(text: string, way: readonly string[], value: unknown): Edit[] {
  const { root } = readJson(text);
  if (root?.type !== 'object') return [];
  const [last = '', ...before] = [...way].reverse();
  const [there] = nodesAt(root, way);
  if (there) return [edit(there, written(text, there.offset, value, isInline(text, there.parent)))];
  const [holder] = nodesAt(root, before.reverse());
  if (!holder) return setJson(text, before, { [last]: value });
  if (holder.type !== 'object') return [];
  return [added(text, holder, (space) => `${JSON.stringify(last)}: ${space(value)}`)];
}

/** Adds a value to the end of a list. A list that is missing is made. */
export function appendJson(text: string, way: readonly string[], value: unknown): Edit[] {
  const { root } = readJson(text);
  const [list] = nodesAt(root, way);
  if (!list) return setJson(text, way, [value]);
  return list.type === 'array' ? [added(text, list, (space) => space(value))] : [];
}

/** Removes the value at a path of keys, and every object or list that is empty without it, down to `keep`. */
export function removeJson(text: string, way: readonly string[], keep: readonly string[] = []): Edit[] {
  const { root } = readJson(text);
  const [node] = nodesAt(root, way);
  if (!node || way.length === 0 || !root) return [];
  const holder = nodesAt(root, way.slice(0, -1))[0] ?? root;
  const children = holder.children ?? [];
  if (children.length === 1 && way.length > 1 && way.length - 1 > keep.length)
    return removeJson(text, way.slice(0, -1), keep);
  const entry = holder.type === 'object' ? (node.parent ?? node) : node;
  const at = children.indexOf(entry);
  const [before, after] = [children[at - 1], children[at + 1]];
  const end = entry.offset + entry.length;
  if (before) return [{ start: before.offset + before.length, end, text: '' }];
  if (after) return [{ start: entry.offset, end: after.offset, text: '' }];
  return [{ start: holder.offset + 1, end: holder.offset + holder.length - 1, text: '' }];
}

type Space = (value: unknown) => string;

function added(text: string, holder: Node, entry: (space: Space) => string): Edit {
  const last = holder.children?.at(-1);
  const inline = isInline(text, holder);
  const close = holder.offset + holder.length - 1;
  if (last) {
    const end = last.offset + last.length;
    const from = holder.children?.[0] ?? last;
    const gap = /\s*$/.exec(text.slice(holder.offset + 1, from.offset))?.[0] ?? '';
    const made = entry((value) => written(text, from.offset, value, inline));
    return { start: end, end, text: `,${gap || ' '}${made}` };
  }
  const [indent, unit, line] = [indentAt(text, holder.offset), unitOf(text), lineEndOf(text)];
  const made = entry((value) => laidOut(value, `${indent}${unit}`, unit, line));
  return { start: holder.offset + 1, end: close, text: `${line}${indent}${unit}${made}${line}${indent}` };
}

function edit({ offset, length }: Node, text: string): Edit {
  return { start: offset, end: offset + length, text };
}

function written(text: string, at: number, value: unknown, inline: boolean): string {
  if (inline) return inOneLine(value);
  return laidOut(value, indentAt(text, at), unitOf(text), lineEndOf(text));
}

function laidOut(value: unknown, indent: string, unit: string, line: string): string {
  return JSON.stringify(value, null, unit).replace(/\n/g, `${line}${indent}`);
}

function inOneLine(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(inOneLine).join(', ')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  return `{ ${Object.entries(value)
    .map(([key, one]) => `${JSON.stringify(key)}: ${inOneLine(one)}`)
    .join(', ')} }`;
}

/** Whether the entries of a list or object are beside each other. */
function isInline(text: string, node: Node | undefined): boolean {
  const [first] = node?.children ?? [];
  return node !== undefined && first !== undefined && !/[\r\n]/.test(text.slice(node.offset, first.offset));
}

function indentAt(text: string, at: number): string {
  const start = Math.max(text.lastIndexOf('\n', at - 1), text.lastIndexOf('\r', at - 1)) + 1;
  return /^[ \t]*/.exec(text.slice(start, at))?.[0] ?? '';
}

function unitOf(text: string): string {
  return /[{[][ \t]*(?:\r\n|\n|\r)([ \t]+)/.exec(text)?.[1] ?? '  ';
}

function lineEndOf(text: string): string {
  return /\r\n|\n|\r/.exec(text)?.[0] ?? '\n';
}
