/** How far a piece of work has come. */
export interface Progress {
  /** What is being done, in words for people. */
  doing: string;
  done: number;
  /** How much there is; 0 where nobody knows. */
  total: number;
}

/** Hears how far a piece of work has come. */
export type OnProgress = (step: Progress) => void;
