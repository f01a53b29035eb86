import type { Settings } from '../api/settings.js';
import type { CollectPlan } from '../api/trees.js';
import { callNeedles } from '../core/code/named-calls.js';
import { requirementsOf } from '../core/network/for-stack.js';
import { hasBareIds, recogniser, type RecordedId } from '../core/network/recognise.js';
import { recordedIds } from '../core/roster/expected.js';
import { stacks } from '../core/stacks/index.js';
import type { ProfileShelf } from './profiles.js';
import type { RosterStore } from './store/roster-store.js';

/** Files larger than this are not looked into. */
const maxFileBytes = 16 * 1024 * 1024;

/** Folders that tools fill, whatever the stack: nothing in them is a person's to keep true. */
const skipFolders = ['.git', '.svn', '.hg', '.idea', '.syndexa-write'];

/** Which files of a tree matter to the stacks, to the networks that are known, and to the IDs on record. */
export function collectPlanOf(
  shelf: ProfileShelf,
  roster: RosterStore,
  { treeFiles, treeBytes }: Settings,
): CollectPlan {
  return {
    rules: [
      ...stacks.flatMap(({ collect }) => collect.map((rule) => ({ ...rule }))),
      ...handedOut(shelf).map((name) => ({ name })),
    ],
    folders: stacks.flatMap(({ folders }) => [...folders]),
    needles: [
      ...recogniser(shelf.profiles(), recordOf(shelf, roster)).needles,
      ...callNeedles(shelf.profiles()),
      ...stacks.flatMap(({ needles }) => [...needles]),
    ],
    skipFolders: [...new Set([...skipFolders, ...stacks.flatMap(({ skips }) => skips)])],
    skipBeside: stacks.flatMap(({ fills = [] }) => fills.map((one) => ({ ...one }))),
    maxFileBytes,
    maxFiles: treeFiles,
    maxTreeBytes: treeBytes * 1024 * 1024,
  };
}

/** The IDs of titles, if a network has IDs without fixed text: only they find the files that contain them. */
function recordOf(shelf: ProfileShelf, roster: RosterStore): RecordedId[] {
  const bare = shelf.profiles().filter(hasBareIds);
  return bare.length === 0
    ? []
    : Object.values(roster.roster().titles).flatMap((title) => recordedIds(title, bare));
}

/** The names of files that networks hand out or keep: companion files, libraries, and settings of theirs. */
function handedOut(shelf: ProfileShelf): string[] {
  const files = shelf.profiles().flatMap((profile) => {
    const { android, ios } = profile;
    const companions = [android?.companion, ios?.companion].flatMap((companion) => companion?.file ?? []);
    const binaries = [...(android?.binaries ?? []), ...(ios?.binaries ?? [])].map(({ file }) => file);
    const kept = stacks.flatMap(({ id }) => requirementsOf(profile, id)?.files ?? []);
    return [...companions, ...binaries, ...kept].flatMap((file) => file.split('/').pop() ?? []);
  });
  return [...new Set(files)];
}
