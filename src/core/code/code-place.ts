import type { CodePlace } from '../facts/evidence.js';
import type { CodeContext } from './source-reading.js';

/** A place in code, in the form of facts. */
export function codePlace(
  { type, methods, conditions, looped }: CodeContext,
  more: Partial<CodePlace> = {},
): CodePlace {
  const { flow, argument, calledAt, empty, waits } = more;
  return {
    type,
    methods: [...methods],
    conditions: [...conditions],
    ...(looped ? { looped } : {}),
    ...(flow === undefined ? {} : { flow }),
    ...(argument === undefined ? {} : { argument }),
    ...(calledAt === undefined ? {} : { calledAt }),
    ...(empty === undefined ? {} : { empty }),
    ...(waits === undefined ? {} : { waits }),
  };
}
