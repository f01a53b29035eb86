import type { ReadProblem, Span } from '../../text/problem.js';

/** An attribute with the places of its name and of its value (without the quotes). */
export interface XmlAttribute extends Span {
  name: string;
  /** The value with character references and the five predefined entities replaced. */
  value: string;
  nameSpan: Span;
  valueSpan: Span;
}

export interface XmlElement extends Span {
  type: 'element';
  name: string;
  attributes: XmlAttribute[];
  children: XmlNode[];
  parent: XmlElement | null;
  /** From `<` up to and with the `>` of the start tag. */
  openTag: Span;
  /** The end tag; null when the element closes itself or is never closed. */
  closeTag: Span | null;
  selfClosing: boolean;
}

export interface XmlText extends Span {
  type: 'text';
  /** The text with references replaced; an entity that the document declares stays as it is written. */
  value: string;
  cdata: boolean;
}

export interface XmlComment extends Span {
  type: 'comment';
  value: string;
}

export type XmlNode = XmlElement | XmlText | XmlComment;

export interface XmlDocument {
  root: XmlElement | null;
  problems: ReadProblem[];
}
