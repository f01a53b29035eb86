import type { TraceEvent, TraceEventName } from '../../facts/trace.js';
import type { App, AppNetwork, AppSlot } from '../app/model.js';
import type { Scenario } from '../scenario/model.js';
import type { Session } from './session.js';

/** An ad that is loaded. */
export interface LoadedAd {
  number: number;
  /** As the network calls it. */
  id: string;
  test: boolean;
  seconds: number;
  loadedAt: number;
}

/** One network of a placement while a session goes on. */
export interface SlotState {
  readonly slot: AppSlot;
  readonly network: AppNetwork;
  ad: LoadedAd | null;
  isLoading: boolean;
  /** Counts loads, to distinguish the awaited response from earlier ones. */
  load: number;
  /** How often in a row the code has loaded again because a load failed. */
  retries: number;
  /** What waits until a load ends, with an ad or without. */
  afterLoad: (() => void)[];
  /** The banner or native ad that is seen. */
  seen: LoadedAd | null;
  /** Whether a refresh is due as soon as the screen is back. */
  isRefreshDue: boolean;
  /** When ads of it were shown (ms). */
  shownAt: number[];
  /** The ad that a row of a list still shows. */
  rowAd: number | null;
}

/** The start-up of a network while a session goes on. */
export interface NetworkState {
  readonly network: AppNetwork;
  start: 'not-yet' | 'running' | 'done' | 'failed';
  consent: 'not-asked' | 'asked' | 'answered';
  /** What waits for the start-up or the answer. */
  waiting: { start: (() => void)[]; consent: (() => void)[] };
}

/** What all parts of a device share. */
export interface DeviceState {
  readonly session: Session;
  readonly app: App;
  readonly scenario: Scenario;
  readonly networks: ReadonlyMap<string, NetworkState>;
  readonly slots: readonly SlotState[];
  isRunning: boolean;
  isAway: boolean;
  isOnline: boolean;
  /** The screen that is open, and how often screens were opened: what belongs to an earlier visit does nothing. */
  screen: string | null;
  visit: number;
  /** The ad that covers the screen. */
  covering: SlotState | null;
  /** The number of the last ad. */
  ads: number;
  /** How often the app was launched. */
  life: number;
  tracking: 'not-asked' | 'allowed' | 'denied';
}

/** Notes something that concerns one slot. */
export function note(
  { session }: DeviceState,
  { slot }: SlotState,
  what: TraceEventName,
  more: Omit<TraceEvent, 'at' | 'what' | 'network' | 'placement'> = {},
): void {
  session.emit(what, { network: slot.network, placement: slot.placement, ...more });
}

export function newSlot(slot: AppSlot, network: AppNetwork): SlotState {
  return {
    slot,
    network,
    ad: null,
    isLoading: false,
    load: 0,
    retries: 0,
    afterLoad: [],
    seen: null,
    isRefreshDue: false,
    shownAt: [],
    rowAd: null,
  };
}

/** What the end of the app takes away. */
export function forget(state: SlotState): void {
  state.ad = null;
  state.seen = null;
  state.isLoading = false;
  state.load++;
  state.retries = 0;
  state.afterLoad = [];
  state.isRefreshDue = false;
  state.rowAd = null;
}

/** What a network says of one more showing than it allows; undefined where there may be one. */
export function cappedBy({ session, slots }: DeviceState, { slot, network }: SlotState): string | undefined {
  const cap = network.caps.get(slot.format);
  if (!cap) return undefined;
  const recent = slots
    .filter((other) => other.slot.network === slot.network && other.slot.format === slot.format)
    .flatMap(({ shownAt }) => shownAt.filter((at) => at > session.now - cap.per));
  return recent.length < cap.max ? undefined : `${network.name} shows no more than ${cap.max} in this time.`;
}
