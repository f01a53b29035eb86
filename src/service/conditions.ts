import type { Request, Response } from 'express';
import { ServiceError } from './errors.js';

/**
 * The precondition of a write: that the resource has one of these versions (If-Match), exists (If-Match: *), does not
 * exist (`absent` by If-None-Match: *, `new` by the call itself), or nothing.
 */
export type Condition = readonly number[] | 'present' | 'absent' | 'new' | 'any';

/**
 * One entity tag, with the blanks and the comma before the next. Weak ones too: what compresses answers makes them so.
 */
const tag = /\s*(?:W\/)?"([\x21\x23-\x7e\x80-\xff]*)"\s*(,|$)/y;

/**
 * The condition of a request.
 * @throws ServiceError `precondition-missing` when it names none, `unreadable` when it cannot be read
 */
export function conditionOf({ headers }: Request): Condition {
  const match = headers['if-match'];
  if (match === undefined) {
    if (headers['if-none-match'] === '*') return 'absent';
    throw new ServiceError('precondition-missing', 'This write must name the version that it changes.', {
      fix: 'Send the ETag that you read as If-Match (or If-None-Match: * for something new).',
    });
  }
  if (match.trim() === '*') return 'present';
  return tagsIn(match).flatMap((text) => (/^v\d{1,15}$/.test(text) ? Number(text.slice(1)) : []));
}

function tagsIn(header: string): string[] {
  const found: string[] = [];
  tag.lastIndex = 0;
  for (;;) {
    const parts = tag.exec(header);
    if (!parts)
      throw new ServiceError('unreadable', 'If-Match is not a list of entity tags.', {
        fix: 'Send the ETag that you read, with its quotation marks, such as "v3".',
      });
    found.push(parts[1] ?? '');
    if (parts[2] === '') return found;
  }
}

/**
 * Checks the precondition of a write.
 * @param current the current version; undefined if the resource does not exist
 * @param what its name, at the beginning of a sentence
 * @throws ServiceError `changed` or `exists`
 */
export function demand(condition: Condition, current: number | undefined, what: string): void {
  if (condition === 'any') return;
  if (condition === 'new' || condition === 'absent') {
    if (current === undefined) return;
    throw new ServiceError(condition === 'new' ? 'exists' : 'changed', `${what} already exists.`, {
      fix: 'Choose another name, or read it and change it.',
    });
  }
  if (current === undefined)
    throw new ServiceError('changed', `${what} does not exist, or no longer exists.`, {
      fix: 'Read the list again. Send If-None-Match: * to add it.',
    });
  if (condition === 'present' || condition.includes(current)) return;
  const versions = condition.length > 0 ? `, not ${condition.join(' or ')}` : '';
  throw new ServiceError(
    'changed',
    `${what} is at version ${current}${versions}: it was changed in the meantime.`,
    { fix: 'Read it again, see what changed, and repeat your change.' },
  );
}

/** Names the version of what is answered. */
export function setVersion(response: Response, version: number): void {
  response.setHeader('ETag', `"v${version}"`);
}
