import type { MediaFile } from '../../formats/vast/model.js';

/** What a player can show: a screen in pixels, and a bit rate in kilobits per second that its line bears. */
export interface Player {
  name: string;
  width: number;
  height: number;
  bitrate: number;
}

/** The players that are rehearsed. */
export const players = {
  phone: { name: 'a phone', width: 1280, height: 720, bitrate: 2000 },
  tablet: { name: 'a tablet', width: 1920, height: 1080, bitrate: 5000 },
} as const satisfies Record<string, Player>;
export type PlayerName = keyof typeof players;

/** The kinds of file that players of both platforms show without a script. */
const playable = new Set([
  'video/mp4',
  'video/3gpp',
  'application/x-mpegurl',
  'application/vnd.apple.mpegurl',
]);

/** What a try to reach a file came to. */
export interface Reached {
  url: string;
  /** Undefined where nothing answered. */
  status?: number;
  timedOut?: boolean;
}

export interface Choice {
  file: MediaFile | null;
  /** Why this one, or why none. */
  why: string;
  /** What a player reports where there is none. */
  error?: 401 | 402 | 403;
  /** Files that are passed over, each with the reason. */
  passed: { url: string; why: string }[];
}

/**
 * The file that a player takes: of those that it can play and reach, the best that its line bears, and of two of one bit
 * rate the one whose size is nearest to the screen. Where its line bears none, the smallest.
 */
export function chooseMedia(
  files: readonly MediaFile[],
  player: Player,
  reached: readonly Reached[] = [],
): Choice {
  const passed: Choice['passed'] = [];
  const left: MediaFile[] = [];
  const missing: Reached[] = [];
  for (const file of files) {
    const answer = reached.find(({ url }) => url === file.url);
    const why = unplayable(file) ?? (answer && unreachable(answer));
    if (!why) left.push(file);
    else {
      passed.push({ url: file.url, why });
      if (answer && !unplayable(file)) missing.push(answer);
    }
  }
  if (left.length === 0) {
    if (files.length === 0) return { file: null, why: 'There is no file of a film.', error: 403, passed };
    if (missing.length === 0)
      return { file: null, why: 'No file is of a kind that this player plays.', error: 403, passed };
    const error = missing.every(({ timedOut }) => timedOut) ? 402 : 401;
    return { file: null, why: 'None of the files that this player plays can be reached.', error, passed };
  }
  const borne = left.filter(({ bitrate }) => bitrate === undefined || bitrate <= player.bitrate);
  const distance = ({ width, height }: MediaFile) =>
    Math.abs(width - player.width) + Math.abs(height - player.height);
  const by = (sign: 1 | -1) => (a: MediaFile, b: MediaFile) =>
    sign * ((a.bitrate ?? 0) - (b.bitrate ?? 0)) || distance(a) - distance(b);
  const [best] = borne.sort(by(-1));
  if (best)
    return {
      file: best,
      why:
        best.bitrate === undefined
          ? `nearest to the ${player.width}×${player.height} of ${player.name}`
          : `the best of up to ${player.bitrate} kbit/s`,
      passed,
    };
  const [smallest] = left.sort(by(1));
  return {
    file: smallest ?? null,
    why: `the smallest, though it needs more than ${player.bitrate} kbit/s: it will stop to load`,
    passed,
  };
}

function unplayable({ type, framework }: MediaFile): string | undefined {
  if (framework) return `It needs ${framework}, which players in apps do not run.`;
  return playable.has(type) ? undefined : `Players in apps do not play ${type || 'a file of no type'}.`;
}

function unreachable({ status, timedOut }: Reached): string | undefined {
  if (timedOut) return 'It did not answer in time.';
  if (status === undefined) return 'It cannot be reached.';
  return status >= 400 ? `Its server answers ${status}.` : undefined;
}
