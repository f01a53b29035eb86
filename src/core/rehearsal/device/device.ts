import { fullScreen } from '../../checks/code.js';
import type { App, AppCall, Trigger } from '../app/model.js';
import { durationMs } from '../../words/durations.js';
import type { Scenario, ScreenAction } from '../scenario/model.js';
import { Calls } from './calls.js';
import { Lists } from './lists.js';
import { Loading } from './loading.js';
import { Session } from './session.js';
import { Showing } from './showing.js';
import { StartUp } from './start-up.js';
import { forget, newSlot, note, type DeviceState, type LoadedAd, type SlotState } from './state.js';

/** How long (ms) a callback comes after what it reports. */
const callbackAfter = 100;
/** Code that loads again on each failure would never end where there is no ad: it is repeated this often in a row. */
const mostRetries = 10;

/** A simulated device on which the app of one variant runs: what the user does goes in, events come out. */
export class Device {
  readonly session: Session;
  private readonly state: DeviceState;
  private readonly loading: Loading;
  private readonly showing: Showing;
  private readonly startUp: StartUp;
  private readonly lists: Lists;
  private readonly calls: Calls;

  constructor(app: App, scenario: Scenario, seed: number) {
    this.session = new Session(seed);
    const networks = new Map(app.networks.map((network) => [network.id, network]));
    this.state = {
      session: this.session,
      app,
      scenario,
      networks: new Map(
        app.networks.map((network) => [
          network.id,
          { network, start: 'not-yet', consent: 'not-asked', waiting: { start: [], consent: [] } },
        ]),
      ),
      slots: app.slots.flatMap((slot) => {
        const network = networks.get(slot.network);
        return network ? [newSlot(slot, network)] : [];
      }),
      isRunning: false,
      isAway: false,
      isOnline: true,
      screen: null,
      visit: 0,
      covering: null,
      ads: 0,
      life: 0,
      tracking: 'not-asked',
    };
    this.loading = new Loading(this.state, {
      filled: (state, ad, row) => this.filled(state, ad, row),
      failed: (state, row) => this.failed(state, row),
    });
    this.showing = new Showing(
      this.state,
      { closed: (state) => this.closed(state), clicked: (ms) => this.leave(ms) },
      (state) => this.loading.refresh(state),
    );
    this.calls = new Calls(this.state.slots);
    this.lists = new Lists(this.state, this.loading);
    this.startUp = new StartUp(
      this.state,
      (trigger) => this.runEverywhere(trigger),
      () => this.end(),
    );
  }

  get isRunning(): boolean {
    return this.state.isRunning;
  }

  launch(): void {
    const { state, session } = this;
    session.emit('launch');
    state.isRunning = true;
    state.life++;
    this.startUp.launch(() => this.run(null, ['launch']));
  }

  /** The user answers what is asked: for consent, and on iOS for tracking. */
  answer(): void {
    const { user } = this.state.scenario;
    if (user.consent !== 'ignored') this.startUp.answerConsent(user.consent);
    if (this.state.app.platform === 'android' || this.state.tracking !== 'not-asked') return;
    this.state.tracking = user.tracking;
    this.session.emit('tracking-answered', { text: user.tracking });
  }

  open(screen: string): void {
    const { state, session } = this;
    state.screen = screen;
    state.visit++;
    session.emit('screen-opened', { screen: this.nameOf(screen) });
    // What runs each time that the screen is back runs as it opens, too.
    this.run(screen, ['open', 'return'], 'open');
    this.lists.open(this.onScreen());
  }

  close(): void {
    const { state, session } = this;
    const { screen } = state;
    if (screen === null) return;
    this.run(screen, ['leave']);
    for (const one of this.onScreen()) this.release(one);
    session.emit('screen-closed', { screen: this.nameOf(screen) });
    state.screen = null;
    state.visit++;
  }

  /** What a user does on a screen. */
  act(action: ScreenAction): void {
    const { state, session } = this;
    if (action.do === 'tap') return this.tap();
    if (action.do === 'scroll') return this.lists.scroll(this.onScreen(), action.rows);
    if (action.do === 'leave') return this.leave(durationMs(action.for));
    if (action.do === 'rotate') return this.rotate();
    if (action.do === 'wait') return;
    state.isOnline = action.do === 'online';
    session.emit(action.do);
  }

  kill(): void {
    this.session.emit('killed');
    this.end();
  }

  /** The app is gone, and all that it held. */
  private end(): void {
    const { state } = this;
    state.isRunning = false;
    state.isAway = false;
    state.screen = null;
    state.visit++;
    this.showing.drop();
    for (const slot of state.slots) forget(slot);
    this.startUp.drop();
  }

  private tap(): void {
    const { state, session } = this;
    const { covering, screen } = state;
    if (covering) return session.emit('tap', { text: 'An ad covers the screen.' });
    session.emit('tap', screen === null ? {} : { screen: this.nameOf(screen) });
    if (screen !== null) this.run(screen, ['tap']);
  }

  private rotate(): void {
    const { state, session } = this;
    session.emit('rotated');
    const { screen } = state;
    if (!state.app.recreatesOnTurn || screen === null || state.covering) return;
    this.close();
    this.open(screen);
  }

  private leave(ms: number): void {
    const { state, session } = this;
    if (state.isAway) return;
    state.isAway = true;
    const { life } = state;
    session.emit('left');
    this.showing.pause();
    session.later(ms, () => {
      if (state.life !== life || !state.isRunning) return;
      state.isAway = false;
      session.emit('returned');
      this.showing.resume();
      if (state.covering) return;
      this.comeBack();
      this.run(null, ['return']);
    });
  }

  /** The screen is back: after an ad, or after the app was in the background. */
  private comeBack(): void {
    const { screen } = this.state;
    if (screen !== null) this.run(screen, ['return']);
    for (const one of this.onScreen()) {
      if (!one.isRefreshDue) continue;
      one.isRefreshDue = false;
      this.loading.refresh(one);
    }
  }

  private onScreen(): readonly SlotState[] {
    return this.calls.slotsOn(this.state.screen);
  }

  private nameOf(screen: string): string {
    return this.state.app.screens.find(({ id }) => id === screen)?.name ?? screen;
  }

  private runEverywhere(trigger: Trigger): void {
    const { screen } = this.state;
    this.run(null, [trigger]);
    if (screen !== null) this.run(screen, [trigger]);
  }

  /** Runs the calls of a screen, or of the application itself, that something makes run. */
  private run(screen: string | null, triggers: readonly Trigger[], because?: Trigger): void {
    for (const { state, call, does, because: why } of this.calls.triggered(screen, triggers)) {
      const reason = because ?? why;
      if (does === 'load') this.loadBy(state, call, reason);
      // What is awaited before it in one method comes first.
      else if (state.isLoading && state.slot.load?.isAwaited && state.slot.load.order < call.order)
        state.afterLoad.push(() => this.showing.show(state, reason));
      else this.showing.show(state, reason);
    }
  }

  private loadBy(state: SlotState, call: AppCall, because: string): void {
    const { slot } = state;
    if (slot.format !== 'native' || !call.isLooped) return this.loading.load(state, { because, call });
    this.lists.loadAll(state, call, because);
  }

  private filled(state: SlotState, ad: LoadedAd, row?: number): void {
    const { slot } = state;
    if (slot.format === 'notification')
      return note(this.state, state, 'delivered', { ad: ad.number, test: ad.test });
    if (row !== undefined) {
      state.rowAd = ad.number;
      return this.showing.display(state, ad, row);
    }
    if (!fullScreen.has(slot.format) && slot.format !== 'video') {
      const isSeen = slot.load?.isOfApp === true || slot.screen === this.state.screen;
      if (isSeen && !this.state.isAway) this.showing.display(state, ad);
      return;
    }
    const isByItself = slot.format === 'video' || !slot.isShownByCall;
    if (isByItself) return this.showing.showByItself(state, ad);
    if (slot.show?.triggers.includes('loaded')) this.showing.show(state, 'loaded');
  }

  /** No ad: the code may try again, or turn to the next network of the placement. */
  private failed(state: SlotState, row?: number): void {
    const { slots } = this.state;
    if (row === undefined) this.retry(state);
    const own = slots.filter(({ slot }) => slot.placement === state.slot.placement);
    const next = own[own.indexOf(state) + 1];
    const call = next?.slot.load;
    if (!next || !call?.triggers.includes('failed')) return;
    note(this.state, next, 'fallback', { because: 'failed' });
    this.loading.load(next, { because: 'failed', call });
  }

  /** Code that loads in its own failure callback asks again. The callback comes after the call that it answers. */
  private retry(state: SlotState): void {
    const { load } = state.slot;
    if (!load?.triggers.includes('retry') || state.retries >= mostRetries) return;
    const { life, visit } = this.state;
    this.session.later(callbackAfter, () => {
      const isThere = load.isOfApp || this.state.visit === visit;
      if (this.state.life !== life || !this.state.isRunning || !isThere || state.isLoading) return;
      state.retries++;
      const isLast = state.retries === mostRetries;
      const text = `It failed ${mostRetries} times in a row. The rehearsal does not repeat it again.`;
      this.loading.load(state, { because: 'retry', call: load, ...(isLast ? { text } : {}) });
    });
  }

  private closed(state: SlotState): void {
    const { load } = state.slot;
    const isThere = load?.isOfApp === true || load?.screen === this.state.screen;
    if (isThere && load?.triggers.includes('closed'))
      this.loading.load(state, { because: 'closed', call: load });
    if (this.state.screen !== null && !this.state.isAway) this.comeBack();
  }

  /** Closes the screen, with what it contains. */
  private release(one: SlotState): void {
    const { slot } = one;
    const held = one.ad ?? one.seen;
    if (held && slot.release !== null) {
      const isReleased = slot.release !== 'missing' && slot.release.triggers.includes('leave');
      const text = isReleased ? undefined : 'Nothing releases it when the screen closes.';
      note(this.state, one, isReleased ? 'released' : 'kept', {
        ad: held.number,
        ...(text === undefined ? {} : { text }),
      });
    }
    if (slot.keepsListener) note(this.state, one, 'listener-kept');
    forget(one);
  }
}
