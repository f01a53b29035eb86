import { lineMap, type LineMap } from './line-map.js';

/** How a file's bytes stand for its text. Kept, so that text goes back to the very same bytes. */
export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be';

/**
 * A text file as the readers see it: no byte order mark, any line ends. The mark and the encoding are
 * put back by {@link encodeText}, so no reader needs to know about them.
 */
export interface TextDocument {
  readonly text: string;
  readonly encoding: Encoding;
  readonly mark: boolean;
  readonly lines: LineMap;
  /** The line end that most lines of the file use; LF for a file without any. */
  readonly lineEnd: '\n' | '\r\n' | '\r';
}

/** Why bytes are no text: they hold a NUL, or are not valid in the encoding they announce. */
export class NotTextError extends Error {
  constructor(
    message: string,
    readonly offset: number,
  ) {
    super(message);
    this.name = 'NotTextError';
  }
}

/**
 * Reads bytes as text: UTF-8, or UTF-16 when a byte order mark says so.
 * @throws NotTextError with the byte offset of the first byte that is not text
 */
export function decodeText(bytes: Uint8Array): TextDocument {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return decodeWide(bytes, 'utf-16le');
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return decodeWide(bytes, 'utf-16be');
  const nul = bytes.indexOf(0);
  if (nul >= 0) throw new NotTextError('It contains a zero byte, so it is binary.', nul);
  const mark = bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf;
  const body = mark ? bytes.subarray(3) : bytes;
  try {
    return document(new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(body), 'utf-8', mark);
  } catch {
    throw new NotTextError('It is not valid UTF-8.', firstInvalid(body) + (mark ? 3 : 0));
  }
}

/** A document for text that was never bytes. */
export function textDocument(text: string): TextDocument {
  return document(text, 'utf-8', false);
}

/** The bytes of a text in the encoding, and with the mark, of the file that it belongs to. */
export function encodeText(text: string, like: Pick<TextDocument, 'encoding' | 'mark'>): Uint8Array {
  const marked = like.mark ? '\ufeff' + text : text;
  if (like.encoding === 'utf-8') return new TextEncoder().encode(marked);
  const bytes = new Uint8Array(marked.length * 2);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < marked.length; i++) {
    view.setUint16(i * 2, marked.charCodeAt(i), like.encoding === 'utf-16le');
  }
  return bytes;
}

function document(text: string, encoding: Encoding, mark: boolean): TextDocument {
  let lines: LineMap | undefined;
  return {
    text,
    encoding,
    mark,
    lineEnd: commonLineEnd(text),
    get lines() {
      return (lines ??= lineMap(text));
    },
  };
}

function decodeWide(bytes: Uint8Array, encoding: 'utf-16le' | 'utf-16be'): TextDocument {
  if (bytes.length % 2 !== 0) {
    throw new NotTextError('It is marked as UTF-16 but has an odd number of bytes.', bytes.length - 1);
  }
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let text = '';
  for (let i = 2; i < bytes.length; i += 2)
    text += String.fromCharCode(view.getUint16(i, encoding === 'utf-16le'));
  return document(text, encoding, true);
}

function commonLineEnd(text: string): '\n' | '\r\n' | '\r' {
  const crlf = text.split('\r\n').length - 1;
  const lf = text.split('\n').length - 1 - crlf;
  const cr = text.split('\r').length - 1 - crlf;
  if (crlf > lf && crlf >= cr) return '\r\n';
  return cr > lf ? '\r' : '\n';
}

/** Offset of the first byte after which no valid UTF-8 prefix goes on; found by halving. */
function firstInvalid(bytes: Uint8Array): number {
  const valid = (end: number) => {
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(0, end), { stream: true });
      return true;
    } catch {
      return false;
    }
  };
  let low = 0;
  let high = bytes.length;
  while (low < high) {
    const mid = (low + high + 1) >> 1;
    if (valid(mid)) low = mid;
    else high = mid - 1;
  }
  return low;
}
