/**
 * A copy of a text that stands for itself. The engine keeps a part of a text as a reference to the whole, so what is held
 * of one line of a file would hold all of the file.
 */
export function ownText(text: string): string {
  return text.split('').join('');
}
