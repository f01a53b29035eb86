import { CORE_SCHEMA, load, YAMLException } from 'js-yaml';
import { isMap, isPair, isScalar, isSeq, LineCounter, type Document, type Pair, type YAMLMap } from 'yaml';
import type * as z from 'zod';
import type { Position } from '../../text/line-map.js';
import { parseYaml } from './parse.js';

/** A fault in a document, with the field it concerns and, where known, its place. */
export interface FieldProblem {
  /** Dotted path of the field; empty for the document as a whole. */
  field: string;
  message: string;
  /** What would be right, or what to do. */
  fix?: string;
  place?: Position;
  /** Whether the field is unknown at this place. */
  isUnknown?: boolean;
}

export interface YamlDocument {
  /** The document with its comments, for edits that keep them. */
  document: () => Document;
  value: unknown;
  problems: FieldProblem[];
  /** The place of a field; if it is missing, that of the nearest field around it. */
  placeOf: (path: readonly PropertyKey[]) => Position | undefined;
}

/** Documents longer than this (characters) are refused. */
export const maxYamlLength = 16_000_000;
const maxDepth = 100;
const maxAliases = 100;

/**
 * Reads YAML with comments and places. Aliases are limited, so a document cannot grow when it is read. Valid documents
 * are read by a faster parser (a tenth of the time) without comments and places, which are computed on demand.
 * Documents with aliases are left to the slower one, which limits their growth.
 */
export function readYaml(text: string): YamlDocument {
  const value = text.length > maxYamlLength ? undefined : plainValue(text);
  let known: WholeYaml | undefined;
  const whole = (): WholeYaml => (known ??= wholeYaml(text));
  const placeOf: YamlDocument['placeOf'] = (path) => whole().placeOf(path);
  const document = (): Document => whole().document;
  if (value) return { document, value: value.is, problems: [], placeOf };
  return { document, ...whole().read(), placeOf };
}

/** The value of a sound document; undefined for one that is not, or that is nested beyond reason. */
function plainValue(text: string): { is: unknown } | undefined {
  try {
    return {
      is: load(text.startsWith('\uFEFF') ? text.slice(1) : text, {
        schema: CORE_SCHEMA,
        maxDepth,
        maxAliases: 0,
      }),
    };
  } catch (error) {
    if (error instanceof YAMLException) return undefined;
    throw error;
  }
}

interface WholeYaml extends Pick<YamlDocument, 'placeOf'> {
  document: Document;
  read: () => Pick<YamlDocument, 'value' | 'problems'>;
}

function wholeYaml(text: string): WholeYaml {
  const lines = new LineCounter();
  const { document, problems: faults } = parseYaml(text, maxYamlLength, lines);
  return {
    document,
    read() {
      // Tables inside each other that are not closed are one fault at one place.
      const apart = new Map(faults.map((fault) => [`${fault.start} ${fault.message}`, fault]));
      const problems: FieldProblem[] = [...apart.values()].map(({ message: text, start }) => {
        const { line, col } = lines.linePos(start);
        const message = /[.!?]$/.test(text) ? text : `${text}.`;
        return { field: '', message, fix: 'Correct the YAML at this place.', place: { line, column: col } };
      });
      if (problems.length > 0) return { value: null, problems };
      try {
        return { value: document.toJS({ maxAliasCount: maxAliases }), problems };
      } catch (error) {
        const message = error instanceof Error ? error.message : String(error);
        return { value: null, problems: [{ field: '', message }] };
      }
    },
    placeOf(path) {
      const offset = offsetOf(document, path);
      if (offset === undefined) return undefined;
      const { line, col } = lines.linePos(offset);
      return { line, column: col };
    },
  };
}

/** Zod's issues as field problems with their places in the document. */
export function fieldProblems(
  error: z.ZodError,
  yaml?: YamlDocument,
  prefix: readonly PropertyKey[] = [],
): FieldProblem[] {
  return error.issues.flatMap((issue): FieldProblem[] => {
    const base = [...prefix, ...issue.path];
    if (issue.code === 'invalid_union') {
      // Of several shapes the one that was most nearly met is the one that was meant.
      const shapes = issue.errors.map((issues) => fieldProblems({ issues } as z.ZodError, yaml, base));
      const [nearest] = shapes.filter(({ length }) => length > 0).sort((a, b) => a.length - b.length);
      const told = nearest?.every(({ field }) => field === base.map(String).join('.')) ? undefined : nearest;
      if (told) return told;
    }
    const paths = issue.code === 'unrecognized_keys' ? issue.keys.map((key) => [...base, key]) : [base];
    return paths.map((path) => ({
      field: path.map(String).join('.'),
      ...(issue.code === 'unrecognized_keys'
        ? { message: `There is no field of the name ${String(path.at(-1))} here.`, isUnknown: true }
        : { message: issue.message }),
      ...(yaml ? { place: yaml.placeOf(path) } : {}),
    }));
  });
}

const pairs = new WeakMap<YAMLMap, Map<string, Pair>>();

/** The entries of a map by key, the first of each name. */
function pairsOf(map: YAMLMap): Map<string, Pair> {
  const known = pairs.get(map) ?? new Map<string, Pair>();
  if (!pairs.has(map)) {
    pairs.set(map, known);
    for (const item of map.items)
      if (isPair(item) && isScalar(item.key) && !known.has(String(item.key.value)))
        known.set(String(item.key.value), item);
  }
  return known;
}

function offsetOf(document: Document, path: readonly PropertyKey[]): number | undefined {
  let node: unknown = document.contents;
  let offset = startOf(node);
  for (const step of path) {
    if (isMap(node)) {
      const pair = pairsOf(node).get(String(step));
      if (!pair) return offset;
      offset = startOf(pair.value) ?? startOf(pair.key) ?? offset;
      node = pair.value;
    } else if (isSeq(node)) {
      node = node.items[Number(step)];
      offset = startOf(node) ?? offset;
    } else return offset;
  }
  return offset;
}

function startOf(node: unknown): number | undefined {
  if (!node || typeof node !== 'object' || !('range' in node)) return undefined;
  const { range } = node as { range?: [number, number, number] | null };
  return range?.[0];
}
