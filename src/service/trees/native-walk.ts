import { existsSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** What the walk in machine code is asked for: a collect plan, and where to look. */
export interface WalkPlan {
  /** Real path of the tree. */
  base: string;
  /** Names of files that are wanted whatever they hold. */
  names: string[];
  rules: { name?: string; suffix?: string; parent?: string; needle?: boolean }[];
  needles: string[];
  skipFolders: string[];
  skipBeside: { folder: string; beside: string }[];
  /** Folders whose path ends so are told. */
  ends: string[];
  maxFileBytes: number;
  maxDepth: number;
  threads: number;
  /** The list of known files, when one is kept. */
  known?: Buffer;
  /** Files that were changed later (milliseconds since 1970) are not taken for known. */
  tooFresh?: number;
}

/** Size (bytes), time of change, time of any change to the entry (milliseconds), and number of a file. */
export interface FileTimes {
  size: number;
  changed: number;
  entered: number;
  number: number;
}

/** What the walk found. */
export interface Walked {
  /** Files with their bytes; one that is as it was known, with its hash instead. Times only when a list is kept. */
  files: ({ path: string; bytes?: Buffer; hash?: Buffer } & FileTimes)[];
  folders: string[];
  leftOut: {
    path: string;
    reason: 'system' | 'too-large' | 'too-deep' | 'leads-out' | 'leads-nowhere';
    /** The system's number of the error, or the file's bytes. */
    detail: number;
  }[];
  seen: number;
  /** How many files were read. */
  read: number;
  /** Files that do not matter, as part of a list of known files. */
  dull: Buffer;
}

export type Walk = (plan: WalkPlan) => Promise<Walked>;

interface NativeModule {
  walk: Walk;
  /** Ends all walks that are under way; their promises are rejected. */
  abandon: () => void;
}

let loaded: NativeModule | null | undefined;

/**
 * The walk in machine code (`native/`), several times quicker than the one in this language for trees of many
 * files; nothing where the build could not make it, and everything works without.
 */
export function nativeWalk(): Walk | null {
  loaded ??= load();
  return loaded?.walk ?? null;
}

/** Ends the walks that are under way, when nobody waits for them any more: a process that ends would wait else. */
export function abandonWalks(): void {
  loaded?.abandon();
}

function load(): NativeModule | null {
  const here = dirname(fileURLToPath(import.meta.url));
  const places = [join(here, '..', 'native'), join(here, '..', '..', '..', 'dist', 'native')].map((folder) =>
    join(folder, 'walk.node'),
  );
  const file = places.find((place) => existsSync(place));
  if (file === undefined) return null;
  try {
    return createRequire(import.meta.url)(file) as NativeModule;
  } catch {
    // It was built for another machine.
    return null;
  }
}
