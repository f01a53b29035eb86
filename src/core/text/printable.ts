/**
 * Characters that change what a reader sees around them instead of showing themselves: control characters, formatting
 * characters (the bidirectional ones among them), line separators and lone surrogates. The joiners of scripts and
 * emoji (U+200C, U+200D) are left alone.
 */
const unseen = /[\p{Cc}\p{Cf}\p{Zl}\p{Zp}\p{Cs}]/gu;
const joiners = '\u200c\u200d';

/** A name with everything that a terminal or a page would act upon shown as an escape: `\x1b`, `\u202e`. */
export function printableName(name: string): string {
  return name.replace(unseen, (character) => (joiners.includes(character) ? character : escapeOf(character)));
}

/** As {@link printableName}, for text of several lines: line feeds and tabs stay. Lossless inside JSON. */
export function printableText(text: string): string {
  return text.replace(unseen, (character) =>
    character === '\n' || character === '\t' || joiners.includes(character) ? character : escapeOf(character),
  );
}

/** Every string in a value of JSON made printable, as names are. */
export function printableValue<Value>(value: Value): Value {
  return mapStrings(value, printableName) as Value;
}

/** Every string in a value of JSON made printable, as text of several lines is. */
export function printableLines<Value>(value: Value): Value {
  return mapStrings(value, printableText) as Value;
}

/** What text of JSON has wherever one of its strings holds an unseen character, as it is or as an escape. */
const unseenInJson = /(?![\n\t\u200c\u200d])[\p{Cc}\p{Cf}\p{Zl}\p{Zp}\p{Cs}]|\\[bfru]/u;

/**
 * Reads text of JSON whose strings are then made printable, as {@link printableLines} does. A text without invisible
 * characters is not searched further: that would take longer than parsing it.
 *
 * @throws SyntaxError when the text is no JSON.
 */
export function parsePrintable(text: string): unknown {
  const value: unknown = JSON.parse(text);
  return unseenInJson.test(text) ? printableLines(value) : value;
}

function mapStrings(value: unknown, change: (text: string) => string): unknown {
  if (typeof value === 'string') return change(value);
  if (Array.isArray(value)) return value.map((item) => mapStrings(item, change));
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, item]) => [change(key), mapStrings(item, change)]),
  );
}

function escapeOf(character: string): string {
  let escaped = '';
  for (let at = 0; at < character.length; at++) {
    const unit = character.charCodeAt(at);
    escaped +=
      unit < 0x20 ? `\\x${unit.toString(16).padStart(2, '0')}` : `\\u${unit.toString(16).padStart(4, '0')}`;
  }
  return escaped;
}
