import type * as z from 'zod';
import { valueAt } from './own-values.js';

/** How people call what a schema expects or finds. */
const typeWords: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  object: 'a group of fields',
  record: 'a group of fields',
  array: 'a list',
  null: 'nothing',
  undefined: 'nothing',
  date: 'a date',
};
const inWords = (type: string) => valueAt(typeWords, type) ?? type;

/** What is wrong with a value, in words; a schema's own words go first. Undefined leaves it to the library. */
export function issueText(issue: z.core.$ZodRawIssue): string | undefined {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined
        ? 'It is missing.'
        : `It has to be ${inWords(issue.expected)}, but it is ${inWords(typeOf(issue.input))}.`;
    case 'too_small':
      return `It is too ${sizeWord(issue.origin, 'small')}: ${bound(issue.origin, issue.minimum, 'at least')}.`;
    case 'too_big':
      return `It is too ${sizeWord(issue.origin, 'big')}: ${bound(issue.origin, issue.maximum, 'at most')}.`;
    case 'invalid_value':
      return `It has to be ${listed(issue.values.map(String))}.`;
    case 'invalid_format':
      return issue.format === 'url'
        ? 'It must be a full address, such as https://pages.reef.example.'
        : 'It does not have the form that is required here.';
    case 'invalid_key':
      return 'There is no field with this name here.';
    case 'invalid_union':
      return issue.input === undefined ? 'It is missing.' : 'It has none of the forms that are allowed here.';
    default:
      return undefined;
  }
}

function typeOf(input: unknown): string {
  if (input === null) return 'null';
  return Array.isArray(input) ? 'array' : typeof input;
}

function sizeWord(origin: string, size: 'small' | 'big'): string {
  const [small, big] = origin === 'string' ? ['short', 'long'] : ['small', 'large'];
  return origin === 'array' ? (size === 'small' ? 'short' : 'long') : size === 'small' ? small : big;
}

function bound(origin: string, limit: number | bigint, word: string): string {
  const unit = origin === 'string' ? ' characters' : origin === 'array' ? ' items' : '';
  const plain = Number(limit) === 1 ? unit.replace(/s$/, '') : unit;
  return `${word} ${limit}${plain}`;
}

function listed(values: readonly string[]): string {
  if (values.length < 2) return values[0] ?? '';
  return `${values.slice(0, -1).join(', ')} or ${values.at(-1)}`;
}

/** What is given to a schema's `safeParse`, so that it says what is wrong as `issueText` does. */
export const inOurWords = { error: issueText };
