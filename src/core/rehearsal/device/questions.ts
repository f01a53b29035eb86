import type { Format } from '../../words/words.js';

/** A request for an ad, as the SDK of a network sends it. */
export interface AdQuestion {
  asks: 'ad';
  network: string;
  placement: string;
  unit: string;
  format: Format;
  appId: string | null;
  /** Whether the user is a child. */
  isChild: boolean;
  /** Whether the user allowed tracking. */
  isTracked: boolean;
  /** Whether the build registers this device for testing. */
  isRegistered: boolean;
  /** Virtual milliseconds. */
  at: number;
}

/** A tracking event that is reported to the network. */
export interface EventQuestion {
  asks: 'event';
  network: string;
  placement: string;
  /** The ad as the network calls it. */
  ad: string;
  event:
    | 'reward'
    | 'impression'
    | 'start'
    | 'firstQuartile'
    | 'midpoint'
    | 'thirdQuartile'
    | 'complete'
    | 'skip'
    | 'click';
  at: number;
}

export type Question = AdQuestion | EventQuestion;

/** What the network answers to a request. */
export type AdAnswer =
  | { is: 'filled'; ad: string; test: boolean; /** Length of a video, in seconds. */ seconds?: number }
  | { is: 'no-fill' }
  | { is: 'refused'; code: string; text: string }
  | { is: 'unreachable'; text: string };

/** What the network answers to an event. */
export interface EventAnswer {
  is: 'noted';
  /** Why the account is suspended from now on, if it is. */
  suspended?: string | undefined;
}

export type Answer = AdAnswer | EventAnswer;
