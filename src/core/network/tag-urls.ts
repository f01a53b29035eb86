import { unfilledMacros } from '../formats/vast/macros.js';
import { escapeUrl } from '../text/escape-url.js';
import type { Profile } from './model.js';

export interface TagUrlProblem {
  /** An error keeps the tag from working; a warning may cost money, or an ad. */
  severity: 'error' | 'warning';
  message: string;
  fix: string;
}

/** Whether an ID is the address of a tag. */
export const isTagUrl = (id: string): boolean => /^\s*https?:/i.test(id);

/**
 * What is wrong with the address of a tag: with its letters (RFC 3986), its parameters, its macros, and what its
 * network asks for.
 */
export function tagUrlProblems(url: string, { tag, name }: Pick<Profile, 'tag' | 'name'>): TagUrlProblem[] {
  const problems: TagUrlProblem[] = [];
  const error = (message: string, fix: string) => problems.push({ severity: 'error', message, fix });
  const warning = (message: string, fix: string) => problems.push({ severity: 'warning', message, fix });
  if (!URL.canParse(url.trim())) {
    error('It is not a web address.', 'Copy it again from the page of the network.');
    return problems;
  }
  if (url !== url.trim()) error('It has spaces around it.', 'Remove them: they become part of the address.');
  if (/^http:/i.test(url.trim()))
    warning(
      'It does not use https.',
      'Use https: platforms block other addresses unless the app allows them.',
    );
  if (/&(amp|quot|lt|gt|#\d+);/.test(url))
    error('It was copied from XML: its characters are still escaped.', 'Write & instead of &amp;.');
  const odd = [...new Set(withoutMacros(url).match(/[^\x21-\x7e]|["<>\\^`{|}]/gu))];
  if (odd.length > 0 && url === url.trim())
    error(
      `It has characters that must be escaped: ${odd.map(shown).join(' ')}.`,
      `Escape them: ${odd.map((sign) => `${shown(sign)} is ${escapeUrl(sign)}`).join(', ')}.`,
    );
  if (/%(?![0-9a-f]{2})/i.test(withoutMacros(url)))
    error(
      'It has a % that is not followed by two hexadecimal digits.',
      'Write %25 for a literal percent sign.',
    );
  problems.push(...parameterProblems(url, { tag, name }));
  const { unknown } = unfilledMacros(url);
  if (unknown.length > 0)
    warning(
      `Unknown macros are sent unchanged: ${unknown.join(', ')}.`,
      'Use a VAST macro such as [CACHEBUSTING], or the value itself.',
    );
  return problems;
}

function parameterProblems(url: string, { tag, name }: Pick<Profile, 'tag' | 'name'>): TagUrlProblem[] {
  const problems: TagUrlProblem[] = [];
  const query = /\?([^#]*)/.exec(url)?.[1] ?? '';
  const given = query.split('&').filter((part) => part !== '');
  const values = new Map<string, string[]>();
  for (const part of given) {
    const [key = '', ...rest] = part.split('=');
    values.set(key, [...(values.get(key) ?? []), rest.join('=')]);
  }
  for (const [key, all] of values) {
    if (all.length > 1)
      problems.push({
        severity: 'warning',
        message: `The parameter ${key} appears ${all.length} times.`,
        fix: 'Keep one: servers differ in which one they use.',
      });
    const nested = all.find((value) => /^https?:\/\//i.test(value));
    if (nested !== undefined)
      problems.push({
        severity: /[?&]/.test(nested) ? 'error' : 'warning',
        message: `The address in ${key} is not escaped.`,
        fix: `Write ${escapeUrl(nested)}: otherwise everything after its first & is lost.`,
      });
    if (all.every((value) => value === '') && part(tag, key)?.value !== '')
      problems.push({
        severity: 'warning',
        message: `The parameter ${key} is empty.`,
        fix: 'Give it a value, or remove it.',
      });
  }
  for (const { name: wanted, value, why } of tag?.parameters ?? []) {
    const found = values.get(wanted);
    const example = `${wanted}=${value ?? '…'}`;
    if (!found)
      problems.push({
        severity: 'error',
        message: `The parameter ${wanted} is missing. ${name}: ${why}`,
        fix: `Add ${example}.`,
      });
    else if (value !== undefined && !found.includes(value))
      problems.push({
        severity: 'error',
        message: `The parameter ${wanted} is ${JSON.stringify(found[0] ?? '')}. ${name}: ${why}`,
        fix: `Write ${example}.`,
      });
  }
  return problems;
}

const part = (tag: Profile['tag'], key: string) => tag?.parameters.find(({ name }) => name === key);

/** An address without its macros, whose brackets are intended. */
const withoutMacros = (url: string): string =>
  url
    .replace(/\[[A-Za-z0-9_]{2,40}\]/g, '')
    .replace(/%%[A-Za-z_]{2,40}%%|\$\{[A-Za-z_.]{2,40}\}|\{\{[A-Za-z_. ]{2,40}\}\}/g, '');

const shown = (sign: string): string => (sign === ' ' ? 'a space' : sign);
