/** Text out of bytes, and the encoding that it was in. */
export interface Decoded {
  text: string;
  encoding: string;
}

/** Bytes of an uncertain encoding: their text in each possible encoding. */
export interface Unsure {
  text: null;
  candidates: { encoding: string; sample: string }[];
}

/** An encoding by its name in the Encoding standard (WHATWG) that this machine knows; null when there is none such. */
export function knownEncoding(name: string): string | null {
  try {
    return new TextDecoder(name).encoding;
  } catch {
    return null;
  }
}

/** Those in which programs for tables save when they are not asked. */
const candidates = ['utf-8', 'windows-1252', 'windows-1250', 'windows-1251', 'macintosh', 'shift_jis'];

/**
 * Decodes a text that somebody saved, by its byte order mark, by the blanks of UTF-16, as UTF-8 when it is valid, and
 * as Windows-1252 when everything in it makes sense as that. Nothing is guessed beyond it.
 * @param encoding says it instead; one that {@link knownEncoding} knows
 */
export function decodeText(bytes: Uint8Array, encoding?: string): Decoded | Unsure {
  const known = encoding ?? markOf(bytes) ?? widthOf(bytes);
  if (known) return { text: decoded(bytes, known), encoding: known };
  const utf8 = strictly(bytes);
  if (utf8 !== null) return { text: utf8, encoding: 'utf-8' };
  if (isWestern(bytes)) return { text: decoded(bytes, 'windows-1252'), encoding: 'windows-1252' };
  const line = firstUndecodableLine(bytes);
  return {
    text: null,
    candidates: candidates.map((name) => ({
      encoding: name,
      sample: decoded(line, name).trim().slice(0, 60),
    })),
  };
}

/** What the bytes from 0x80 to 0x9F are in Windows-1252. Some versions of Node.js read them as controls. */
const western = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/** Decodes bytes in an encoding that {@link knownEncoding} knows; what means nothing in it becomes U+FFFD. */
export function decoded(bytes: Uint8Array, encoding: string): string {
  const text = new TextDecoder(encoding).decode(bytes);
  if (knownEncoding(encoding) !== 'windows-1252') return text;
  return text.replace(/[\x80-\x9f]/g, (control) => western[control.charCodeAt(0) - 0x80] ?? control);
}

function strictly(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

/** The encoding that a byte order mark tells; undefined without one. */
export function markOf([first, second, third]: Uint8Array): string | undefined {
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  return first === 0xef && second === 0xbb && third === 0xbf ? 'utf-8' : undefined;
}

/** UTF-16 without a mark: of what begins a table, nearly every second byte is zero, and hardly any of the others. */
function widthOf(bytes: Uint8Array): string | undefined {
  const start = bytes.subarray(0, 2_000);
  if (start.length < 4) return undefined;
  const zeros = [0, 0];
  start.forEach((byte, at) => {
    if (byte === 0) zeros[at % 2] = (zeros[at % 2] ?? 0) + 1;
  });
  const [even = 0, odd = 0] = zeros;
  const most = start.length / 2;
  if (odd > most * 0.7 && even < most * 0.1) return 'utf-16le';
  return even > most * 0.7 && odd < most * 0.1 ? 'utf-16be' : undefined;
}

/** Bytes that Windows-1252 has no character for. */
const unused = new Set([0x81, 0x8d, 0x8f, 0x90, 0x9d]);
/**
 * Punctuation and symbols that occur in names: quotation marks, dashes, the ellipsis, currency and trade marks,
 * degrees.
 */
const signs = new Set([...'€‚„…‘’“”•–—™£¥§©®°·«»´¿¡'].map((sign) => sign.codePointAt(0)));

/**
 * Whether everything above ASCII makes sense in Windows-1252: letters beside letters of ASCII, in runs of at most two,
 * and signs. Text in another alphabet has long runs, text in UTF-8 that was cut has its leading bytes, and what other
 * programs write for their letters are signs here, in the middle of words.
 */
function isWestern(bytes: Uint8Array): boolean {
  if (bytes.some((byte) => unused.has(byte))) return false;
  const text = decoded(bytes, 'windows-1252');
  if (/[\xc2-\xf4][\x80-\xbf\u2013-\u203a\u20ac\u0152-\u0192\u02c6\u02dc\u2122]/.test(text)) return false;
  return [...text.matchAll(/[^\x00-\x7f]+/g)].every(({ 0: run, index }) => {
    const letters = [...run].filter((sign) => !signs.has(sign.codePointAt(0)));
    const neighbours = [text[index - 1] ?? '', text[index + run.length] ?? ''].filter((sign) =>
      /[A-Za-z]/.test(sign),
    );
    // An apostrophe is the one sign that words have within.
    if (letters.length === 0) return neighbours.length < 2 || run === '’';
    return (
      letters.length <= 2 && neighbours.length > 0 && letters.every((letter) => /[À-ÖØ-öø-ÿ]/.test(letter))
    );
  });
}

function firstUndecodableLine(bytes: Uint8Array): Uint8Array {
  const odd = bytes.findIndex((byte) => byte > 0x7f);
  const from = bytes.lastIndexOf(0x0a, odd) + 1;
  const end = bytes.indexOf(0x0a, odd);
  return bytes.subarray(Math.max(from, odd - 60), Math.min(end < 0 ? bytes.length : end, odd + 120));
}
