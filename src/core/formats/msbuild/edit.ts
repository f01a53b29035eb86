import type { Edit } from '../../text/edit.js';
import { appendChild, insertAfter, removeElement, replaceElement, setAttribute } from '../xml/edit.js';
import { escapeXml } from '../../text/escape-xml.js';
import { attribute, elements } from '../xml/query.js';
import type { XmlElement } from '../xml/model.js';
import type { MsBuildFile } from './read.js';

/** A group of properties or items that is known by its label. */
export interface LabelledGroup {
  kind: 'PropertyGroup' | 'ItemGroup';
  label: string;
  condition?: string | undefined;
  /** Its entries, as elements. */
  entries: readonly string[];
}

function linesOf({ kind, label, condition, entries }: LabelledGroup): string[] {
  const asked = condition === undefined ? '' : ` Condition="${escapeXml(condition)}"`;
  return [
    `<${kind} Label="${escapeXml(label)}"${asked}>`,
    ...entries.map((entry) => `  ${entry}`),
    `</${kind}>`,
  ];
}

/** The group that has a label. */
export function groupLabelled({ root }: MsBuildFile, label: string): XmlElement | undefined {
  return root ? elements(root).find((element) => attribute(element, 'Label')?.value === label) : undefined;
}

/** Gives a project a labelled group: at its end, or in the place of the one that has the label. */
export function setGroup(text: string, file: MsBuildFile, group: LabelledGroup, eol: string): Edit[] {
  const standing = groupLabelled(file, group.label);
  if (standing) return replaceElement(text, standing, linesOf(group), eol);
  return file.root ? appendChild(text, file.root, linesOf(group), eol) : [];
}

/** Takes the group with a label out. */
export function removeGroup(text: string, file: MsBuildFile, label: string): Edit[] {
  const standing = groupLabelled(file, label);
  return standing ? [removeElement(text, standing)] : [];
}

export interface NewItem {
  type: string;
  include: string;
  version?: string | undefined;
  condition?: string | undefined;
}

/** Adds an item behind the last of its type that is under no condition; in a group of its own where there is none. */
export function addItem(
  text: string,
  file: MsBuildFile,
  { type, include, version, condition }: NewItem,
  eol: string,
): Edit[] {
  const last = file.entries.findLast(
    (entry) => entry.is === 'item' && entry.type === type && entry.conditions.length === 0,
  );
  const given = [
    ['Include', include],
    ['Version', version],
    ['Condition', condition],
  ].flatMap(([name, value]) => (value === undefined ? [] : [` ${name}="${escapeXml(value)}"`]));
  const line = `<${type}${given.join('')} />`;
  if (last) return [insertAfter(text, last.element, [line], eol)];
  return file.root ? appendChild(text, file.root, ['<ItemGroup>', `  ${line}`, '</ItemGroup>'], eol) : [];
}

/** Removes an item, and its group if it becomes empty. */
export function removeItem(text: string, element: XmlElement): Edit {
  const { parent } = element;
  const alone =
    parent?.name === 'ItemGroup' && elements(parent).length === 1 && parent.attributes.length === 0;
  return removeElement(text, alone ? parent : element);
}

/** Gives an item another version, where it has one: as an attribute, or as an element of its own. */
export function setVersion(element: XmlElement, version: string): Edit[] {
  for (const name of ['Version', 'VersionOverride'])
    if (attribute(element, name)) return setAttribute(element, name, version);
  const own = elements(element, 'Version')[0];
  return own?.closeTag ? [{ start: own.openTag.end, end: own.closeTag.start, text: escapeXml(version) }] : [];
}
