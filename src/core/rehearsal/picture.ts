import type { TraceEvent } from '../facts/trace.js';
import type { RehearsedPlacement } from './report.js';

/** An ad that is on the screen. */
export interface SeenAd {
  placement: string;
  network: string;
  test: boolean;
  /** Of a banner: where it is, and its size in density-independent pixels. */
  banner: RehearsedPlacement['banner'];
}

/** What a user sees at one time of a session. */
export interface Picture {
  /** What is in front: the app's screen, an ad, another app, or nothing that runs. */
  front: 'nothing' | 'app' | 'ad' | 'elsewhere';
  screen: string | null;
  /** The ad that covers the screen, with the share of it that was played. */
  covering: (SeenAd & { played: number }) | null;
  inView: SeenAd[];
  isOnline: boolean;
  /** Whether the device was turned an odd number of times. */
  isTurned: boolean;
  /** Whether the app asks for consent. */
  asks: boolean;
  isStuck: boolean;
}

const played = new Map<TraceEvent['what'], number>([
  ['impression', 0],
  ['first-quartile', 0.25],
  ['midpoint', 0.5],
  ['third-quartile', 0.75],
  ['complete', 1],
]);

/** What a user sees after the events up to a time, in milliseconds. */
export function pictureAt(
  trace: readonly TraceEvent[],
  placements: readonly RehearsedPlacement[],
  time: number,
): Picture {
  const formats = new Map(placements.map((one) => [one.placement, one]));
  const picture: Picture = {
    front: 'nothing',
    screen: null,
    covering: null,
    inView: [],
    isOnline: true,
    isTurned: false,
    asks: false,
    isStuck: false,
  };
  for (const event of trace) {
    if (event.at > time) break;
    happen(picture, event, formats.get(event.placement ?? ''));
  }
  return picture;
}

const covers = new Set(['interstitial', 'rewarded', 'splash', 'video']);

function happen(picture: Picture, event: TraceEvent, placement: RehearsedPlacement | undefined): void {
  switch (event.what) {
    case 'launch':
      return void Object.assign(picture, { front: 'app', screen: null, covering: null, inView: [] });
    case 'killed':
    case 'stopped':
      return void Object.assign(picture, { front: 'nothing', screen: null, covering: null, inView: [] });
    case 'screen-opened':
      return void Object.assign(picture, { screen: event.screen ?? null, isStuck: false });
    case 'screen-closed':
      return void Object.assign(picture, { screen: null, inView: [], isStuck: false });
    case 'left':
      picture.front = 'elsewhere';
      return;
    case 'returned':
      picture.front = picture.covering ? 'ad' : 'app';
      return;
    case 'offline':
    case 'online':
      picture.isOnline = event.what === 'online';
      return;
    case 'rotated':
      picture.isTurned = !picture.isTurned;
      return;
    case 'consent-asked':
    case 'consent-answered':
      picture.asks = event.what === 'consent-asked';
      return;
    case 'stuck':
      picture.isStuck = true;
      return;
    case 'ad-closed':
      return void Object.assign(picture, { front: 'app', covering: null });
    default:
      if (placement) adEvent(picture, event, placement);
  }
}

function adEvent(
  picture: Picture,
  event: TraceEvent,
  { placement, format, banner }: RehearsedPlacement,
): void {
  const { what, network = '', test = false } = event;
  const seen: SeenAd = { placement, network, test, banner };
  const share = played.get(what);
  if (!covers.has(format)) {
    if (what !== 'show') return;
    picture.inView = [...picture.inView.filter((one) => one.placement !== placement), seen];
    return;
  }
  if (share === undefined) return;
  const known = picture.covering;
  picture.covering = { ...(known?.placement === placement ? known : seen), played: share };
  picture.front = 'ad';
}
