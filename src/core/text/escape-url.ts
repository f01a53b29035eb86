/**
 * A text as one part of an address (RFC 3986). Unlike `encodeURIComponent` it takes any text: half of a surrogate pair,
 * which has no UTF-8 form, becomes U+FFFD.
 */
export function escapeUrl(text: string): string {
  return encodeURIComponent(text.replace(/\p{Cs}/gu, '\ufffd'));
}
