import type { Edit } from '../../text/edit.js';
import { escapeXml } from '../../text/escape-xml.js';
import type { Span } from '../../text/problem.js';
import { attribute, elements } from './query.js';
import type { XmlElement } from './model.js';

/**
 * Sets an attribute. An existing one keeps its quotes; a new one comes after the last, on its own line if the others
 * are (the text is needed to tell).
 */
export function setAttribute(element: XmlElement, name: string, value: string, text = ''): Edit[] {
  const found = attribute(element, name);
  if (found) {
    if (found.value === value) return [];
    return [{ ...found.valueSpan, text: escapeXml(value) }];
  }
  const last = element.attributes.at(-1);
  const at = last?.end ?? element.start + 1 + element.name.length;
  const before = last ? (/(?:\r\n|\n|\r)[ \t]*$/.exec(text.slice(0, last.start))?.[0] ?? ' ') : ' ';
  return [{ start: at, end: at, text: `${before}${name}="${escapeXml(value)}"` }];
}

/** Where white space before an element begins, so that taking the element out leaves no empty line. */
function leadingBlank(text: string, start: number): number {
  let from = start;
  while (from > 0 && /[ \t]/.test(text[from - 1] ?? '')) from--;
  if (text[from - 1] === '\n') from--;
  if (text[from - 1] === '\r') from--;
  return /[\r\n]/.test(text[from] ?? '') ? from : start;
}

/** Takes an attribute out, with the blanks before it. */
export function removeAttribute(text: string, { start, end }: Span): Edit {
  const blanks = /\s*$/.exec(text.slice(Math.max(0, start - 400), start))?.[0].length ?? 0;
  return { start: start - blanks, end, text: '' };
}

/** Takes an element out, with the line that it leaves empty. */
export function removeElement(text: string, element: XmlElement): Edit {
  const alone = /^[ \t]*(\r?\n|$)/.test(text.slice(element.end, element.end + 400));
  const start = alone ? leadingBlank(text, element.start) : element.start;
  return { start, end: element.end, text: '' };
}

/**
 * Adds lines as the last children of an element, indented as its other children are.
 * Lines may carry further indentation of their own, in steps of two blanks. An element that has to be opened first
 * is opened by edits that are equal however often lines are added, and equal edits count once.
 */
export function appendChild(text: string, parent: XmlElement, lines: readonly string[], eol: string): Edit[] {
  const outer = indentAt(text, parent.start);
  const last = elements(parent).at(-1);
  const inner = last && ownLine(text, last.start) ? indentAt(text, last.start) : outer + unitOf(text);
  const unit =
    inner.startsWith(outer) && inner.length > outer.length ? inner.slice(outer.length) : unitOf(text);
  const block = lines.map((line) => inner + inUnits(line, unit));
  const insert = (at: number, put: string): Edit => ({ start: at, end: at, text: put });
  const below = block.map((line) => eol + line).join('');
  if (parent.selfClosing) {
    const { end } = parent.openTag;
    const start = text[end - 3] === ' ' ? end - 3 : end - 2;
    // An attribute that is added at the same time goes before the sign, which is why that is replaced and not put in.
    const open = { start, end: end - 1, text: '>' };
    return [open, insert(end - 1, below), { start: end - 1, end, text: `${eol}${outer}</${parent.name}>` }];
  }
  const close = parent.closeTag?.start ?? parent.end;
  const lineStart = close - indentAt(text, close).length;
  if (ownLine(text, close)) return [insert(lineStart, block.map((line) => line + eol).join(''))];
  if (!parent.closeTag) return [insert(close, `${below}${eol}${outer}`)];
  return [insert(close, below), { start: close, end: close + 1, text: `${eol}${outer}<` }];
}

/** Adds lines just before an element, indented as it is. */
export function insertBefore(text: string, element: XmlElement, lines: readonly string[], eol: string): Edit {
  const indent = indentAt(text, element.start);
  const at = element.start - (ownLine(text, element.start) ? indent.length : 0);
  const unit = stepAt(text, element, indent);
  return { start: at, end: at, text: lines.map((line) => indent + inUnits(line, unit) + eol).join('') };
}

/** Converts a line that is indented in steps of two spaces to the steps of a text. */
function inUnits(line: string, unit: string): string {
  return line.replace(/^(?: {2})+/, (blanks) => unit.repeat(blanks.length / 2));
}

/** One step of indentation at an element: from its parent to itself. */
function stepAt(text: string, element: XmlElement, indent: string): string {
  const outer = element.parent ? indentAt(text, element.parent.start) : '';
  return indent.startsWith(outer) && indent.length > outer.length ? indent.slice(outer.length) : unitOf(text);
}

/** Puts lines in the place of an element, indented as it is; nothing where they are there already. */
export function replaceElement(
  text: string,
  element: XmlElement,
  lines: readonly string[],
  eol: string,
): Edit[] {
  const indent = indentAt(text, element.start);
  const unit = stepAt(text, element, indent);
  const block = lines.map((line, at) => (at === 0 ? line : indent + inUnits(line, unit))).join(eol);
  return text.slice(element.start, element.end) === block
    ? []
    : [{ start: element.start, end: element.end, text: block }];
}

function ownLine(text: string, offset: number): boolean {
  return /(^|[\r\n])[ \t]*$/.test(text.slice(Math.max(0, offset - 400), offset));
}

/** The blanks at the start of the line that holds an offset. */
export function indentAt(text: string, offset: number): string {
  let start = offset;
  while (start > 0 && !/[\r\n]/.test(text[start - 1] ?? '')) start--;
  return /^[ \t]*/.exec(text.slice(start, offset))?.[0] ?? '';
}

/** One step of indentation as this text uses it. */
function unitOf(text: string): string {
  const first = /\n([ \t]+)</.exec(text)?.[1];
  return first ?? '    ';
}

/** Adds lines just after an element, indented as it is. */
export function insertAfter(text: string, element: XmlElement, lines: readonly string[], eol: string): Edit {
  const indent = indentAt(text, element.start);
  const unit = stepAt(text, element, indent);
  const block = lines.map((line) => eol + indent + inUnits(line, unit));
  return { start: element.end, end: element.end, text: block.join('') };
}
