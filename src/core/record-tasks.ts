import { makeBoard } from './board/board.js';
import type { Board } from './board/model.js';
import { readYaml, type FieldProblem } from './formats/yaml/read.js';
import { readRoster } from './roster/document.js';
import type { Roster } from './roster/model.js';
import { goThroughTag, showTag } from './tag-tasks.js';
import type { Position } from './text/line-map.js';

/** What is done with large parts of the record, and with documents. Plain data goes in and comes out, so that it can be done in another thread. */
export const recordTasks = {
  /** Reads a roster document: the roster, or what is wrong with the text. */
  readRoster: (text: string): { roster: Roster | null; problems: FieldProblem[] } => {
    const { roster, problems } = readRoster(text);
    return { roster, problems };
  },

  /** Where fields are in a YAML document, each a list of keys; the field around it for one that is missing. */
  placesIn: ({
    text,
    fields,
  }: {
    text: string;
    fields: readonly (readonly string[])[];
  }): (Position | undefined)[] => {
    const { placeOf } = readYaml(text);
    return fields.map((field) => placeOf(field));
  },

  board: ([id, title, profiles, sources]: Parameters<typeof makeBoard>): Board =>
    makeBoard(id, title, profiles, sources),

  showTag,
  playTag: goThroughTag,
} as const;

export type RecordTasks = typeof recordTasks;
export type RecordTask = keyof RecordTasks;
export type RecordInput<Task extends RecordTask> = Parameters<RecordTasks[Task]>[0];
export type RecordOutput<Task extends RecordTask> = ReturnType<RecordTasks[Task]>;
