import { createParser } from 'eventsource-parser';
import type { OnProgress, Progress } from '../core/text/progress.js';
import type { Problem } from './problem.js';

/** An answer that comes as server-sent events: progress, and in the end the answer itself or a problem. */
export class AnswerEvents {
  /** Undefined until it came. */
  answer: unknown;
  problem: Problem | undefined;
  readonly #parser;

  /** @param parse reads the text of an event, which is JSON */
  constructor(progress: OnProgress, parse: (text: string) => unknown = JSON.parse) {
    this.#parser = createParser({
      onEvent: ({ event, data }) => {
        const value = parse(data);
        if (event === 'progress') progress(value as Progress);
        else if (event === 'problem') this.problem = value as Problem;
        else this.answer = value;
      },
    });
  }

  feed(chunk: string): void {
    this.#parser.feed(chunk);
  }
}
