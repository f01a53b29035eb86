/** How far the reading of a tree has come. */
export interface ReadingStep {
  /** How many files were seen, those that do not matter included. */
  seen: number;
  /** How many of them were read. */
  read: number;
}

/** What a caller may say and hear while a tree is read. */
export interface ReadingOptions {
  /** Is called now and then while the tree is read. */
  progress?: ((step: ReadingStep) => void) | undefined;
  /** Ends the reading; the promise is rejected with its reason. */
  signal?: AbortSignal | undefined;
}
