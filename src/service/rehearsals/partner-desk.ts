import type { App } from '../../core/rehearsal/app/model.js';
import type {
  AdAnswer,
  AdQuestion,
  Answer,
  EventQuestion,
  Question,
} from '../../core/rehearsal/device/questions.js';
import { bidRequest, deviceIdFor, readBids, readTag, type Trackers } from '../../core/rehearsal/messages.js';
import type { Exchange } from '../../core/rehearsal/report.js';
import type { Profile } from '../../core/network/model.js';
import { ask, portOf, type Answered } from '../../api/outgoing.js';
import { ServiceError } from '../errors.js';

/** A partner on this machine answers within this time (ms), or is taken to hang. */
const patience = 3_000;
const maxBytes = 1_000_000;
/** A partner that does not answer so often in a row is not asked any more. */
const maxSilences = 3;

export interface DeskOptions {
  /** Where the partner is, without a slash at the end. */
  base: string;
  app: App;
  profiles: readonly Profile[];
  /** The push credential of a network, where the partner may have it. */
  pushCredential: (network: string) => string | undefined;
  signal?: AbortSignal | undefined;
}

/** Asks the simulated partner for what the networks of one app answer, and keeps what was said. */
export class PartnerDesk {
  readonly exchanges: Exchange[] = [];
  readonly #trackers = new Map<string, Trackers>();
  #silences = 0;
  #asked = 0;

  constructor(private readonly options: DeskOptions) {}

  /**
   * Answers a question of the device.
   * @throws ServiceError `partner-unreachable` when the partner does not answer, again and again
   */
  async answer(question: Question): Promise<Answer> {
    this.options.signal?.throwIfAborted();
    return question.asks === 'ad' ? this.ad(question) : this.event(question);
  }

  private ad(question: AdQuestion): Promise<AdAnswer> {
    const profile = this.options.profiles.find(({ id }) => id === question.network);
    const { format } = question;
    if (format === 'notification') return this.notification(question);
    if (profile?.serving?.by === 'tag') return this.tag(question);
    if (profile?.serving?.by === 'openrtb') {
      const request = bidRequest(this.options.app, { ...question, format }, `r${++this.#asked}`);
      return this.bids(question, profile.serving.address, request);
    }
    return Promise.resolve({ is: 'unreachable', text: 'The profile does not say where to send requests.' });
  }

  private async bids(question: AdQuestion, address: string, request: object): Promise<AdAnswer> {
    const body = JSON.stringify(request);
    const answered = await this.call(question, 'POST', this.at(address), { body });
    if (!answered) return silent;
    if (answered.status === 204) return { is: 'no-fill' };
    if (answered.status !== 200) return refusalIn(answered);
    const { answer, trackers } = readBids(parsed(answered.text));
    return this.kept(question, answer, trackers);
  }

  private async tag(question: AdQuestion): Promise<AdAnswer> {
    const url = new URL(this.at(question.unit));
    const device = deviceIdFor(question);
    if (device !== undefined) url.searchParams.set('device', device);
    url.searchParams.set('development', this.options.app.stage === 'test' ? '1' : '0');
    url.searchParams.set('child', question.isChild ? '1' : '0');
    const answered = await this.call(question, 'GET', url.href);
    if (!answered) return silent;
    const refused = answered.headers['ad-refused'];
    if (typeof refused === 'string') {
      const [code = '', ...text] = refused.split('; ');
      return { is: 'refused', code, text: text.join('; ') };
    }
    if (answered.status === 204) return { is: 'no-fill' };
    if (answered.status !== 200) return refusalIn(answered);
    const { answer, trackers } = readTag(answered.text, answered.headers['ad-test'] === '1');
    return this.kept(question, answer, trackers);
  }

  private async notification(question: AdQuestion): Promise<AdAnswer> {
    const { app, base, pushCredential } = this.options;
    const { network, unit, isChild: child } = question;
    const device = deviceIdFor(question);
    const credential = pushCredential(network);
    const answered = await this.call(question, 'POST', `${base}/${network}/serve/notification`, {
      body: JSON.stringify({
        unit,
        platform: app.platform,
        ...(app.identifier === null ? {} : { identifier: app.identifier }),
        ...(device === undefined ? {} : { device }),
        development: app.stage === 'test',
        child,
      }),
      ...(credential === undefined ? {} : { headers: { 'Push-Credential': credential } }),
    });
    if (!answered) return silent;
    if (answered.status === 204) return { is: 'no-fill' };
    if (answered.status !== 200) return refusalIn(answered);
    const body = parsed(answered.text) as { id?: unknown; test?: unknown } | undefined;
    return { is: 'filled', ad: String(body?.id), test: body?.test === true };
  }

  private async event(question: EventQuestion): Promise<Answer> {
    const { base } = this.options;
    const { network, ad, event } = question;
    const said = this.#trackers.get(`${network} ${ad}`)?.get(event);
    // An ad names its trackers; those that lead elsewhere are not called.
    const isOwn = said?.startsWith(`${base}/`) === true;
    const url = isOwn ? said : event === 'reward' ? `${base}/${network}/serve/track/${ad}/reward` : undefined;
    if (url === undefined) return { is: 'noted' };
    const answered = await this.call(question, 'GET', url);
    const body = answered && (parsed(answered.text) as { suspended?: unknown } | undefined);
    return body?.suspended === true
      ? {
          is: 'noted',
          suspended: 'The account is suspended: development builds clicked on ads that earn money.',
        }
      : { is: 'noted' };
  }

  /** The address of the partner that replaces an address. */
  private at(address: string): string {
    return `${this.options.base}/at/${address.replace(/^https:\/\//, '')}`;
  }

  private kept(question: AdQuestion, answer: AdAnswer, trackers: Trackers): AdAnswer {
    if (answer.is === 'filled') this.#trackers.set(`${question.network} ${answer.ad}`, trackers);
    return answer;
  }

  private async call(
    { network, placement, at }: Question,
    method: 'GET' | 'POST',
    url: string,
    { body, headers = {} }: { body?: string; headers?: Record<string, string> } = {},
  ): Promise<Answered | undefined> {
    const target = new URL(url);
    const exchange: Exchange = {
      at,
      network,
      placement,
      method,
      address: url,
      request: body ?? null,
      status: null,
      response: '',
    };
    this.exchanges.push(exchange);
    try {
      const answered = await ask({
        method,
        url,
        headers: { ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...headers },
        body,
        timeout: patience,
        maxBytes,
        named: [{ host: target.hostname, port: portOf(target) }],
      });
      this.#silences = 0;
      exchange.status = answered.status;
      exchange.response = answered.text.slice(0, 20_000);
      return answered;
    } catch (error) {
      exchange.response = error instanceof Error ? error.message : String(error);
      if (++this.#silences < maxSilences) return undefined;
      throw new ServiceError('partner-unreachable', `The partner at ${target.host} does not answer.`, {
        fix: 'Restart it: syndexa partner start. Without one, rehearse starts its own.',
        cause: error,
      });
    }
  }
}

const silent: AdAnswer = { is: 'unreachable', text: 'The partner did not answer.' };

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** The reason in the partner's body. */
function refusalIn({ text, status }: Answered): AdAnswer {
  const body = parsed(text) as { error?: { code?: unknown; message?: unknown } } | undefined;
  const { code, message } = body?.error ?? {};
  if (typeof code === 'string' && typeof message === 'string') return { is: 'refused', code, text: message };
  return { is: 'unreachable', text: `The partner answered ${status}.` };
}
