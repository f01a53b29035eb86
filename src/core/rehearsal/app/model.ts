import type { Place } from '../../facts/evidence.js';
import type { Settings } from '../../words/settings.js';
import type { Format, Platform, Stage } from '../../words/words.js';

/** What makes code run, as far as reading can tell. */
export type Trigger =
  | 'launch'
  | 'open'
  | 'return'
  | 'tap'
  | 'row'
  | 'started'
  | 'loaded'
  | 'failed'
  | 'retry'
  | 'closed'
  | 'leave';

/** A call of an SDK that the app makes. */
export interface AppCall {
  /** The call as it is written. */
  call: string;
  triggers: readonly Trigger[];
  /** The screen that it belongs to. */
  screen: string;
  /** Whether it belongs to the application itself, and not to a screen. */
  isOfApp: boolean;
  place: Place;
  /** The calls of the network that it waits for. */
  follows: readonly ('start' | 'consent')[];
  /** Whether the code goes on only when it is done. */
  isAwaited: boolean;
  /** Its position in the method: calls of one method run in this order. */
  order: number;
  /** Whether it is in a loop: everything is loaded at once. */
  isLooped: boolean;
  /** What reading could not tell, and what is assumed instead. */
  assumed?: string | undefined;
}

/** How the app deals with one network of a placement. */
export interface AppSlot {
  network: string;
  placement: string;
  format: Format;
  screen: string;
  /** The unit ID that the build hands over; null where it has none, with the reason. */
  unit: string | null;
  whyNoUnit: string | null;
  settings: Settings;
  load: AppCall | null;
  /** Whether code asks for ads of this format and network, and reading cannot tell for which placement. */
  isOpen: boolean;
  /** Null where showing needs no call: a view that loads by itself, or is attached. */
  show: AppCall | null;
  /** Whether a call of its own shows this format; otherwise an ad is seen once it is loaded. */
  isShownByCall: boolean;
  /** Whether the code asks first whether an ad is loaded. */
  checksReady: boolean;
  /** Whether the code keeps the cap by a condition of its own. */
  keepsCap: boolean;
  /** A condition on showing that asks for more than an ad: it is taken not to hold as the screen comes back. */
  limitedBy: string | null;
  handles: { failed: boolean; closed: boolean; rewarded: boolean };
  /** What releases the ad when the screen goes; null where the network has no such call. */
  release: AppCall | 'missing' | null;
  keepsListener: boolean;
  heldAt: string | undefined;
  /** The navigation that its view covers. */
  covers: string | undefined;
  /** What is assumed of the slot as a whole. */
  assumed?: string | undefined;
}

/** How the app starts the SDK of a network. */
export interface AppNetwork {
  id: string;
  name: string;
  appId: { is: 'known'; value: string } | { is: 'missing' | 'not-needed' | 'unknown' };
  /** Whether its SDK stops the app where the app ID is missing: it reads it in the build, before any code runs. */
  stopsWithoutAppId: boolean;
  startUp: AppCall | null;
  /** The network whose start-up must end first: this one is started in its callback. */
  startsAfter: string | null;
  /** Whether the SDK has a start-up call in the languages of the app at all. */
  needsStart: boolean;
  /** Whether starting takes time, and what is loaded before it is done is refused. */
  takesTime: boolean;
  consent: AppCall | null;
  /** Whether nothing may be requested before the user has answered. */
  consentFirst: boolean;
  /** Whether the build registers test devices. */
  registersDevices: boolean;
  /** Which formats are asked by OpenRTB or by tag; empty where the profile has no part `serving`. */
  asked: 'openrtb' | 'tag' | null;
  /** How long a loaded ad may be shown, in milliseconds; null for no limit. */
  keeps: number | null;
  /** The most showings that the network allows in a time (milliseconds), by format. */
  caps: ReadonlyMap<Format, { max: number; per: number }>;
  /** Where the network refreshes banners itself: how often, in milliseconds; null where it does not. */
  managedRefresh: number | null;
}

/** One variant of an edition, as a rehearsal lives through it. */
export interface App {
  title: string;
  platform: Platform;
  module: string;
  variant: string;
  stage: Stage;
  identifier: string | null;
  /** Whether turning the device makes the screen anew. */
  recreatesOnTurn: boolean;
  networks: readonly AppNetwork[];
  /** The screens that a user opens, in the order of their placements. */
  screens: readonly { id: string; name: string }[];
  /** By placement, in the order of fallback. */
  slots: readonly AppSlot[];
}
