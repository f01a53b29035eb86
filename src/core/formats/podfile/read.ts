import type { ReadProblem, Span } from '../problem.js';

/** A `pod` line of a Podfile. */
export interface Pod extends Span {
  name: string;
  version: string;
  /** The target blocks around it, the outermost first. */
  targets: string[];
}

/**
 * The pods that a Podfile names, line by line, with the target blocks around each. First depth: blocks are
 * counted by their `do` and `end`; conditions are not weighed.
 */
export function readPodfile(text: string): {
  pods: Pod[];
  targets: string[];
  /** The target blocks, each from its first line to its `end`. */
  blocks: (Span & { name: string })[];
  problems: ReadProblem[];
} {
  const pods: Pod[] = [];
  const targets: string[] = [];
  const blocks: (Span & { name: string })[] = [];
  const open: { name: string | null; start: number }[] = [];
  let at = 0;
  for (const line of text.split('\n')) {
    const start = at;
    at += line.length + 1;
    const code = line.replace(/(^|\s)#(?!\{).*$/, '').trimEnd();
    const target = /^\s*(?:abstract_)?target\s*\(?\s*['":]([^'"\s]+)['"]?\s*\)?.*\bdo\b/.exec(code)?.[1];
    const pod = /^\s*pod\s*\(?\s*['"]([^'"]+)['"]\s*(?:,\s*['"]([^'"]*)['"])?/.exec(code);
    if (pod) {
      const around = open.flatMap(({ name }) => name ?? []);
      pods.push({
        name: pod[1] ?? '',
        version: pod[2] ?? '',
        targets: around,
        start: start + line.search(/\S/),
        end: start + code.length,
      });
    }
    if (target) targets.push(target);
    if (/\bdo\b(\s*\|[^|]*\|)?\s*$/.test(code)) open.push({ name: target ?? null, start });
    else if (/^\s*(if|unless|case|begin|def|while|until)\b/.test(code) && !/\bend\s*$/.test(code))
      open.push({ name: null, start });
    else if (/^\s*end\b/.test(code)) {
      const closed = open.pop();
      if (closed?.name != null) blocks.push({ name: closed.name, start: closed.start, end: start });
    }
  }
  return { pods, targets, blocks, problems: [] };
}
