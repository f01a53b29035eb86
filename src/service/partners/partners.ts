import { valueAt } from '../../core/text/own-values.js';
import type { Profile } from '../../core/network/model.js';
import type { RosterStore } from '../store/roster-store.js';
import { ServiceError } from '../errors.js';
import type { Secret, Secrets } from '../secrets.js';
import { isNamed, portOf } from '../../api/outgoing.js';
import { PartnerApi, type Access } from './partner-api.js';
import { ReportApi } from './report-api.js';
import { partnerCall, type CallLimits } from './partner-call.js';

/** Where networks are reached when not where their profiles say: an address per network, or one below which all are. */
export interface PartnerAddresses {
  all: string | null;
  each: ReadonlyMap<string, string>;
}

/**
 * Reads addresses as they are given to the service: `http://127.0.0.1:4871` for all, `marlstone=http://…` for one,
 * several parted by commas. Requests never name an address.
 */
export function partnerAddresses(text: string | undefined): PartnerAddresses {
  const each = new Map<string, string>();
  let all: string | null = null;
  for (const part of (text ?? '').split(',').map((item) => item.trim())) {
    if (part === '') continue;
    const [, network, address] = /^([a-z][a-z0-9-]*)=(.+)$/.exec(part) ?? [undefined, undefined, part];
    if (!/^https?:\/\/[^\s/]+/.test(address ?? ''))
      throw new Error(`SYNDEXA_PARTNERS: ${part} is not an address; write http://… or NETWORK=http://….`);
    const plain = (address ?? '').replace(/\/+$/, '');
    if (network === undefined) all = plain;
    else each.set(network, plain);
  }
  return { all, each };
}

/** The networks as they are reached from here. */
export class Partners {
  constructor(
    private readonly context: { roster: RosterStore; secrets: Secrets },
    private readonly addresses: PartnerAddresses,
    private readonly limits: CallLimits,
    private readonly store: string | undefined,
  ) {}

  address(profile: Profile): string | undefined {
    const { all, each } = this.addresses;
    return (
      each.get(profile.id) ?? (all === null ? profile.inventory?.http?.address : `${all}/${profile.id}`)
    )?.replace(/\/+$/, '');
  }

  /** Where a simulated partner may be that stands for all networks. */
  simulated(): string | null {
    return this.addresses.all;
  }

  /** Where a store is looked up: as named, else at the partner that serves all networks. */
  storeAddress(): string | undefined {
    const { all } = this.addresses;
    return (this.store ?? (all === null ? undefined : `${all}/store`))?.replace(/\/+$/, '');
  }

  /** Asks for something that needs no key. */
  ask(whom: string, url: string): Promise<unknown> {
    const target = new URL(url);
    // No key goes out, and the address is one that the owner gave to the service.
    const named = [{ host: target.hostname, port: portOf(target) }];
    const clean = this.context.secrets.cleaner();
    return partnerCall(
      { network: whom, method: 'GET', url, headers: {}, keyName: 'no key', named, clean },
      this.limits,
    );
  }

  /** The inventory of a network, with the key that the roster names for it. */
  api(profile: Profile): PartnerApi {
    const http = profile.inventory?.http;
    const address = this.address(profile);
    if (!http || address === undefined)
      throw new ServiceError('invalid', `The profile of ${profile.name} describes no inventory by HTTP.`, {
        fix: `Export its table of units and import it: syndexa id collect TITLE --network ${profile.id} --csv FILE.`,
      });
    const access = this.access(profile, http.key, address);
    return new PartnerApi(profile, http, address, access, this.limits);
  }

  /** The daily numbers of a network, with the key that the roster names for them. */
  reportApi(profile: Profile): ReportApi {
    const { report } = profile;
    const address = this.reportAddress(profile);
    if (!report?.http || address === undefined)
      throw new ServiceError('invalid', `The profile of ${profile.name} describes no report by HTTP.`, {
        fix: `Export its table of daily numbers and import it: syndexa tally import FILE --network ${profile.id}.`,
      });
    const access = this.access(profile, report.http.key, address);
    return new ReportApi(
      { ...profile, report: { ...report, http: report.http } },
      address,
      access,
      this.limits,
    );
  }

  private reportAddress({ id, report }: Profile): string | undefined {
    const { all, each } = this.addresses;
    return (each.get(id) ?? (all === null ? report?.http?.address : `${all}/${id}`))?.replace(/\/+$/, '');
  }

  /** What opens an interface of a network: the key that the roster names for it. */
  private access(profile: Profile, credential: string, address: string): Access {
    const reference = valueAt(valueAt(this.context.roster.publisher()?.credentials, profile.id), credential);
    if (reference === undefined)
      throw new ServiceError(
        'secret-missing',
        `The roster does not say which secret is the ${valueAt(profile.credentials, credential)?.label ?? credential} of ${profile.name}.`,
        { fix: `syndexa publisher set --credential ${profile.id}.${credential}=secret:NAME` },
      );
    const key = this.context.secrets.get(reference);
    const named = this.context.secrets.hosts(key.name);
    const target = new URL(address);
    if (!isNamed(target, named)) throw notApproved(profile.name, key, target);
    return { key, named, clean: this.context.secrets.cleaner() };
  }
}

/** A key goes only to hosts that the owner approved in the data folder: no profile and no call can redirect it. */
function notApproved(network: string, { name }: Secret, target: URL): ServiceError {
  const isUsual = target.protocol === 'https:' && target.port === '';
  const host = isUsual ? target.hostname : `${target.hostname}:${portOf(target)}`;
  return new ServiceError(
    'host-not-approved',
    `The secret ${name} was not sent to ${host}, where ${network} is reached: that host is not allowed for it.`,
    { fix: `If this is the host of ${network}, allow it: syndexa secret allow ${name} --host ${host}` },
  );
}
