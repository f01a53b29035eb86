/** Brackets that are open at once in a text that people or their tools wrote are fewer. */
const maxOpen = 400;

/**
 * Whether a text has more brackets open at once than any that people wrote, `<` among them: these may open the
 * arguments of a type. Grammars recover from such a text with memory by the square, until their runtime breaks down.
 */
export function nestsBeyondReason(text: string): boolean {
  let open = 0;
  let angles = 0;
  for (const { 0: mark } of text.matchAll(/[()[\]{}<>;]/g)) {
    if (mark === '(' || mark === '[' || mark === '{') open++;
    else if (mark === ')' || mark === ']' || mark === '}') open = Math.max(0, open - 1);
    if (mark === '<') angles++;
    else if (mark === '>') angles = Math.max(0, angles - 1);
    // A comparison opens nothing: it ends with its statement, at the latest.
    else if (mark === ';' || mark === '{' || mark === '}') angles = 0;
    if (open > maxOpen || angles > maxOpen) return true;
  }
  return false;
}
