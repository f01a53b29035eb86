import { fullScreen } from '../../checks/code.js';
import type { AppCall } from '../app/model.js';
import { durationMs } from '../../words/durations.js';
import type { AdAnswer } from './questions.js';
import { cappedBy, note, type DeviceState, type LoadedAd, type SlotState } from './state.js';

/** An SDK gives up after this time (ms) where nothing says otherwise. */
const usualPatience = 30_000;
/** A video takes so long (seconds) where the network does not say. */
const usualLength = 15;

/** What follows a load. */
export interface LoadEnds {
  filled: (state: SlotState, ad: LoadedAd, row?: number) => void;
  failed: (state: SlotState, row?: number) => void;
}

interface Why {
  because: string;
  call?: AppCall | null;
  row?: number;
  text?: string;
}

/** Loads ads: what an SDK does between the call of the app and the ad, or the failure. */
export class Loading {
  constructor(
    private readonly device: DeviceState,
    private readonly ends: LoadEnds,
  ) {}

  /** The app calls for an ad; the call may wait for the start-up or for consent first. */
  load(state: SlotState, why: Why): void {
    const { device } = this;
    const { slot } = state;
    const held = this.gateOf(state, why);
    if (held) return void held.push(this.later(why, () => this.load(state, why)));
    const assumed = why.call?.assumed ?? slot.assumed;
    note(device, state, 'load', {
      because: why.because,
      ...(why.row === undefined ? {} : { row: why.row }),
      ...(why.text === undefined ? {} : { text: why.text }),
      ...(assumed === undefined ? {} : { assumed }),
    });
    this.request(state, why.row);
  }

  /** What a call still waits for: the start-up, or the answer for consent. */
  private gateOf({ slot }: SlotState, { call }: Why): (() => void)[] | undefined {
    const network = this.device.networks.get(slot.network);
    if (!network) return undefined;
    const { consent, start, waiting } = network;
    if (call?.follows.includes('consent') && consent !== 'answered') return waiting.consent;
    return call?.follows.includes('start') && start !== 'done' ? waiting.start : undefined;
  }

  /** Something for later, unless the app has ended or the screen is gone by then. */
  private later({ call }: Why, run: () => void): () => void {
    const { device } = this;
    const { life, visit } = device;
    return () => {
      const isThere = call?.isOfApp === true || device.visit === visit;
      if (device.life === life && device.isRunning && isThere) run();
    };
  }

  /** A new ad for one that is seen: the SDK does it by itself. */
  refresh(state: SlotState): void {
    note(this.device, state, 'refresh');
    this.request(state);
  }

  private request(state: SlotState, row?: number): void {
    const { device } = this;
    const { slot, network } = state;
    const started = device.networks.get(slot.network);
    state.load++;
    state.isLoading = true;
    const fail = (code: string, text: string) => this.fail(state, { code, text, load: state.load });
    if (slot.unit === null) return fail('no-unit', slot.whyNoUnit ?? 'The build has no unit ID for it.');
    if (network.asked === null)
      return fail(
        'not-described',
        `The profile of ${network.name} does not say how to request ads (serving).`,
      );
    const before = [
      ...(network.needsStart && started?.start !== 'done' ? (['start'] as const) : []),
      ...(network.consentFirst && started?.consent !== 'answered' ? (['consent'] as const) : []),
    ];
    if (before.includes('start')) {
      note(device, state, 'request', { before, text: 'The SDK is not started, so it sends nothing.' });
      return fail('not-started', `The SDK of ${network.name} has not started.`);
    }
    const capped = cappedBy(device, state);
    if (capped !== undefined) {
      note(device, state, 'capped', { text: capped });
      return this.fail(state, { code: 'capped', text: capped, load: state.load, isQuiet: true });
    }
    note(device, state, 'request', { ...(before.length > 0 ? { before } : {}), text: slot.unit });
    this.send(state, slot.unit, row);
  }

  private send(state: SlotState, unit: string, row: number | undefined): void {
    const { device } = this;
    const { session, scenario, app } = device;
    const { slot, network, load } = state;
    const { life } = device;
    const latency = durationMs(scenario.network.latency);
    const takes = Math.round((latency * (500 + session.draw(1_000))) / 1_000);
    const isLost = session.draw(100) < scenario.network.lost;
    const patience = slot.settings.timeout === undefined ? usualPatience : durationMs(slot.settings.timeout);
    const text = `No answer within ${patience / 1_000} s.`;
    const isCurrent = () =>
      device.life === life && device.isRunning && (row !== undefined || load === state.load);
    const later = (ms: number, run: () => void) =>
      session.later(ms, () => {
        if (isCurrent()) run();
      });
    const timeOut = () => this.fail(state, { code: 'timed-out', text, load, row });
    if (!device.isOnline)
      return later(Math.min(1_000, patience), () =>
        this.fail(state, { code: 'offline', text: 'The device is offline.', load, row }),
      );
    if (isLost) return later(patience, timeOut);
    const question = {
      network: slot.network,
      placement: slot.placement,
      unit,
      format: slot.format,
      appId: network.appId.is === 'known' ? network.appId.value : null,
      isChild: scenario.user.child,
      isTracked: app.platform === 'android' || device.tracking === 'allowed',
      isRegistered: network.registersDevices,
    };
    session.askForAd(question, (answer) => {
      if (takes > patience) return later(patience, timeOut);
      const given = scenario.network.fill === 'none' && answer.is === 'filled' ? noFill : answer;
      later(takes, () => this.arrive(state, given, { load, row }));
    });
  }

  private arrive(
    state: SlotState,
    answer: AdAnswer,
    { load, row }: { load: number; row: number | undefined },
  ): void {
    const { device } = this;
    if (!device.isOnline)
      return this.fail(state, { code: 'offline', text: 'The connection was lost.', load, row });
    if (answer.is === 'filled') {
      const ad: LoadedAd = {
        number: ++device.ads,
        id: answer.ad,
        test: answer.test,
        seconds: answer.seconds ?? usualLength,
        loadedAt: device.session.now,
      };
      note(device, state, 'filled', {
        ad: ad.number,
        test: ad.test,
        ...(row === undefined ? {} : { row }),
      });
      state.isLoading = false;
      state.retries = 0;
      if (row === undefined && fullScreen.has(state.slot.format)) state.ad = ad;
      this.ends.filled(state, ad, row);
      return this.goOn(state);
    }
    const failure =
      answer.is === 'no-fill'
        ? { code: 'no-fill', text: 'The network has no ad.' }
        : answer.is === 'refused'
          ? { code: answer.code, text: answer.text }
          : { code: 'unreachable', text: answer.text };
    if (answer.is !== 'unreachable') note(device, state, answer.is, failure);
    this.fail(state, { ...failure, load, row, isQuiet: answer.is !== 'unreachable' });
  }

  private fail(
    state: SlotState,
    {
      code,
      text,
      load,
      row,
      isQuiet = false,
    }: { code: string; text: string; load: number; row?: number | undefined; isQuiet?: boolean },
  ): void {
    if (row === undefined && load !== state.load) return;
    state.isLoading = false;
    if (!isQuiet) note(this.device, state, code === 'timed-out' ? 'timed-out' : 'failed', { code, text });
    this.ends.failed(state, row);
    this.goOn(state);
  }

  /** Runs what waited for the load. */
  private goOn(state: SlotState): void {
    for (const run of state.afterLoad.splice(0)) run();
  }
}

const noFill: AdAnswer = { is: 'no-fill' };
