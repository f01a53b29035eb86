import type { Edit } from '../../text/edit.js';
import { indentAt } from '../xml/edit.js';
import { callsIn, literal } from './query.js';
import type { Expression, Statement } from './model.js';

type Call = Expression & { type: 'call' };

/** The last block that a way of names leads to: `dependencyResolutionManagement`, then `repositories`. */
export function blockAt(statements: readonly Statement[], way: readonly string[]): Call | undefined {
  const [name, ...rest] = way;
  const found = callsIn(statements).filter(({ path, call }) => path === name && call.body);
  for (const { call } of found.reverse()) {
    const inner = rest.length === 0 ? call : blockAt(call.body ?? [], rest);
    if (inner) return inner;
  }
  return undefined;
}

/** Adds a line at the end of a block, indented as the last one before it. */
export function appendToBlock(text: string, block: Call, line: string, eol: string): Edit {
  const close = text.lastIndexOf('}', block.end - 1);
  const last = block.body?.at(-1);
  const outer = indentAt(text, block.start);
  const inner =
    last && last.start > block.start && indentAt(text, last.start).length > outer.length
      ? indentAt(text, last.start)
      : `${outer}    `;
  const lineStart = text.lastIndexOf('\n', close - 1) + 1;
  const alone = /^[ \t]*$/.test(text.slice(lineStart, close)) && lineStart > block.start;
  if (alone) return { start: lineStart, end: lineStart, text: `${inner}${line}${eol}` };
  return { start: close, end: close, text: `${eol}${inner}${line}${eol}${outer}` };
}

/** The element of a container such as `buildTypes`, in whichever form it is opened: `debug { }`, `getByName("debug") { }`. */
export function elementBlock(container: Call, name: string): Call | undefined {
  return callsIn(container.body ?? [])
    .filter(
      ({ path, call }) =>
        call.body &&
        (path === name ||
          (/^(create|getByName|named|register|maybeCreate)$/.test(path) &&
            literal(call.args[0]?.value) === name)),
    )
    .at(-1)?.call;
}
