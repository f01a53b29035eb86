import type { OnProgress } from '../core/text/progress.js';

/** What a caller may say and hear while a tree is read. */
export interface ReadingOptions {
  /** Is called now and then while the tree is read. */
  progress?: OnProgress | undefined;
  /** Ends the reading; the promise is rejected with its reason. */
  signal?: AbortSignal | undefined;
}
