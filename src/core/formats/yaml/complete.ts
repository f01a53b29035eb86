import { valueAt } from '../../text/own-values.js';

/** The part of a JSON Schema (2020-12) that completion reads. */
export interface CompletionSchema {
  $ref?: string;
  $defs?: Readonly<Record<string, CompletionSchema>>;
  type?: string;
  description?: string;
  properties?: Readonly<Record<string, CompletionSchema>>;
  required?: readonly string[];
  additionalProperties?: boolean | CompletionSchema;
  propertyNames?: CompletionSchema;
  items?: CompletionSchema;
  anyOf?: readonly CompletionSchema[];
  oneOf?: readonly CompletionSchema[];
  allOf?: readonly CompletionSchema[];
  enum?: readonly unknown[];
  const?: unknown;
}

/** A key or a value that may be written. */
export interface Completion {
  kind: 'key' | 'value';
  label: string;
  /** What is put in: a key with its colon. */
  insert: string;
  /** What the schema says of it; empty when it says nothing. */
  about: string;
  isRequired: boolean;
}

/** What may be written at a place of a text. */
export interface Completions {
  /** The offset at which the word begins that is being written. */
  from: number;
  options: Completion[];
}

/** An item of a sequence, whichever it is. */
const item = Symbol('item');
type Step = string | typeof item;

/**
 * What the schema of a YAML document allows at an offset. Documents are read by their indentation, so an unfinished one
 * is completed too; flow mappings and sequences are followed within their line.
 * @returns null where nothing can be completed, such as in a comment
 */
export function completeYaml(text: string, offset: number, schema: CompletionSchema): Completions | null {
  const start = offset === 0 ? 0 : text.lastIndexOf('\n', offset - 1) + 1;
  const before = text.slice(start, offset);
  const { marks, content, column } = marksOf(before);
  const flow = followFlow(content);
  if (flow === null) return null;
  const [outermost] = flow.frames;
  const innermost = flow.frames.at(-1);
  if (!outermost || !innermost) return null;
  const lines = text.split('\n');
  const row = text.slice(0, start).split('\n').length - 1;
  const own = marks.toReversed().map((): Step => item);
  const parents = parentsOf(lines, row, marks[0] ?? column, marks.length > 0);
  const path = [...parents, ...own, ...flow.frames.flatMap(stepsOf)];
  const found = path.reduce<readonly CompletionSchema[]>(
    (all, step) => all.flatMap((one) => stepInto(one, step, schema)),
    alternatives(schema, schema),
  );
  const from = offset - flow.word.length;
  const isKey = innermost.key === null && innermost.kind !== '[';
  if (!isKey) return { from, options: found.flatMap(valuesOf) };
  const taken = innermost === outermost ? siblingsOf(lines, row, column) : innermost.seen;
  const keys = found.flatMap((one) => keysOf(one, schema)).filter(({ label }) => !taken.has(label));
  // In a block, a line without a colon may be an item of scalars too.
  const scalars = marks.length > 0 ? found.flatMap(valuesOf) : [];
  return { from, options: unique([...keys, ...scalars]) };
}

/** The columns of the dashes that a line begins with, and what follows them at which column. */
function marksOf(line: string): { marks: number[]; content: string; column: number } {
  const marks: number[] = [];
  let column = 0;
  for (; column < line.length; column++) {
    if (line[column] === ' ') continue;
    if (line[column] !== '-' || (line[column + 1] ?? ' ') !== ' ') break;
    marks.push(column);
  }
  return { marks, content: line.slice(column), column };
}

/** A mapping or sequence that is open in a line; the line itself is the outermost. */
interface Frame {
  kind: 'line' | '{' | '[';
  /** The key whose value comes next. */
  key: string | null;
  seen: Set<string>;
}

function stepsOf({ kind, key }: Frame): Step[] {
  if (kind === '[') return [item];
  return key === null ? [] : [key];
}

/** The mappings and sequences that are open at the end of a line, and the word there; null in a comment or a text. */
function followFlow(content: string): { frames: Frame[]; word: string } | null {
  const frames: Frame[] = [{ kind: 'line', key: null, seen: new Set() }];
  let word = '';
  for (let at = 0; at < content.length; at++) {
    const character = content[at] ?? '';
    const frame = frames.at(-1);
    if (!frame) return null;
    if (character === '#' && (at === 0 || content[at - 1] === ' ')) return null;
    if ((character === '"' || character === "'") && word.trim() === '') {
      const end = content.indexOf(character, at + 1);
      if (end < 0) return null;
      word = content.slice(at + 1, end);
      at = end;
    } else if (character === ':' && (content[at + 1] ?? ' ') === ' ' && frame.key === null) {
      frame.key = word.trim();
      frame.seen.add(frame.key);
      word = '';
    } else if (character === '{' || character === '[') {
      frames.push({ kind: character, key: null, seen: new Set() });
      word = '';
    } else if (character === '}' || character === ']') {
      if (frames.length > 1) frames.pop();
      word = '';
    } else if (character === ',' && frame.kind !== 'line') {
      frame.key = null;
      word = '';
    } else word += character;
  }
  return { frames, word: word.trimStart() };
}

/** A dash or a key in a line. */
interface Position {
  column: number;
  step: Step;
  /** Whether its value begins on a line below. */
  isOpen: boolean;
}

/** What is at which column of a line: dashes, and the key that follows them. */
function positionsOf(line: string): Position[] {
  const { marks, content, column } = marksOf(line);
  const dashes = marks.map((at): Position => ({ column: at, step: item, isOpen: true }));
  const key = /^(?:"([^"]*)"|'([^']*)'|([^\s#'"{[&*!|>%@`-][^:#]*?|-[^\s:#][^:#]*?))\s*:(?=\s|$)(.*)$/.exec(
    content,
  );
  if (!key) return dashes;
  const isOpen = /^\s*(?:#.*)?$/.test(key[4] ?? '');
  return [...dashes, { column, step: key[1] ?? key[2] ?? key[3] ?? '', isOpen }];
}

/** The keys and items that a line of this indentation is in, the outermost first. */
function parentsOf(lines: readonly string[], row: number, indent: number, isItem: boolean): Step[] {
  const path: Step[] = [];
  let level = indent;
  // An item may begin at the column of the key that its sequence belongs to.
  let isBelowItem = isItem;
  for (let at = row - 1; at >= 0 && (level > 0 || isBelowItem); at--) {
    const line = lines[at] ?? '';
    if (/^\s*(?:#|$)/.test(line)) continue;
    for (const { column, step, isOpen } of positionsOf(line).reverse()) {
      const isSame = isBelowItem && column === level && step !== item && isOpen;
      if (column >= level && !isSame) continue;
      path.unshift(step);
      level = column;
      isBelowItem = step === item;
    }
  }
  return path;
}

/** The keys of the mapping that a line is in, its own left out. */
function siblingsOf(lines: readonly string[], row: number, column: number): Set<string> {
  const found = new Set<string>();
  for (const [from, step] of [
    [row, -1],
    [row + 1, 1],
  ] as const)
    for (let at = from; at >= 0 && at < lines.length; at += step) {
      const line = lines[at] ?? '';
      if (at !== row && /^\s*(?:#|$)/.test(line)) continue;
      const positions = positionsOf(line);
      const first = positions[0]?.column ?? column;
      if (at !== row)
        for (const one of positions)
          if (one.column === column && one.step !== item) found.add(String(one.step));
      // What is further left ends the mapping: above, its own first line may begin with a dash.
      if (first < column && (at !== row || positions.some(({ step: one }) => one === item))) break;
    }
  return found;
}

/** A schema with its reference followed, and each of its alternatives. */
function alternatives(schema: CompletionSchema, root: CompletionSchema, depth = 0): CompletionSchema[] {
  if (depth > 20) return [];
  const name = schema.$ref?.startsWith('#/$defs/') ? schema.$ref.slice(8) : undefined;
  const referred = name === undefined ? undefined : valueAt(root.$defs ?? {}, name);
  const others = [...(schema.anyOf ?? []), ...(schema.oneOf ?? []), ...(schema.allOf ?? [])];
  return [
    { ...schema, description: schema.description ?? referred?.description ?? '' },
    ...[...(referred ? [referred] : []), ...others].flatMap((one) => alternatives(one, root, depth + 1)),
  ];
}

function stepInto(schema: CompletionSchema, step: Step, root: CompletionSchema): CompletionSchema[] {
  const { additionalProperties: further } = schema;
  const next =
    step === item
      ? schema.items
      : (valueAt(schema.properties ?? {}, step) ?? (typeof further === 'object' ? further : undefined));
  return next ? alternatives(next, root) : [];
}

function keysOf(schema: CompletionSchema, root: CompletionSchema): Completion[] {
  const { additionalProperties: further, propertyNames, required = [] } = schema;
  const named = Object.entries(schema.properties ?? {});
  const open = typeof further === 'object' ? further : {};
  const listed = (propertyNames ? alternatives(propertyNames, root) : [])
    .flatMap((one) => one.enum ?? [])
    .map((name) => [String(name), open] as const);
  return [...named, ...listed].map(([label, value]) => {
    const all = alternatives(value, root);
    const isNested = all.some((one) => one.type === 'object' || one.type === 'array');
    return {
      kind: 'key',
      label,
      insert: isNested ? `${label}:` : `${label}: `,
      about: all.map(({ description }) => description ?? '').find(Boolean) ?? '',
      isRequired: required.includes(label),
    };
  });
}

function valuesOf({
  enum: listed = [],
  const: only,
  type,
  description = '',
}: CompletionSchema): Completion[] {
  const values = [
    ...listed,
    ...(only === undefined ? [] : [only]),
    ...(type === 'boolean' ? [true, false] : []),
  ];
  return values.map((value) => ({
    kind: 'value',
    label: String(value),
    insert: String(value),
    about: description,
    isRequired: false,
  }));
}

function unique(options: readonly Completion[]): Completion[] {
  return [
    ...new Map(options.toReversed().map((option) => [`${option.kind} ${option.label}`, option])).values(),
  ].reverse();
}
