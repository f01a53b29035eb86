import { valueAt } from '../../text/own-values.js';
import type { ReadProblem, Span } from '../../text/problem.js';
import type { XmlDocument, XmlElement } from './model.js';

/** Elements nested deeper than this are reported and not read. */
export const maxXmlDepth = 256;

const nameChar = /[^\s<>/=?!"'&]/;

const predefined: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/**
 * Reads XML 1.0 with the place of everything, tolerantly: what is wrong is reported and reading goes on.
 * Document types are skipped and their entities are never expanded, so no document can grow.
 */
export function readXml(text: string): XmlDocument {
  return new XmlReader(text).read();
}

class XmlReader {
  private at = 0;
  private root: XmlElement | null = null;
  private readonly open: XmlElement[] = [];
  private readonly problems: ReadProblem[] = [];
  private tooDeep = false;

  constructor(private readonly text: string) {}

  read(): XmlDocument {
    while (this.at < this.text.length && !this.tooDeep) this.node();
    for (const element of this.open.reverse()) {
      element.end = this.text.length;
      this.problem(
        `The element <${element.name}> is never closed.`,
        element.openTag.start,
        element.openTag.end,
      );
    }
    if (!this.root && this.problems.length === 0) {
      this.problem('There is no root element.', 0, Math.min(1, this.text.length));
    }
    return { root: this.root, problems: this.problems };
  }

  private node(): void {
    const { text, at } = this;
    if (text[at] !== '<') return this.characters();
    if (text.startsWith('<!--', at)) return this.comment();
    if (text.startsWith('<![CDATA[', at)) return this.cdata();
    if (text.startsWith('<?', at)) return this.skipTo('?>', 'This processing instruction is never closed.');
    if (text.startsWith('<!', at)) return this.docType();
    if (text.startsWith('</', at)) return this.endTag();
    return this.startTag();
  }

  private characters(): void {
    const start = this.at;
    const next = this.text.indexOf('<', start);
    this.at = next < 0 ? this.text.length : next;
    const raw = this.text.slice(start, this.at);
    const parent = this.open.at(-1);
    if (parent) {
      parent.children.push({
        type: 'text',
        value: this.unescape(raw, start),
        cdata: false,
        start,
        end: this.at,
      });
    } else if (raw.trim() !== '') {
      const offset = start + raw.search(/\S/);
      this.problem('There is text outside the root element.', offset, this.at);
    }
  }

  private comment(): void {
    const start = this.at;
    const close = this.text.indexOf('-->', start + 4);
    if (close < 0) this.problem('This comment is never closed.', start, start + 4);
    this.at = close < 0 ? this.text.length : close + 3;
    const value = this.text.slice(start + 4, close < 0 ? this.text.length : close);
    this.open.at(-1)?.children.push({ type: 'comment', value, start, end: this.at });
  }

  private cdata(): void {
    const start = this.at;
    const close = this.text.indexOf(']]>', start);
    if (close < 0) this.problem('This CDATA section is never closed.', start, start + 9);
    this.at = close < 0 ? this.text.length : close + 3;
    const value = this.text.slice(start + 9, close < 0 ? this.text.length : close);
    this.open.at(-1)?.children.push({ type: 'text', value, cdata: true, start, end: this.at });
  }

  private skipTo(mark: string, unclosed: string): void {
    const close = this.text.indexOf(mark, this.at);
    if (close < 0) this.problem(unclosed, this.at, this.at + 2);
    this.at = close < 0 ? this.text.length : close + mark.length;
  }

  /** Passes over `<!DOCTYPE … [ … ]>` whole; quotes and comments inside may hold brackets. */
  private docType(): void {
    const start = this.at;
    let depth = 0;
    for (let i = start; i < this.text.length; i++) {
      const char = this.text[i];
      if (this.text.startsWith('<!--', i)) {
        const close = this.text.indexOf('-->', i);
        if (close < 0) break;
        i = close + 2;
      } else if (char === '"' || char === "'") {
        const close = this.text.indexOf(char, i + 1);
        if (close < 0) break;
        i = close;
      } else if (char === '[') depth++;
      else if (char === ']') depth--;
      else if (char === '>' && depth <= 0) {
        this.at = i + 1;
        return;
      }
    }
    this.problem('This document type declaration is never closed.', start, start + 2);
    this.at = this.text.length;
  }

  private endTag(): void {
    const start = this.at;
    this.at += 2;
    const name = this.name();
    this.blanks();
    if (this.text[this.at] === '>') this.at++;
    else this.problem(`The end tag </${name}> has no ">".`, start, this.at);
    const depth = this.open.findLastIndex((element) => element.name === name);
    if (depth < 0) {
      this.problem(`The end tag </${name}> closes nothing.`, start, this.at);
      return;
    }
    while (this.open.length > depth + 1) {
      const left = this.open.pop();
      if (!left) break;
      left.end = start;
      const { start: from, end: to } = left.openTag;
      this.problem(`The element <${left.name}> is not closed before </${name}>.`, from, to);
    }
    const element = this.open.pop();
    if (element) {
      element.closeTag = { start, end: this.at };
      element.end = this.at;
    }
  }

  private startTag(): void {
    const start = this.at++;
    const name = this.name();
    if (name === '') {
      this.problem('This "<" begins no tag; written as text it must be "&lt;".', start, start + 1);
      return;
    }
    const parent = this.open.at(-1) ?? null;
    const element: XmlElement = {
      type: 'element',
      name,
      attributes: [],
      children: [],
      parent,
      start,
      end: start,
      openTag: { start, end: start },
      closeTag: null,
      selfClosing: false,
    };
    this.attributes(element);
    if (this.text.startsWith('/>', this.at)) {
      element.selfClosing = true;
      this.at += 2;
    } else if (this.text[this.at] === '>') {
      this.at++;
    } else {
      this.problem(`The start tag <${name}> has no ">".`, start, this.at);
    }
    element.openTag.end = this.at;
    element.end = this.at;
    this.attach(element, parent);
  }

  private attach(element: XmlElement, parent: XmlElement | null): void {
    if (parent) parent.children.push(element);
    else if (this.root) {
      const { start, end } = element.openTag;
      this.problem(`There is a second root element, <${element.name}>.`, start, end);
    } else this.root = element;
    if (element.selfClosing) return;
    if (this.open.length >= maxXmlDepth) {
      this.problem(`Elements are nested more than ${maxXmlDepth} deep.`, element.start, element.openTag.end);
      this.tooDeep = true;
      return;
    }
    this.open.push(element);
  }

  private attributes(element: XmlElement): void {
    for (;;) {
      this.blanks();
      const start = this.at;
      const char = this.text[start];
      if (char === undefined || char === '>' || char === '<' || this.text.startsWith('/>', start)) return;
      const name = this.name();
      if (name === '') {
        this.problem(`The character ${JSON.stringify(char)} is not allowed in a tag.`, start, start + 1);
        this.at++;
        continue;
      }
      const nameSpan = { start, end: this.at };
      this.blanks();
      if (this.text[this.at] !== '=') {
        this.problem(`The attribute ${name} has no value.`, start, nameSpan.end);
        continue;
      }
      this.at++;
      this.blanks();
      const valueSpan = this.value(name);
      const value = this.unescape(this.text.slice(valueSpan.start, valueSpan.end), valueSpan.start);
      if (element.attributes.some((other) => other.name === name)) {
        this.problem(`The attribute ${name} is given twice.`, start, this.at);
      }
      element.attributes.push({ name, value, nameSpan, valueSpan, start, end: this.at });
    }
  }

  private value(name: string): Span {
    const quote = this.text[this.at];
    if (quote !== '"' && quote !== "'") {
      const start = this.at;
      while (this.at < this.text.length && !/[\s<>]/.test(this.text[this.at] ?? '')) this.at++;
      this.problem(`The value of ${name} is not in quotes.`, start, this.at);
      return { start, end: this.at };
    }
    const start = this.at + 1;
    let end = this.text.indexOf(quote, start);
    const bracket = this.text.indexOf('<', start);
    if (end < 0 || (bracket >= 0 && bracket < end)) {
      this.problem(`The value of ${name} has no closing quote.`, start - 1, start);
      end = bracket >= 0 ? bracket : this.text.length;
      this.at = end;
      return { start, end };
    }
    this.at = end + 1;
    return { start, end };
  }

  private unescape(raw: string, offset: number): string {
    if (!raw.includes('&')) return raw;
    return raw.replace(
      /&(#x[0-9a-fA-F]{1,6}|#\d{1,7}|[^\s;&<]{1,64});|&/g,
      (whole, name: string | undefined, at: number) => {
        if (name === undefined) {
          this.problem(
            'This "&" begins no reference; written as text it must be "&amp;".',
            offset + at,
            offset + at + 1,
          );
          return whole;
        }
        if (!name.startsWith('#')) return valueAt(predefined, name) ?? whole;
        const code = name[1] === 'x' ? parseInt(name.slice(2), 16) : parseInt(name.slice(1), 10);
        return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : whole;
      },
    );
  }

  private name(): string {
    const start = this.at;
    while (this.at < this.text.length && nameChar.test(this.text[this.at] ?? '')) this.at++;
    return this.text.slice(start, this.at);
  }

  private blanks(): void {
    while (this.at < this.text.length && /\s/.test(this.text[this.at] ?? '')) this.at++;
  }

  private problem(message: string, start: number, end: number): void {
    if (this.problems.length < 50) this.problems.push({ message, start, end: Math.max(end, start) });
  }
}
