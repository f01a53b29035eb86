/**
 * Whether a file breaks the rules of its format, has two versions that nobody merged, is not text, or was not read, or
 * not to its end.
 */
export const problemKinds = ['syntax', 'conflict', 'not-text', 'not-read'] as const;
export type ProblemKind = (typeof problemKinds)[number];

/** What a reader could not take, and where (UTF-16 offsets). Readers report these; they do not throw. */
export interface ReadProblem {
  /** A fault of syntax unless this says otherwise. */
  kind?: ProblemKind;
  message: string;
  start: number;
  end: number;
}

/** A stretch of a text, from `start` up to `end` (UTF-16 offsets). */
export interface Span {
  start: number;
  end: number;
}
