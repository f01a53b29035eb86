import { inOurWords } from '../text/issue-text.js';
import { platformNames } from '../words/names.js';
import { valueAt } from '../text/own-values.js';
import { Document, isMap, isScalar, YAMLMap, type Node } from 'yaml';
import { fieldProblems, readYaml, type FieldProblem } from '../formats/yaml/read.js';
import { Roster } from './model.js';

/** Reads a roster document. What is wrong comes back with its field, line and column. */
export function readRoster(text: string): {
  roster: Roster | null;
  problems: FieldProblem[];
  placeOf: ReturnType<typeof readYaml>['placeOf'];
} {
  const yaml = readYaml(text);
  if (yaml.problems.length > 0) return { roster: null, problems: yaml.problems, placeOf: yaml.placeOf };
  const parsed = Roster.safeParse(yaml.value, inOurWords);
  if (parsed.success) return { roster: parsed.data, problems: [], placeOf: yaml.placeOf };
  return { roster: null, problems: fieldProblems(parsed.error, yaml), placeOf: yaml.placeOf };
}

const keyOrder = [
  ['syndexa', 'revision', 'publisher', 'titles', 'accepted'],
  ['name', 'domain', 'accounts', 'credentials', 'audience', 'stages', 'editions', 'networks', 'placements'],
  ['format', 'where', 'settings', 'units'],
  [...platformNames],
  ['test', 'production'],
].flat();

const layout = { lineWidth: 0, flowCollectionPadding: true, indent: 2 };
const maxIndent = 8;

/** Objects that are on one line, as `{ identifier: … }`. */
const flowKeys = new Set(['publisher', 'stages', 'settings']);

/**
 * Writes a roster as a document. Given the text of an earlier one, only what differs is changed there:
 * comments, order and layout of everything else stay.
 */
export function writeRoster(roster: Roster, earlier?: string): string {
  const target = prune(roster) as Record<string, unknown>;
  if (earlier !== undefined && earlier.trim() !== '') {
    const yaml = readYaml(earlier);
    const document = yaml.document();
    if (yaml.problems.length === 0 && isMap(document.contents)) {
      update(document, document.contents, target, []);
      return document.toString({ ...layout, indent: indentOf(earlier) });
    }
  }
  const document = new Document({});
  document.contents = build(document, target, []);
  return document.toString(layout);
}

/**
 * Why a text cannot be brought up to the record, because what it says would be lost: it is no YAML, or no roster. An empty
 * one can.
 */
export function updateProblems(text: string): FieldProblem[] {
  if (text.trim() === '') return [];
  const yaml = readYaml(text);
  if (yaml.problems.length > 0) return yaml.problems;
  const { contents } = yaml.document();
  if (isMap(contents) && contents.has('syndexa')) return [];
  return [
    {
      field: 'syndexa',
      message: 'It is missing, so this is not a roster, and its text would be lost.',
      fix: 'Name another file, or one that was exported before.',
      place: { line: 1, column: 1 },
    },
  ];
}

/** By how many blanks a document indents what is inside a table. */
function indentOf(text: string): number {
  return Math.min(/^( +)[^\s#]/m.exec(text)?.[1]?.length ?? layout.indent, maxIndent);
}

function update(document: Document, map: YAMLMap, target: Record<string, unknown>, path: string[]): void {
  for (const pair of [...map.items]) {
    const key = isScalar(pair.key) ? String(pair.key.value) : String(pair.key);
    if (!(key in target)) map.delete(pair.key);
  }
  for (const key of ordered(target)) {
    const value = valueAt(target, key);
    const existing = map.get(key, true) as Node | undefined;
    if (existing === undefined) insert(document, map, key, value, path);
    else if (isMap(existing) && isRecord(value)) update(document, existing, value, [...path, key]);
    else if (JSON.stringify(existing.toJS(document)) !== JSON.stringify(value)) {
      const fresh = build(document, value, [...path, key]);
      if (isScalar(existing) && isScalar(fresh)) existing.value = fresh.value;
      else {
        fresh.comment = existing.comment;
        fresh.commentBefore = existing.commentBefore;
        map.set(key, fresh);
      }
    }
  }
}

/** Puts a new key after the key that comes before it in the stable order. */
function insert(document: Document, map: YAMLMap, key: string, value: unknown, path: string[]): void {
  const pair = document.createPair(key, build(document, value, [...path, key]));
  const rank = rankOf(key);
  const before =
    rank < 0
      ? -1
      : map.items.findIndex((item) => rankOf(isScalar(item.key) ? String(item.key.value) : '') > rank);
  if (before < 0) map.items.push(pair);
  else map.items.splice(before, 0, pair);
}

function build(document: Document, value: unknown, path: string[]): Node {
  if (!isRecord(value)) {
    const node = document.createNode(value) as Node & { flow?: boolean };
    if (Array.isArray(value)) node.flow = true;
    return node;
  }
  const map = new YAMLMap(document.schema);
  for (const key of ordered(value))
    map.items.push(document.createPair(key, build(document, valueAt(value, key), [...path, key])));
  const leaf = Object.values(value).every(
    (item) => !isRecord(item) || Object.values(item).every((inner) => typeof inner !== 'object'),
  );
  map.flow =
    path.length > 0 &&
    (flowKeys.has(path.at(-1) ?? '') || (leaf && path.length > 3) || Object.keys(value).length === 0);
  return map;
}

function ordered(value: Record<string, unknown>): string[] {
  return Object.keys(value).sort((a, b) => {
    const [left, right] = [rankOf(a), rankOf(b)];
    return left < 0 || right < 0 ? 0 : left - right;
  });
}

function rankOf(key: string): number {
  return keyOrder.indexOf(key);
}

/** Leaves out what is absent or an empty default, so that documents stay short. */
function prune(value: unknown): unknown {
  if (!isRecord(value)) return value;
  const kept = Object.entries(value)
    .map(([key, item]) => [key, prune(item)] as const)
    .filter(
      ([key, item]) =>
        item !== undefined &&
        !(
          isRecord(item) &&
          Object.keys(item).length === 0 &&
          ['settings', 'units', 'networks', 'placements', 'editions'].includes(key)
        ),
    );
  return Object.fromEntries(kept);
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
