/**
 * Takes secrets out of text. Each is found as it is and in the forms in which an answer may repeat it: percent-encoded,
 * escaped as JSON does, and inside base64 at any of its three alignments.
 */
export class SecretCleaner {
  readonly #forms: { name: string; pattern: RegExp }[];

  /** @param secrets values by name; those shorter than four characters say nothing and are left out */
  constructor(secrets: ReadonlyMap<string, string>) {
    this.#forms = [...secrets]
      .filter(([, value]) => value.length >= 4)
      // A secret that is part of another one must not break the other's match.
      .sort(([, one], [, other]) => other.length - one.length)
      .map(([name, value]) => ({
        name,
        pattern: new RegExp([encoded(value), ...base64Forms(value)].join('|'), 'g'),
      }));
  }

  /** The text with every secret replaced by its name. */
  clean(text: string): string {
    let cleaned = text;
    for (const { name, pattern } of this.#forms) cleaned = cleaned.replace(pattern, `[secret ${name}]`);
    return cleaned;
  }
}

/** Each character as it is, percent-encoded, or escaped as in JSON. */
function encoded(value: string): string {
  return Array.from(value)
    .map((character) => {
      const hex = character.charCodeAt(0).toString(16).padStart(2, '0');
      const anyCase = Array.from(hex, (digit) =>
        /\d/.test(digit) ? digit : `[${digit}${digit.toUpperCase()}]`,
      );
      const blank = character === ' ' ? '|\\+' : '';
      return `(?:\\\\?${escaped(character)}|%${anyCase.join('')}|\\\\u00${anyCase.join('')}${blank})`;
    })
    .join('');
}

/** The parts of base64 that hold the value, whatever is before it; both alphabets. */
function base64Forms(value: string): string[] {
  const forms = [0, 1, 2].map((offset) => {
    const bits = Buffer.concat([Buffer.alloc(offset), Buffer.from(value)]).toString('base64');
    // Characters that hold bits of a neighbour too are left out.
    const start = [0, 2, 3][offset] ?? 0;
    const whole = Math.floor(((offset + Buffer.byteLength(value)) * 8) / 6);
    return bits.slice(start, whole);
  });
  return forms
    .filter((form) => form.length >= 5)
    .map((form) =>
      Array.from(form, (digit) => (digit === '+' ? '[+\\-]' : digit === '/' ? '(?:\\\\?/|_)' : digit)).join(
        '',
      ),
    );
}

function escaped(character: string): string {
  return character.replace(/[.*+?^${}()|[\]\\/-]/g, '\\$&');
}
