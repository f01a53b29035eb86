import type { ErrorCode } from '../../formats/vast/error-codes.js';
import type { Player, Reached } from './choose.js';

/** What a user or a device does. */
export const actionNames = [
  'pause',
  'resume',
  'background',
  'return',
  'skip',
  'click',
  'mute',
  'unmute',
  'fullscreen',
  'exit-fullscreen',
  'close',
  'fail',
] as const;
export type ActionName = (typeof actionNames)[number];

/** An action, at milliseconds from the start of the break. */
export interface Action {
  at: number;
  do: ActionName;
}

/** One thing that happens in a break. */
export interface PlayLine {
  /** Milliseconds from the start of the break. */
  at: number;
  /** The number of the ad in the break; null beside ads. */
  ad: number | null;
  what: 'event' | 'error' | 'ignored' | 'stuck' | 'content';
  name: string;
  /** The position in the video, in milliseconds. */
  playhead?: number;
  code?: ErrorCode;
  note?: string;
  /** The addresses that would be called, with their macros filled. */
  calls: string[];
}

export interface PlayOptions {
  player: Player;
  /** What the user and the device do, at times from the start of the break. */
  actions: readonly Action[];
  reached?: readonly Reached[];
  /** When the break starts, in milliseconds since 1970; it goes into `[TIMESTAMP]`. */
  startsAt: number;
  /** Eight digits that `[CACHEBUSTING]` begins with. */
  seed: number;
}
