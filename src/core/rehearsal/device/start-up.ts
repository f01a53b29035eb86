import type { Trigger } from '../app/model.js';
import type { DeviceState, NetworkState } from './state.js';

/** Starting an SDK takes between these times (ms). */
const shortest = 300;
const spread = 900;

/** Starts the SDKs of the networks, and asks for consent. */
export class StartUp {
  constructor(
    private readonly device: DeviceState,
    private readonly run: (trigger: Trigger) => void,
    private readonly end: () => void,
  ) {}

  /** The app is launched. What is in the same code after the start-up calls comes when those are done that it waits for. */
  launch(after: () => void): void {
    const { session, networks } = this.device;
    const all = [...networks.values()];
    for (const state of all)
      if (state.network.consent && state.consent === 'not-asked') {
        session.emit('consent-asked', { network: state.network.id });
        state.consent = 'asked';
      }
    const calls = all
      .filter(({ network }) => network.startUp && this.isFirst(network.startsAfter))
      .sort((a, b) => (a.network.startUp?.order ?? 0) - (b.network.startUp?.order ?? 0));
    this.startOneByOne(calls, after);
  }

  /** Whether nothing has to be started before: a network that is waited for must be started itself. */
  private isFirst(startsAfter: string | null): boolean {
    return startsAfter === null || !this.device.networks.get(startsAfter)?.network.startUp;
  }

  private startOneByOne([first, ...others]: readonly NetworkState[], after: () => void): void {
    const { device } = this;
    if (!first) return after();
    const { life } = device;
    const goOn = () => {
      if (device.life === life && device.isRunning) this.startOneByOne(others, after);
    };
    const begin = () => this.start(first, first.network.startUp?.isAwaited ? goOn : undefined);
    if (first.network.startUp?.follows.includes('consent') && first.consent !== 'answered')
      first.waiting.consent.push(begin);
    else begin();
    if (!first.network.startUp?.isAwaited) goOn();
  }

  private start(state: NetworkState, then?: () => void): void {
    const { device } = this;
    const { session } = device;
    const { network } = state;
    if (!device.isRunning) return;
    const assumed = network.startUp?.assumed;
    session.emit('start-called', { network: network.id, ...(assumed === undefined ? {} : { assumed }) });
    if (network.appId.is === 'missing') return this.fail(state, then);
    state.start = 'running';
    const { life } = device;
    const done = () => {
      if (device.life !== life || !device.isRunning) return;
      state.start = 'done';
      session.emit('started', { network: network.id });
      for (const waiting of state.waiting.start.splice(0)) waiting();
      for (const next of device.networks.values())
        if (next.network.startsAfter === network.id && next.start === 'not-yet') this.start(next);
      // An SDK that is started now may stop the app.
      if (!device.isRunning) return;
      this.run('started');
      then?.();
    };
    if (network.takesTime) session.later(shortest + session.draw(spread), done);
    else done();
  }

  /** Without an app ID an SDK that reads it in the build stops the app; one that is handed it refuses to start. */
  private fail(state: NetworkState, then?: () => void): void {
    const { session } = this.device;
    const { id, name, stopsWithoutAppId } = state.network;
    const text = `There is no app ID of ${name} where its SDK looks.`;
    state.start = 'failed';
    if (!stopsWithoutAppId) {
      session.emit('start-failed', { network: id, code: 'no-app-id', text });
      return then?.();
    }
    session.emit('stopped', { network: id, code: 'no-app-id', text });
    this.end();
  }

  answerConsent(answer: 'granted' | 'refused'): void {
    const { session, networks } = this.device;
    for (const state of networks.values()) {
      if (state.consent !== 'asked') continue;
      state.consent = 'answered';
      session.emit('consent-answered', { network: state.network.id, text: answer });
      for (const waiting of state.waiting.consent.splice(0)) waiting();
    }
  }

  /** The app is gone; an answer for consent stays. */
  drop(): void {
    for (const state of this.device.networks.values()) {
      state.start = 'not-yet';
      state.waiting.start = [];
      state.waiting.consent = [];
      if (state.consent === 'asked') state.consent = 'not-asked';
    }
  }
}
