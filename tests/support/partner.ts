import { startPartner, type PartnerOptions, type RunningPartner } from '../../src/partner/boot.js';
import { startService, type ServiceOptions } from '../../src/service/boot.js';
import type { Profile } from '../../src/core/network/model.js';
import { type Answer, approve, http, putPublisher, temporaryFolder } from './service.js';
import { profiles } from './trees.js';
import { rmSync } from 'node:fs';

export interface TestPartner extends RunningPartner {
  /** A control call; throws when it is refused. */
  control(path: string, body: unknown): Promise<any>;
  /** Opens an account with a key of the test's own. */
  account(network: string, key: string, number?: string): Promise<void>;
  /** A call of a network's interface with its key. */
  ask(
    network: string,
    key: string,
    path: string,
    method?: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<Answer>;
}

/** A partner of its own, its books in memory. */
export async function testPartner(options: Partial<PartnerOptions> = {}): Promise<TestPartner> {
  const all: readonly Profile[] = options.profiles ?? profiles;
  const partner = await startPartner({
    port: 0,
    rate: { limit: 100_000, seconds: 1 },
    ...options,
    profiles: all,
  });
  const control = async (path: string, body: unknown) => {
    const answer = await http(`${partner.url}/control/${path}`, 'POST', body, {
      'Control-Token': partner.token,
    });
    if (answer.status !== 200) throw new Error(`${path}: ${answer.text}`);
    return answer.body;
  };
  return {
    ...partner,
    control,
    account: (network, key, number) =>
      control('accounts', { network, name: 'Brine', key, ...(number === undefined ? {} : { number }) }),
    ask(network, key, path, method = 'GET', body, headers = {}) {
      const described = all.find(({ id }) => id === network)!.inventory!.http!;
      return http(`${partner.url}/${network}${path}`, method, body, {
        [described.header]: `${described.prefix}${key}`,
        ...headers,
      });
    },
  };
}

export interface PartneredService {
  url: string;
  home: string;
  api: (path: string) => string;
  partner: TestPartner;
  stop(): Promise<void>;
}

/** The key that the tests' accounts have; it must turn up nowhere. */
export const plantedKey = 'planted-key-9f27c1e0b4';

/** A service and a partner, an account at each network given, and its key known to the service. */
export async function partneredService(
  networks: readonly string[] = ['cobalt-heron', 'marlstone'],
  options: { partner?: Partial<PartnerOptions>; service?: Partial<ServiceOptions> } = {},
): Promise<PartneredService> {
  const partner = await testPartner(options.partner);
  const home = temporaryFolder();
  approve(home, 'PLANTED', partner.url);
  const service = await startService({
    home,
    port: 0,
    version: '0.0.0-test',
    env: { SYNDEXA_PARTNERS: partner.url, SYNDEXA_SECRET_PLANTED: plantedKey },
    partnerLimits: { timeout: 1_000, tries: 6, pause: 5 },
    ...options.service,
  });
  const api = (path: string) => `${service.url}/api/v1${path}`;
  const credentials: Record<string, Record<string, string>> = {};
  for (const network of networks) {
    await partner.account(network, plantedKey);
    const key = (options.partner?.profiles ?? profiles).find(({ id }) => id === network)!.inventory!.http!
      .key;
    credentials[network] = { [key]: 'secret:PLANTED' };
  }
  await putPublisher(api('/publisher'), { name: 'Brine', domain: 'brine.example', credentials });
  return {
    url: service.url,
    home,
    api,
    partner,
    async stop() {
      await service.close();
      await partner.close();
      rmSync(home, { recursive: true, force: true });
    },
  };
}
