import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { applyEdits, editBetween, EditOverlapError, sortEdits, type Edit } from '../text/edit.js';
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
  edits: Edit[];
  /** A file that is copied as it is. */
  source?: SourceFile;
}

/** Puts the changes of each file together. Equal edits count once; an overlap is an error that names both. */
export function mergeChanges(tree: Tree, changes: readonly Change[]): Outcome[] {
  return [...groupBy(changes, ({ path }) => path)]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([path, mine]) => outcomeOf(tree, path, mine) ?? []);
}

function outcomeOf(tree: Tree, path: string, changes: Change[]): Outcome | null {
  const document = tree.text(path);
  const before = document?.text ?? null;
  const source = changes.find((change) => change.kind === 'copy')?.source;
  if (source) return { path, before: null, after: null, changes, edits: [], source };
  if (changes.some(({ kind }) => kind === 'remove')) return { path, before, after: null, changes, edits: [] };
  const contents = contentsOf(changes);
  if (contents.size > 1) throw new Error(`Two parts of the wiring want to write ${path} differently.`);
  const [content] = contents;
  if (before === null) return { path, before, after: content ?? '', changes, edits: [] };
  const owned = content !== undefined && document ? content.replace(/\n/g, document.lineEnd) : content;
  const whole = owned === undefined ? undefined : editBetween(before, owned);
  const edits =
    owned === undefined
      ? uniqueEdits(changes.flatMap((change) => (change.kind === 'edit' ? change.edits : [])))
      : whole
        ? [whole]
        : [];
  try {
    const after = applyEdits(before, edits);
    return after === before ? null : { path, before, after, changes, edits: sortEdits(edits) };
  } catch (error) {
    if (!(error instanceof EditOverlapError)) throw error;
    throw new Error(`In ${path}: ${error.message}`, { cause: error });
  }
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
