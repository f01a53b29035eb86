import { readPattern } from '../text/patterns.js';

/** Profiles take patterns of this length at most. */
const maxPattern = 200;

/** What IDs look like, as far as examples tell. */
export interface Shape {
  pattern: string;
  needles: string[];
  /** The part that tells the platforms apart, where there is such a part. */
  platforms?: { android: string; ios: string };
}

/**
 * The shape of two IDs, one for Android and one for iOS. If they differ in one short word only, that word is taken as
 * the platform code.
 */
export function platformShapeOf(android: string, ios: string): Shape | null {
  const [left, right] = [android, ios].map((id) => id.match(/[A-Za-z0-9]+|[^A-Za-z0-9]+/g) ?? []);
  if (!left || !right || left.length !== right.length) return null;
  const odd = left.flatMap((part, at) => {
    const other = right[at] ?? '';
    const isCode = part !== other && [part, other].every((word) => /^[A-Za-z]{1,3}$/.test(word));
    return isCode ? [at] : [];
  });
  const [at] = odd;
  if (at === undefined || odd.length > 1 || at === 0) return null;
  const head = left.slice(0, at).join('');
  if (head !== right.slice(0, at).join('')) return null;
  const codes = { android: left[at] ?? '', ios: right[at] ?? '' };
  const rests = [left, right].map((parts) => runs(parts.slice(at + 1).join('')));
  if (rests[0] !== rests[1]) return null;
  const needles = head.length >= 3 ? [head] : [`${head}${codes.android}`, `${head}${codes.ios}`];
  if (needles.some(({ length }) => length < 3)) return null;
  return {
    pattern: `${escaped(head)}(?<platform>${codes.android}|${codes.ios})${rests[0] ?? ''}`,
    needles,
    platforms: codes,
  };
}

/**
 * The common shape of examples: equal parts are literal, the rest is by character class and length. Examples without a
 * common start become alternatives, each with its own needle.
 */
export function shapeOf(examples: readonly string[]): Shape {
  const [first = ''] = examples;
  // Numbers alone have no text in common but by chance.
  if (examples.every((example) => /^\d+$/.test(example))) {
    const lengths = [...new Set(examples.map(({ length }) => length))].sort((a, b) => a - b);
    const [least, most] = [lengths[0] ?? 1, lengths.at(-1) ?? 1];
    return { pattern: `[0-9]{${least === most ? least : `${least},${most}`}}`, needles: [] };
  }
  let common = 0;
  while (common < first.length && examples.every((example) => example[common] === first[common])) common++;
  if (common < 3 && examples.length > 1) {
    const shapes = examples.map((example) => shapeOf([example]));
    const pattern = [...new Set(shapes.map(({ pattern: one }) => one))].join('|');
    if (pattern.length <= maxPattern)
      return { pattern, needles: [...new Set(shapes.flatMap(({ needles }) => needles))] };
    const all = examples.map(({ length }) => length);
    return { pattern: `[A-Za-z0-9._:~/-]{${Math.min(...all)},${Math.max(...all)}}`, needles: [] };
  }
  // What several examples share up to a separator is in every ID; a single one only shows its first word.
  const shared =
    examples.length > 1
      ? /^[A-Za-z0-9]+(?:[^A-Za-z0-9]+[A-Za-z0-9]+)*[^A-Za-z0-9]+/.exec(first.slice(0, common))?.[0]
      : /^[A-Za-z][A-Za-z0-9]*[^A-Za-z0-9]+/.exec(first)?.[0];
  const needle = shared && shared.length >= 3 ? shared : first.slice(0, Math.min(4, Math.max(3, common)));
  const rests = [...new Set(examples.map((example) => runs(example.slice(needle.length))))];
  const fits = rests.find((rest) =>
    examples.every((one) => readPattern(`${escaped(needle)}${rest}`).matches(one)),
  );
  const lengths = examples.map(({ length }) => length - needle.length);
  const any = `[A-Za-z0-9._:~/-]{${Math.min(...lengths)},${Math.max(...lengths)}}`;
  return { pattern: `${escaped(needle)}${fits ?? any}`, needles: [needle] };
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
}

/** A text run by run, each as a class of its kind with its length; words of one or two letters stand for themselves. */
function runs(text: string): string {
  return (text.match(/[A-Za-z0-9]+|[^A-Za-z0-9]+/g) ?? [])
    .map((word) => (/^[A-Za-z]{1,2}$/.test(word) ? word : classes(word)))
    .join('');
}

function classes(text: string): string {
  const found = text.match(/[0-9]+|[a-f0-9]+(?![A-Za-z])|[A-Z0-9]+(?![a-z])|[A-Za-z0-9]+|[^A-Za-z0-9]+/g);
  return (found ?? [])
    .map((run) => {
      if (/^[^A-Za-z0-9]+$/.test(run)) return escaped(run);
      const kinds: [RegExp, string][] = [
        [/^\d+$/, '[0-9]'],
        [/^[a-f0-9]+$/, '[0-9a-f]'],
        [/^[A-Z0-9]+$/, '[A-Z0-9]'],
        [/^[a-z0-9]+$/, '[a-z0-9]'],
      ];
      const kind = kinds.find(([shape]) => shape.test(run))?.[1] ?? '[A-Za-z0-9]';
      return `${kind}{${run.length}}`;
    })
    .join('');
}
