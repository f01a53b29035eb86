/** What a reader could not take, and where (UTF-16 offsets). Readers report these; they do not throw. */
export interface ReadProblem {
  message: string;
  start: number;
  end: number;
}

/** A stretch of a text, from `start` up to `end` (UTF-16 offsets). */
export interface Span {
  start: number;
  end: number;
}
