/** How to interpret a pattern. */
export interface GlobOptions {
  ignoreCase?: boolean;
  /** Whether `*` and `?` stay within one folder, as in paths; else they stand for any characters. */
  folders?: boolean;
}

/** One step of a pattern: a character, or what is for several. */
type Step =
  | { is: 'char'; char: string }
  /** `?`: one character. */
  | { is: 'one' }
  /** `*`: any number of characters. */
  | { is: 'run' }
  /** `**`: any number of characters, across folders. */
  | { is: 'any' }
  /** `**` and a slash: any number of folders, or none. */
  | { is: 'folders' };

/** Longer patterns match nothing: no build file that a person wrote has one. */
const maxPattern = 4_096;

/**
 * A matcher for a pattern: `**` goes across folders, `*` and `?` stay within one. All places that the pattern may have
 * come to are followed at once, so the time is bounded by the length of the text times that of the pattern.
 */
export function globMatcher(
  pattern: string,
  { ignoreCase = false, folders = true }: GlobOptions = {},
): (text: string) => boolean {
  if (pattern.length > maxPattern) return () => false;
  const folded = (text: string) => (ignoreCase ? text.toLowerCase() : text);
  const steps = stepsOf(folded(pattern), folders);
  return (text) => {
    let states = new Set<number>();
    enter(states, steps, 0);
    for (const char of folded(text)) {
      const next = new Set<number>();
      for (const at of states) advance(next, steps, at, char, folders);
      if (next.size === 0) return false;
      states = next;
    }
    return states.has(steps.length);
  };
}

function stepsOf(pattern: string, folders: boolean): Step[] {
  const parts = pattern.match(folders ? /\*\*\/|\*\*|[\s\S]/gu : /[\s\S]/gu) ?? [];
  return parts.map((part): Step => {
    if (part === '**/') return { is: 'folders' };
    if (part === '**') return { is: 'any' };
    if (part === '*') return { is: folders ? 'run' : 'any' };
    return part === '?' && folders ? { is: 'one' } : { is: 'char', char: part };
  });
}

/** Comes to a step; what may stand for nothing is passed as well. */
function enter(states: Set<number>, steps: readonly Step[], at: number): void {
  for (let now = at; !states.has(now); now++) {
    states.add(now);
    const step = steps[now];
    if (step?.is !== 'run' && step?.is !== 'any' && step?.is !== 'folders') return;
  }
}

/** Takes one character at a step. */
function advance(
  next: Set<number>,
  steps: readonly Step[],
  at: number,
  char: string,
  folders: boolean,
): void {
  const step = steps[at];
  const isSlash = folders && char === '/';
  if (step?.is === 'char' && step.char === char) enter(next, steps, at + 1);
  else if (step?.is === 'one' && !isSlash) enter(next, steps, at + 1);
  else if (step?.is === 'any' || (step?.is === 'run' && !isSlash)) enter(next, steps, at);
  else if (step?.is === 'folders') {
    // Inside a folder's name, what follows begins only after the slash.
    next.add(at);
    if (isSlash) enter(next, steps, at + 1);
  }
}
