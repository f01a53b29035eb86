import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { applyEdits, editBetween, sortEdits, withBlocks, type Edit } from '../text/edit.js';
import { encodeText, textDocument } from '../text/document.js';
import { Tree } from '../tree/tree.js';
import type { Change, SourceFile } from '../edits/model.js';
import { groupBy } from '../text/group-by.js';

/** One file as wiring would leave it. */
export interface Outcome {
  path: string;
  /** Its text before; null where there was no such file. */
  before: string | null;
  /** Its text after; null where the file goes. */
  after: string | null;
  changes: Change[];
  /** Changes that claim part of what an earlier one claims: they are left out. */
  refused: Change[];
  edits: Edit[];
  /** A file that is copied as it is. */
  source?: SourceFile;
}

/**
 * Puts the changes of each file together. Equal edits count once, and an edit within another one is part of that. A change
 * that overlaps an earlier one in any other way is refused.
 */
export function mergeChanges(tree: Tree, changes: readonly Change[]): Outcome[] {
  return [...groupBy(changes, ({ path }) => path)]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([path, mine]) => outcomeOf(tree, path, mine) ?? []);
}

function outcomeOf(tree: Tree, path: string, changes: Change[]): Outcome | null {
  const document = tree.text(path);
  const before = document?.text ?? null;
  const source = changes.find((change) => change.kind === 'copy')?.source;
  if (source) return { path, before: null, after: null, changes, edits: [], refused: [], source };
  const nothing = { edits: [], refused: [] };
  if (changes.some(({ kind }) => kind === 'remove'))
    return { path, before, after: null, changes, ...nothing };
  const contents = contentsOf(changes);
  if (contents.size > 1) throw new Error(`Two parts of the wiring want to write ${path} differently.`);
  const [content] = contents;
  if (before === null) return { path, before, after: content ?? '', changes, ...nothing };
  const owned = content !== undefined && document ? content.replace(/\n/g, document.lineEnd) : content;
  const whole = owned === undefined ? undefined : editBetween(before, owned);
  const { edits, taken, refused } =
    owned === undefined ? settled(changes) : { edits: whole ? [whole] : [], taken: changes, refused: [] };
  const after = applyEdits(before, edits);
  if (after === before && refused.length === 0) return null;
  return { path, before, after, changes: taken, refused, edits: sortEdits(edits) };
}

/** The edits of changes that go together, and the changes that do not go with earlier ones. */
function settled(changes: readonly Change[]): { edits: Edit[]; taken: Change[]; refused: Change[] } {
  const all = changes.flatMap((change) => (change.kind === 'edit' ? change.edits : []));
  const isInner = (edit: Edit) => all.some((other) => encloses(other, edit));
  const edits: Edit[] = [];
  const [taken, refused]: [Change[], Change[]] = [[], []];
  for (const change of changes) {
    const own = change.kind === 'edit' ? change.edits.filter((edit) => !isInner(edit)) : [];
    const clashes = own.some((edit) => edits.some((other) => overlaps(edit, other)));
    (clashes ? refused : taken).push(change);
    if (!clashes) edits.push(...own);
  }
  return { edits: uniqueEdits(withBlocks(edits)), taken, refused };
}

function encloses(outer: Edit, inner: Edit): boolean {
  if (outer.end - outer.start <= inner.end - inner.start) return false;
  if (inner.start === inner.end) return outer.start < inner.start && inner.end < outer.end;
  return outer.start <= inner.start && inner.end <= outer.end;
}

function overlaps(a: Edit, b: Edit): boolean {
  const isSame = a.start === b.start && a.end === b.end;
  if (isSame) return a.text !== b.text && a.start !== a.end;
  return a.start < b.end && b.start < a.end;
}

/** The whole texts that changes want in a file. What comes in pieces is one text, which has each line once. */
function contentsOf(changes: readonly Change[]): Set<string> {
  const given = changes.flatMap((change) => (change.kind === 'create' ? change.content : []));
  const whole = given.filter((content) => typeof content === 'string');
  const pieces = given.filter((content) => typeof content !== 'string');
  const [first] = pieces;
  if (!first) return new Set(whole);
  const lines = new Set(pieces.flatMap((piece) => piece.lines));
  return new Set([...whole, [...first.head, ...lines, ...first.tail, ''].join('\n')]);
}

function uniqueEdits(edits: readonly Edit[]): Edit[] {
  const seen = new Set<string>();
  return edits.filter((edit) => {
    const key = JSON.stringify([edit.start, edit.end, edit.text]);
    return seen.has(key) ? false : seen.add(key);
  });
}

/** The tree as it would be with the edits applied. */
export function treeWith(tree: Tree, outcomes: readonly Outcome[]): Tree {
  const changed = new Set(outcomes.map(({ path }) => path));
  const kept = tree.paths.filter((path) => !changed.has(path)).flatMap((path) => tree.file(path) ?? []);
  const fresh = outcomes.flatMap(({ path, after, source }) => {
    if (source) return [{ path, hash: '', bytes: new Uint8Array() }];
    if (after === null) return [];
    const bytes = encodeText(after, tree.text(path) ?? textDocument(''));
    // Its hash is the one that the file will have, so what is read of it now need not be read again then.
    return [{ path, hash: bytesToHex(sha256(bytes)), bytes }];
  });
  return new Tree([...kept, ...fresh], tree);
}
