import { attribute, elements, textOf } from '../xml/query.js';
import { readXml } from '../xml/read.js';
import type { XmlElement } from '../xml/model.js';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A condition that is around an entry, or that must not hold for it (`Otherwise`). */
export interface MsCondition {
  text: string;
  holds: boolean;
}

interface MsEntryBase {
  conditions: MsCondition[];
  element: XmlElement;
}

export interface MsProperty extends MsEntryBase {
  is: 'property';
  name: string;
  /** As written, references and all. */
  value: string;
  /** The range of the value, without white space around it. */
  valueSpan: Span;
}

export interface MsItem extends MsEntryBase {
  is: 'item';
  type: string;
  /** Attributes and child elements alike, by their names in small letters. */
  metadata: ReadonlyMap<string, string>;
}

export interface MsImport extends MsEntryBase {
  is: 'import';
  project: string;
}

export type MsEntry = MsProperty | MsItem | MsImport;

/** A project file of MSBuild, its entries in the order in which they count. */
export interface MsBuildFile {
  root: XmlElement | null;
  entries: MsEntry[];
  problems: ReadProblem[];
}

const maxDepth = 20;

/**
 * Reads a project file (learn.microsoft.com, "MSBuild project file schema reference"). Targets and tasks are skipped.
 */
export function readMsBuild(text: string): MsBuildFile {
  const { root, problems } = readXml(text);
  const entries: MsEntry[] = [];
  if (root?.name === 'Project') take(root, [], entries, 0, text);
  return { root, entries, problems };
}

function own(element: XmlElement, outer: readonly MsCondition[]): MsCondition[] {
  const text = attribute(element, 'Condition')?.value.trim();
  return text ? [...outer, { text, holds: true }] : [...outer];
}

function take(
  parent: XmlElement,
  outer: readonly MsCondition[],
  entries: MsEntry[],
  depth: number,
  text: string,
): void {
  if (depth > maxDepth) return;
  for (const element of elements(parent)) {
    const conditions = own(element, outer);
    switch (element.name) {
      case 'PropertyGroup':
        for (const property of elements(element)) entries.push(propertyOf(property, conditions, text));
        break;
      case 'ItemGroup':
        for (const item of elements(element)) entries.push(itemOf(item, conditions));
        break;
      case 'Import': {
        const project = attribute(element, 'Project')?.value;
        if (project !== undefined) entries.push({ is: 'import', project, conditions, element });
        break;
      }
      case 'ImportGroup':
        take(element, conditions, entries, depth + 1, text);
        break;
      case 'Choose': {
        const passed: MsCondition[] = [];
        for (const branch of elements(element)) {
          const inside = [...conditions, ...passed];
          take(branch, own(branch, inside), entries, depth + 1, text);
          const asked = attribute(branch, 'Condition')?.value.trim();
          if (asked) passed.push({ text: asked, holds: false });
        }
        break;
      }
    }
  }
}

function propertyOf(element: XmlElement, outer: readonly MsCondition[], text: string): MsProperty {
  const inner = element.closeTag
    ? { start: element.openTag.end, end: element.closeTag.start }
    : { start: element.openTag.end, end: element.openTag.end };
  const written = text.slice(inner.start, inner.end);
  const start = inner.start + (/^\s*/.exec(written)?.[0].length ?? 0);
  return {
    is: 'property',
    name: element.name,
    value: textOf(element).trim(),
    valueSpan: {
      start: Math.min(start, inner.end),
      end: Math.max(start, inner.start + written.trimEnd().length),
    },
    conditions: own(element, outer),
    element,
  };
}

function itemOf(element: XmlElement, outer: readonly MsCondition[]): MsItem {
  const metadata = new Map<string, string>();
  for (const child of elements(element)) metadata.set(child.name.toLowerCase(), textOf(child).trim());
  for (const { name, value } of element.attributes) metadata.set(name.toLowerCase(), value.trim());
  return { is: 'item', type: element.name, metadata, conditions: own(element, outer), element };
}
