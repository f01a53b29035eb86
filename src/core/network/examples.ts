import { valueAt } from '../text/own-values.js';
import { editsApart } from '../text/edit-distance.js';
import { readYaml, type FieldProblem } from '../formats/yaml/read.js';
import { exampleProfile } from './example.js';

/** An example longer than this is cut: what is behind is left to the reference of profiles. */
const maxExample = 160;

let known: unknown;
const example = () => (known ??= readYaml(exampleProfile).value);

/** Faults of a profile with what would be right: a field of nearly the same name, else an example of the field. */
export function withExamples(problems: readonly FieldProblem[]): FieldProblem[] {
  return problems.map((problem) => {
    if (problem.fix !== undefined || problem.field === '') return problem;
    const fix = fixFor(problem.field.split('.'), problem.isUnknown ?? false);
    return fix === undefined ? problem : { ...problem, fix };
  });
}

function fixFor(way: readonly string[], isUnknown: boolean): string | undefined {
  const name = way.at(-1) ?? '';
  const around = exampleAt(way.slice(0, -1));
  if (isUnknown) {
    if (typeof around !== 'object' || around === null || Array.isArray(around)) return undefined;
    const fields = Object.keys(around);
    const near = fields.find((field) => editsApart(field, name, 2) !== undefined);
    return near === undefined ? `Fields here are ${fields.join(', ')}.` : `Did you mean ${near}?`;
  }
  const found = exampleAt(way);
  if (found === undefined) return undefined;
  const isItem = /^\d+$/.test(name);
  return `Such as ${isItem ? '- ' : `${name}: `}${cut(flow(found))}`;
}

/** The value at a way of the example; where it has other items or names, those of the first that leads on. */
function exampleAt(way: readonly string[], value: unknown = example()): unknown {
  const [step, ...rest] = way;
  if (step === undefined) return value;
  if (typeof value !== 'object' || value === null) return undefined;
  const own = Array.isArray(value) ? undefined : valueAt(value as Record<string, unknown>, step);
  if (own !== undefined) return exampleAt(rest, own);
  for (const other of Object.values(value)) {
    const inside = exampleAt(rest, other);
    if (inside !== undefined && (rest.length > 0 || Array.isArray(value))) return inside;
  }
  return undefined;
}

/** A value as YAML on one line. */
function flow(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(flow).join(', ')}]`;
  if (typeof value === 'object' && value !== null)
    return `{ ${Object.entries(value)
      .map(([key, inner]) => `${key}: ${flow(inner)}`)
      .join(', ')} }`;
  if (typeof value !== 'string') return String(value);
  const isPlain = /^[A-Za-z][\w ./@()-]*$/.test(value) && !/^(true|false|null|yes|no)$/i.test(value);
  return isPlain ? value : `'${value.replaceAll("'", "''")}'`;
}

function cut(text: string): string {
  return text.length <= maxExample ? text : `${text.slice(0, maxExample - 1)}…`;
}
