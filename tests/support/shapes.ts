import { Ajv2020 } from 'ajv/dist/2020.js';
import { published, schemaDocuments } from '../../src/api/schemas.js';

/** The published shapes by the commands that print them: `title show`, `survey`, … */
export const shapesByCommand = new Map<string, string[]>();
for (const [shape, { from }] of Object.entries(published))
  for (const [, words = ''] of from.matchAll(/`syndexa ([^`]+) --json`/g)) {
    const [first = '', second = ''] = words.split(' ').filter((word) => /^[a-z][a-z|-]*$/.test(word));
    const names = second === '' ? [first] : second.split('|').map((each) => `${first} ${each}`);
    for (const name of names) shapesByCommand.set(name, [...(shapesByCommand.get(name) ?? []), shape]);
  }

const ajv = new Ajv2020({ strict: false, validateFormats: false });
const validators = new Map(
  Object.entries(schemaDocuments()).map(([name, schema]) => [name, ajv.compile(schema)]),
);

/** What is wrong with a document that a command printed; a refusal is a problem. */
export function misshapen(command: string, document: unknown): unknown[] {
  const [first = '', second = ''] = command.split(' ');
  const shapes = shapesByCommand.get(`${first} ${second}`) ?? shapesByCommand.get(first) ?? [];
  const faults = [...shapes, 'problem'].map((shape) => {
    const validate = validators.get(shape);
    if (!validate) return `There is no shape ${shape}.`;
    return validate(document) ? undefined : validate.errors;
  });
  return faults.includes(undefined) ? [] : faults;
}

/** The documents that were asked for with `--json` among what commands printed, each with its command. */
export function documentsIn(text: string): [command: string, document: unknown][] {
  return text
    .split(/^\$ syndexa /m)
    .filter((part) => /^.* --json\b/.test(part))
    .map((part) => {
      const [command = '', ...lines] = part.split('\n');
      const last = lines.findIndex((line) => /^(?:[}\]]|\[\]|null)$/.test(line));
      return [command, JSON.parse(lines.slice(0, last + 1).join('\n')) as unknown];
    });
}
