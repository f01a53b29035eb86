import type { MediaFile } from '../../formats/vast/model.js';

/** What a player can show: its screen in pixels, and its bandwidth in kilobits per second. */
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
 * Chooses the media file that a player takes: of those that it supports and can reach, the one with the highest bit rate
 * within its bandwidth; of two with the same bit rate, the one closest to the screen size. The smallest if none fits.
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
    if (files.length === 0) return { file: null, why: 'There is no media file.', error: 403, passed };
    if (missing.length === 0)
      return { file: null, why: 'The player supports none of the media files.', error: 403, passed };
    const error = missing.every(({ timedOut }) => timedOut) ? 402 : 401;
    return { file: null, why: 'None of the supported media files can be reached.', error, passed };
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
          ? `closest to the ${player.width}×${player.height} of ${player.name}`
          : `the highest bit rate up to ${player.bitrate} kbit/s`,
      passed,
    };
  const [smallest] = left.sort(by(1));
  return {
    file: smallest ?? null,
    why: `the smallest, though it exceeds ${player.bitrate} kbit/s: expect rebuffering`,
    passed,
  };
}

function unplayable({ type, framework }: MediaFile): string | undefined {
  if (framework) return `It needs ${framework}, which players in apps do not support.`;
  return playable.has(type)
    ? undefined
    : `Players in apps do not support ${type || 'a file without a type'}.`;
}

function unreachable({ status, timedOut }: Reached): string | undefined {
  if (timedOut) return 'It timed out.';
  if (status === undefined) return 'It cannot be reached.';
  return status >= 400 ? `Its server responds with ${status}.` : undefined;
}
