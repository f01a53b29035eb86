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
}

export interface YamlDocument {
  document: Document;
  value: unknown;
  problems: FieldProblem[];
  /** Where a field stands; the nearest field around it when it is missing. */
  placeOf: (path: readonly PropertyKey[]) => Position | undefined;
}

/** Documents longer than this (characters) are refused. */
export const maxYamlLength = 8_000_000;

/** Reads YAML with comments and places kept. Aliases are bounded, so a document cannot grow when it is read. */
export function readYaml(text: string): YamlDocument {
  const lines = new LineCounter();
  const { document, problems: faults } = parseYaml(text, maxYamlLength, lines);
  const problems: FieldProblem[] = faults.map(({ message, start }) => {
    const { line, col } = lines.linePos(start);
    return { field: '', message, fix: 'Correct the YAML at this place.', place: { line, column: col } };
  });
  let value: unknown = null;
  if (problems.length === 0) {
    try {
      value = document.toJS({ maxAliasCount: 100 });
    } catch (error) {
      problems.push({ field: '', message: error instanceof Error ? error.message : String(error) });
    }
  }
  return {
    document,
    value,
    problems,
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
      message:
        issue.code === 'unrecognized_keys'
          ? `There is no field of the name ${String(path.at(-1))} here.`
          : issue.message,
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
