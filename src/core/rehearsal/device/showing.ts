import { fullScreen } from '../../checks/code.js';
import { durationMs } from '../../words/durations.js';
import type { EventQuestion } from './questions.js';
import { cappedBy, note, type DeviceState, type LoadedAd, type SlotState } from './state.js';

/** An ad can be skipped after this time (ms), and is closed by its user so long after it ended. */
const skipAfter = 5_000;
const closeAfter = 1_000;
const clickAfter = 3_000;
/** A view counts as seen after this time on the screen (ms). */
const seenAfter = 1_000;
/** How long a user stays at what a click opened (ms). */
const clickedAway = 5_000;

/** What an ad that covers the screen is doing. */
interface Playing {
  state: SlotState;
  ad: LoadedAd;
  /** How much of it was played (ms), and since when it is played on. */
  position: number;
  since: number;
  /** What belongs to an earlier stretch of it does nothing. */
  stretch: number;
  milestones: { at: number; run: () => void }[];
}

/** What follows a showing. */
export interface ShowEnds {
  closed: (state: SlotState) => void;
  clicked: (ms: number) => void;
}

/** Shows ads, and reports their tracking events to the network. */
export class Showing {
  #playing: Playing | null = null;

  constructor(
    private readonly device: DeviceState,
    private readonly ends: ShowEnds,
    private readonly refresh: (state: SlotState) => void,
  ) {}

  /** The app calls for an ad to be shown that covers the screen. */
  show(state: SlotState, because: string): void {
    const { device } = this;
    const { slot } = state;
    if (device.covering || device.isAway || this.isHeldBack(state, because)) return;
    this.dropStale(state);
    const { ad } = state;
    if (ad) {
      note(device, state, 'show', {
        because,
        ad: ad.number,
        test: ad.test,
        ...(slot.show?.assumed === undefined ? {} : { assumed: slot.show.assumed }),
      });
      return this.cover(state, ad);
    }
    if (slot.checksReady)
      return note(device, state, 'not-ready', { because, text: 'The code continues without an ad.' });
    note(device, state, 'show-failed', { because, code: 'not-loaded', text: 'No ad is loaded.' });
    if (fullScreen.has(slot.format) && !slot.handles.failed)
      note(device, state, 'stuck', {
        text: 'The code waits for an ad, and does not handle that there is none.',
      });
  }

  /** An ad shows itself as soon as it is loaded. */
  showByItself(state: SlotState, ad: LoadedAd): void {
    const { device } = this;
    if (device.covering || device.isAway || cappedBy(device, state) !== undefined) return;
    note(device, state, 'show', { because: 'loaded', ad: ad.number, test: ad.test });
    this.cover(state, ad);
  }

  /** Whether the code does not show an ad now, though one may be there. */
  private isHeldBack(state: SlotState, because: string): boolean {
    const { slot } = state;
    if (because === 'return' && slot.limitedBy !== null) {
      const assumed = `${slot.limitedBy} does not hold as the screen comes back.`;
      note(this.device, state, 'not-ready', { because, code: 'limited', assumed });
      return true;
    }
    if (!slot.keepsCap || !this.isCapReached(state)) return false;
    note(this.device, state, 'not-ready', { because, code: 'cap', text: 'The code respects the cap.' });
    return true;
  }

  /** An ad that the network does not let be shown any more is none. */
  private dropStale(state: SlotState): void {
    const { device } = this;
    const { ad, network } = state;
    if (!ad) return;
    const capped = cappedBy(device, state);
    if (capped !== undefined) note(device, state, 'capped', { text: capped });
    else if (network.keeps !== null && device.session.now - ad.loadedAt > network.keeps)
      note(device, state, 'expired', { ad: ad.number });
    else return;
    state.ad = null;
  }

  private isCapReached({ slot }: SlotState): boolean {
    const { cap } = slot.settings;
    if (!cap) return false;
    const { session, slots } = this.device;
    const from = cap.per === undefined ? -1 : session.now - durationMs(cap.per);
    const own = slots.filter((other) => other.slot.placement === slot.placement);
    return own.flatMap(({ shownAt }) => shownAt.filter((at) => at > from)).length >= cap.count;
  }

  /** An ad begins that covers the screen. */
  private cover(state: SlotState, ad: LoadedAd): void {
    const { device } = this;
    const { slot } = state;
    state.ad = null;
    state.shownAt.push(device.session.now);
    device.covering = state;
    const playing = { state, ad, position: 0, since: device.session.now, stretch: 0 };
    this.#playing = { ...playing, milestones: this.milestonesOf(state, ad) };
    note(device, state, 'impression', { ad: ad.number, test: ad.test });
    this.tell(state, ad, 'impression');
    if (isVideo(slot)) this.tell(state, ad, 'start');
    this.playOn();
  }

  /** What happens in the course of an ad, by the time that was played. */
  private milestonesOf(state: SlotState, ad: LoadedAd): Playing['milestones'] {
    const { slot } = state;
    const { ads: habit } = this.device.scenario.user;
    const length = isVideo(slot) ? ad.seconds * 1_000 : skipAfter;
    const isSkippable = slot.settings.skippable ?? slot.format !== 'rewarded';
    const part = (
      share: number,
      name: 'first-quartile' | 'midpoint' | 'third-quartile',
      event: EventQuestion['event'],
    ) => ({
      at: length * share,
      run: () => {
        note(this.device, state, name, { ad: ad.number });
        this.tell(state, ad, event);
      },
    });
    const whole = [
      ...(isVideo(slot)
        ? [
            part(0.25, 'first-quartile', 'firstQuartile'),
            part(0.5, 'midpoint', 'midpoint'),
            part(0.75, 'third-quartile', 'thirdQuartile'),
            { at: length, run: () => this.complete(state, ad) },
          ]
        : []),
      ...(habit === 'click' ? [{ at: clickAfter, run: () => this.click(state, ad) }] : []),
      { at: length + closeAfter, run: () => this.close(state) },
    ];
    if (habit !== 'skip' || !isSkippable || length <= skipAfter) return inOrder(whole);
    const skip = { at: skipAfter, run: () => this.skip(state, ad) };
    return inOrder([...whole.filter(({ at }) => at < skipAfter), skip]);
  }

  private playOn(): void {
    const playing = this.#playing;
    const [next] = playing?.milestones ?? [];
    if (!playing || !next) return;
    const { stretch } = playing;
    this.device.session.later(next.at - playing.position, () => {
      if (this.#playing !== playing || playing.stretch !== stretch) return;
      playing.position = next.at;
      playing.since = this.device.session.now;
      playing.milestones.shift();
      next.run();
      if (this.#playing === playing && playing.stretch === stretch) this.playOn();
    });
  }

  /** The app goes into the background: an ad pauses. */
  pause(): void {
    const playing = this.#playing;
    if (!playing) return;
    playing.position += this.device.session.now - playing.since;
    playing.stretch++;
  }

  resume(): void {
    const playing = this.#playing;
    if (!playing) return;
    playing.since = this.device.session.now;
    playing.stretch++;
    this.playOn();
  }

  /** The app is closed, with what it showed. */
  drop(): void {
    this.#playing = null;
    this.device.covering = null;
  }

  private complete(state: SlotState, ad: LoadedAd): void {
    note(this.device, state, 'complete', { ad: ad.number });
    this.tell(state, ad, 'complete');
    if (state.slot.format !== 'rewarded') return;
    this.tell(state, ad, 'reward');
    if (state.slot.handles.rewarded)
      note(this.device, state, 'reward', { ad: ad.number, because: 'rewarded' });
  }

  private skip(state: SlotState, ad: LoadedAd): void {
    note(this.device, state, 'skip', { ad: ad.number });
    this.tell(state, ad, 'skip');
    this.close(state);
  }

  private click(state: SlotState, ad: LoadedAd): void {
    note(this.device, state, 'click', { ad: ad.number, test: ad.test });
    this.tell(state, ad, 'click');
    this.ends.clicked(clickedAway);
  }

  private close(state: SlotState): void {
    const { device } = this;
    const { slot } = state;
    const number = this.#playing?.ad.number;
    this.#playing = null;
    device.covering = null;
    const ad = number === undefined ? {} : { ad: number };
    note(device, state, 'ad-closed', ad);
    // Where no method answers the reward, code that pays does so when the ad is closed.
    if (slot.format === 'rewarded' && !slot.handles.rewarded && slot.handles.closed)
      note(device, state, 'reward', {
        ...ad,
        because: 'closed',
        assumed: 'the code grants the reward when the ad is closed; it does not handle the reward event.',
      });
    if (fullScreen.has(slot.format) && slot.show && !slot.handles.closed && !slot.handles.failed)
      note(device, state, 'stuck', { text: 'The code does not handle that the ad was closed.' });
    this.ends.closed(state);
  }

  /** A banner or a native ad is on the screen. */
  display(state: SlotState, ad: LoadedAd, row?: number): void {
    const { device } = this;
    const { visit } = device;
    if (row === undefined) state.seen = ad;
    note(device, state, 'show', {
      ad: ad.number,
      test: ad.test,
      because: 'loaded',
      ...(row === undefined ? {} : { row }),
    });
    device.session.later(seenAfter, () => {
      if (device.visit !== visit || device.isAway || (row === undefined && state.seen !== ad)) return;
      if (cappedBy(device, state) !== undefined) return;
      state.shownAt.push(device.session.now);
      note(device, state, 'impression', { ad: ad.number, test: ad.test });
      this.tell(state, ad, 'impression');
    });
    if (row === undefined) this.planRefresh(state, ad);
  }

  private planRefresh(state: SlotState, ad: LoadedAd): void {
    const { device } = this;
    const every = refreshOf(state);
    if (every === null) return;
    const { visit } = device;
    device.session.later(every, () => {
      if (device.visit !== visit || state.seen !== ad) return;
      if (device.isAway) state.isRefreshDue = true;
      else this.refresh(state);
    });
  }

  private tell(state: SlotState, ad: LoadedAd, event: EventQuestion['event']): void {
    const { network, placement } = state.slot;
    this.device.session.tellEvent({ network, placement, ad: ad.id, event }, ({ suspended }) => {
      if (suspended !== undefined)
        note(this.device, state, 'suspended', { code: 'account-suspended', text: suspended });
    });
  }
}

const inOrder = (milestones: Playing['milestones']) => milestones.sort((a, b) => a.at - b.at);

/** Whether an ad of a placement is a video. */
function isVideo({ format, settings }: SlotState['slot']): boolean {
  return format === 'rewarded' || format === 'video' || (settings.content?.includes('video') ?? false);
}

/** How often a banner is refreshed (ms); null for never. */
function refreshOf({ slot, network }: SlotState): number | null {
  const { refresh } = slot.settings;
  if (slot.format !== 'banner' || refresh === 'off') return null;
  if (refresh === undefined || refresh === 'managed') return network.managedRefresh;
  return durationMs(refresh);
}
