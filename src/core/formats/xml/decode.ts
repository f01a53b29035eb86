import { markOf } from '../../text/decode.js';

/** XML as text (XML 1.0, appendix F): a byte order mark counts most, then what was said of it, then its own head. */
export function decodeXml(bytes: Uint8Array, said?: string): string | undefined {
  const mark = markOf(bytes);
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  const own = /^(?:\xef\xbb\xbf)?<\?xml[^>]{0,100}encoding\s*=\s*["']([\w.-]+)["']/.exec(head)?.[1];
  // A document that could be read to its head is of an encoding of one byte for each letter there.
  const claimed = own && !/^(utf-?16|ucs|utf-?32)/i.test(own) ? own : undefined;
  try {
    return new TextDecoder(mark ?? said ?? claimed ?? 'utf-8', { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
}
