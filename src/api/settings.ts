import { availableParallelism } from 'node:os';

/** One number that may be set for the service. */
export interface Setting {
  /** The environment variable. */
  variable: string;
  unit: 'seconds' | 'bytes' | 'MB' | 'days' | '';
  usual: number;
  /** How the usual value is found, when it depends on the machine. */
  usualIs?: string;
  min: number;
  max: number;
  /** What it is, and what happens beyond it. */
  about: string;
}

/** Limits of the work of the service. Each is a whole number in an environment variable. */
export const settings = {
  fileTime: {
    variable: 'SYNDEXA_FILE_SECONDS',
    unit: 'seconds',
    usual: 2,
    min: 1,
    max: 600,
    about:
      'The maximum time to read one source file, including parsing. A file that takes longer is reported as not read; only its string literals are read.',
  },
  fileLength: {
    variable: 'SYNDEXA_FILE_LENGTH',
    unit: 'bytes',
    usual: 1_000_000,
    min: 1_000,
    max: 16_000_000,
    about: 'The largest source file that is parsed. Of larger files, only string literals are read.',
  },
  parserMemory: {
    variable: 'SYNDEXA_PARSER_MEMORY',
    unit: 'MB',
    usual: 256,
    min: 64,
    max: 2_048,
    about:
      'The maximum memory for the parsers of one worker thread. A file that needs more is treated like one that takes too long.',
  },
  workerMemory: {
    variable: 'SYNDEXA_WORKER_MEMORY',
    unit: 'MB',
    usual: 1_024,
    min: 128,
    max: 16_384,
    about:
      'The maximum memory for one worker thread, without its parsers. A task that needs more is stopped.',
  },
  workers: {
    variable: 'SYNDEXA_WORKERS',
    unit: '',
    usual: Math.max(1, Math.min(4, availableParallelism() - 1)),
    usualIs: 'processors − 1, at most 4',
    min: 1,
    max: 64,
    about: 'The number of worker threads. Each works on one tree at a time.',
  },
  treeFiles: {
    variable: 'SYNDEXA_TREE_FILES',
    unit: '',
    usual: 50_000,
    min: 100,
    max: 50_000,
    about:
      'The maximum number of files of one tree. Further files are skipped, and the tree is reported as partly read.',
  },
  treeBytes: {
    variable: 'SYNDEXA_TREE_MEGABYTES',
    unit: 'MB',
    usual: 256,
    min: 1,
    max: 4_096,
    about: 'The maximum total size of the files of one tree. Further files are skipped and reported.',
  },
  facts: {
    variable: 'SYNDEXA_TREE_FACTS',
    unit: '',
    usual: 50_000,
    min: 100,
    max: 1_000_000,
    about: 'The maximum number of facts in a survey. It says how many it omits; rules are run on all facts.',
  },
  findings: {
    variable: 'SYNDEXA_TREE_FINDINGS',
    unit: '',
    usual: 5_000,
    min: 10,
    max: 1_000_000,
    about:
      'The maximum number of findings in a check, worst first. The summary counts all findings, and says how many are omitted.',
  },
  treeTime: {
    variable: 'SYNDEXA_TREE_SECONDS',
    unit: 'seconds',
    usual: 60,
    min: 2,
    max: 3_600,
    about:
      'The maximum time for one task on a tree. After that time, the remaining source files are not parsed, and the result says so; after twice the time, the task fails.',
  },
  keepDays: {
    variable: 'SYNDEXA_KEEP_DAYS',
    unit: 'days',
    usual: 30,
    min: 1,
    max: 3_650,
    about:
      'How long snapshots and wirings are kept after they were last requested. Those of linked trees and of the latest readings are kept.',
  },
  keepMegabytes: {
    variable: 'SYNDEXA_KEEP_MEGABYTES',
    unit: 'MB',
    usual: 1_024,
    min: 16,
    max: 1_000_000,
    about:
      'The size of the database above which snapshots and wirings are removed early, least recently requested first.',
  },
} as const satisfies Record<string, Setting>;

export type SettingName = keyof typeof settings;
export type Settings = Record<SettingName, number>;

/** A variable of the environment that does not hold what its setting takes. */
export class SettingError extends Error {
  override readonly name = 'SettingError';

  constructor(
    message: string,
    readonly fix: string,
  ) {
    super(message);
  }
}

/**
 * Reads the settings from the environment; a variable that is not set, or empty, leaves the usual value.
 * @throws SettingError when a variable does not hold a whole number in its range
 */
export function readSettings(env: Readonly<Record<string, string | undefined>>): Settings {
  const given = new Map(Object.entries(env));
  const entries = Object.entries(settings).map(([name, setting]: [string, Setting]) => {
    const text = given.get(setting.variable)?.trim() ?? '';
    const value = text === '' ? setting.usual : /^\d{1,15}$/.test(text) ? Number(text) : NaN;
    if (value >= setting.min && value <= setting.max) return [name, value];
    const range = `from ${setting.min} to ${setting.max}${setting.unit === '' ? '' : ` (${setting.unit})`}`;
    throw new SettingError(
      `${setting.variable} is ${JSON.stringify(text)}, which is not a whole number ${range}.`,
      `Set it to a number in this range, or unset it for ${setting.usual}.`,
    );
  });
  return Object.fromEntries(entries) as Settings;
}
