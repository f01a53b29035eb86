import { readStrings } from '../../../formats/android-resources/read.js';
import { appendChild } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Change, Topic } from '../../../edits/model.js';
import { resourceFolders, valueFiles } from '../survey/sources.js';
import type { AndroidWireContext } from './context.js';

/** A string resource that wiring wants: its name, and its value per stage. */
export interface WantedString {
  network: string;
  topic: Topic;
  rules: string[];
  name: string;
  ids: ReadonlyMap<string, string>;
}

/** The name of the resource file that wiring adds to a source set. */
export const resourceFile = 'values/syndexa.xml';

const head = [
  '<?xml version="1.0" encoding="utf-8"?>',
  '<!-- IDs of ad networks, written by Syndexa from the roster. -->',
  '<resources>',
];
const tail = ['</resources>'];

/** Brings the wanted strings into each stage's source sets: changed where they are, else added to one file. */
export function stringChanges(context: AndroidWireContext, wanted: readonly WantedString[]): Change[] {
  return context.sets.flatMap(({ stage, sourceSet }) =>
    wanted.flatMap((item) => stringChange(context, sourceSet, item, item.ids.get(stage) ?? '')),
  );
}

function stringChange(
  context: AndroidWireContext,
  sourceSet: string,
  { network, topic, rules, name }: WantedString,
  id: string,
): Change[] {
  const { tree, model } = context;
  const variants = model.variants.filter(({ sourceSets }) => sourceSets.includes(sourceSet));
  const base = {
    platform: 'android' as const,
    network,
    topic,
    rules,
    variants: variants.map((variant) => variant.name),
  };
  for (const path of valueFiles(tree, model, sourceSet)) {
    const existing = tree.read(path, readStrings)?.strings.find((resource) => resource.name === name);
    if (!existing) continue;
    if (existing.value === id && existing.raw === id) return [];
    const { element } = existing;
    const inner = { start: element.openTag.end, end: element.closeTag?.start ?? element.openTag.end };
    return [{ ...base, path, kind: 'edit', edits: [{ ...inner, text: escapeXml(id) }] }];
  }
  const path = `${resourceFolders(model, sourceSet)[0] ?? ''}/${resourceFile}`;
  const line = `<string name="${name}" translatable="false">${escapeXml(id)}</string>`;
  const root = tree.read(path, readXml)?.root;
  const document = tree.text(path);
  if (root && document)
    return [
      { ...base, path, kind: 'edit', edits: appendChild(document.text, root, [line], document.lineEnd) },
    ];
  return [{ ...base, path, kind: 'create', content: { head, lines: [`    ${line}`], tail } }];
}
