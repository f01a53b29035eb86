import type { TraceEvent, TraceEventName } from '../../facts/trace.js';
import { seeded, type Draw } from '../../text/seeded.js';
import { EventQueue } from './queue.js';
import type { AdAnswer, AdQuestion, Answer, EventAnswer, EventQuestion, Question } from './questions.js';

/** A session longer than this (events) is ended: something in it goes in circles. */
const maxEvents = 2_000_000;

/** Thrown for a session that is too long: too much is planned in it, or too much happens. */
export class LongSessionError extends Error {}

/** The clock, the trace and the questions of one session. Time is virtual; nothing is random but by the seed. */
export class Session {
  readonly trace: TraceEvent[] = [];
  readonly draw: Draw;
  readonly #queue = new EventQueue();
  readonly #questions: Question[] = [];
  readonly #waiting: ((answer: Answer) => void)[] = [];
  #now = 0;
  #end = Infinity;

  constructor(seed: number) {
    this.draw = seeded(seed);
  }

  get now(): number {
    return this.#now;
  }

  emit(what: TraceEventName, more: Omit<TraceEvent, 'at' | 'what'> = {}): void {
    if (this.trace.length >= maxEvents)
      throw new LongSessionError(`The session has more than ${maxEvents} events.`);
    this.trace.push({ at: this.#now, what, ...more });
  }

  /** The session is over at a time (ms), whatever is planned for later. */
  endAt(at: number): void {
    this.#end = at;
  }

  /** Plans something for later, in milliseconds from now. */
  later(ms: number, run: () => void): void {
    this.#queue.add(this.#now + ms, run);
  }

  askForAd(question: Omit<AdQuestion, 'asks' | 'at'>, then: (answer: AdAnswer) => void): void {
    this.#questions.push({ asks: 'ad', ...question, at: this.#now });
    this.#waiting.push(then as (answer: Answer) => void);
  }

  tellEvent(question: Omit<EventQuestion, 'asks' | 'at'>, then: (answer: EventAnswer) => void): void {
    this.#questions.push({ asks: 'event', ...question, at: this.#now });
    this.#waiting.push(then as (answer: Answer) => void);
  }

  /** Goes on until a network has to be asked; null when the session is over. */
  next(): Question | null {
    for (;;) {
      const [question] = this.#questions;
      if (question) return question;
      const due = this.#queue.take();
      if (!due || due.at > this.#end) return null;
      this.#now = due.at;
      due.run();
    }
  }

  /** Answers the question that `next` returned. */
  answer(answer: Answer): void {
    this.#questions.shift();
    this.#waiting.shift()?.(answer);
  }
}
