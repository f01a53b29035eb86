import { placementNames } from '../languages/common/placebook.js';
import type { Span } from '../text/problem.js';

/** Every mention of the placebook, with the member that follows it: as Java sees a Kotlin object, too. */
const mention =
  /(?<![A-Za-z0-9_$])Placebook(?![A-Za-z0-9_$])(?:(\s*[?!]?\.\s*(?:(?:INSTANCE|Companion)\s*\.\s*)?|\s+)(\w+))?/g;
/** The list of all placements, as languages write it. */
const whole = /^(?:all|ALL|All|getAll)$/;
/** How lines begin that make the placebook known to a file, and do not use it yet. */
const importing = /^\s*(?:@?import|@class|using|export|part|library|package|typealias)\b/;
/** `import { Placebook } from`, over several lines too. */
const importList = /\b(?:import|export)\b[\w\t ,*$]{0,200}\{[^{}]{0,4000}\}/g;
/** `const { Placebook } = require(…)`. */
const requiring = /\{[^{}=]*\bPlacebook\s*(?:,[^{}=]*)?\}\s*=\s*(?:await\s+)?(?:require|import)\b/;
/** An import that gives the placebook another name, or its members to the file without any. */
const renaming = /\bPlacebook\s+as\b|\bPlacebook\s*\.\s*\*|=\s*[\w.:]*\bPlacebook\b|^\s*using\s+static\b/;

/** Code that has the whole placebook more often than this in one file says nothing new. */
const maxWhole = 8;

/** A place in code that names a placement through the placebook. */
export interface PlacebookUse extends Span {
  placement: string;
}

/**
 * The placements that code names through the placebook. Code that takes the list of all, or hands the placebook on as
 * a whole, may use every one of them.
 * @param code the code of a file, with comments and the contents of strings blanked out
 * @param placements the names of the title's placements
 */
export function placebookUses(code: string, placements: readonly string[]): PlacebookUse[] {
  const byMember = new Map(
    placements.flatMap((placement) =>
      placementNames(placement).flatMap((name) => {
        const member = name.slice(name.indexOf('.') + 1);
        return [member, `get${member}`].map((one) => [one, placement] as const);
      }),
    ),
  );
  const lists = [...code.matchAll(importList)].map(({ 0: text, index }) => ({ text, index }));
  let list = 0;
  let wholes = 0;
  return [...code.matchAll(mention)].flatMap(({ 0: written, 1: link, 2: member, index }): PlacebookUse[] => {
    const named = link && isMember(code, index, link) ? member : undefined;
    const end = index + (named === undefined ? 'Placebook'.length : written.length);
    const one = named === undefined ? undefined : byMember.get(named);
    if (one !== undefined) return [{ placement: one, start: index, end }];
    // Its other members, and the types in it, are no placements.
    if (named !== undefined && !whole.test(named)) return [];
    // Both are in the order of the code.
    while (endOf(lists[list]) <= index) list++;
    const around = lists[list];
    const isListed = around !== undefined && around.index < index;
    if (named === undefined && isImport(isListed ? around.text : lineAt(code, index))) return [];
    wholes += 1;
    if (wholes > maxWhole) return [];
    return placements.map((placement) => ({ placement, start: index, end }));
  });
}

/** Objective-C sends the placebook a message; elsewhere a word behind a blank belongs to something else. */
function isMember(code: string, at: number, link: string): boolean {
  return link.includes('.') || /\[\s*$/.test(code.slice(Math.max(0, at - 20), at));
}

function isImport(statement: string): boolean {
  return requiring.test(statement) || (importing.test(statement) && !renaming.test(statement));
}

function endOf(list: { text: string; index: number } | undefined): number {
  return list ? list.index + list.text.length : Infinity;
}

/** A part of the line around an offset, of limited length. */
function lineAt(code: string, at: number): string {
  const before = code.slice(Math.max(0, at - 300), at);
  const after = code.slice(at, at + 300);
  const end = after.indexOf('\n');
  return before.slice(before.lastIndexOf('\n') + 1) + (end < 0 ? after : after.slice(0, end));
}
