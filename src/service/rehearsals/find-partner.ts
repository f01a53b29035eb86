import {
  partnerCardIn,
  PartnerProcessError,
  startPartnerProcess,
  type PartnerProcess,
} from '../../disk/partner/partner-process.js';
import { ServiceError } from '../errors.js';
import { seedPartner, type Seed } from './seeding.js';

/** The partner of one rehearsal. */
export interface RehearsalPartner {
  base: string;
  is: 'running' | 'started';
  /** Push credentials that were made up for it. */
  push: ReadonlyMap<string, string>;
  close(): Promise<void>;
}

/** How long (ms) to wait for a partner to answer a probe. */
const patience = 2_000;

/**
 * The partner that the service was told of, or that runs with the data folder; where there is none, one is started with
 * the IDs on record, and ends with the rehearsal.
 * @throws ServiceError `partner-unreachable` if none can be started
 */
export async function findPartner(
  { home, address, seed }: { home: string; address: string | null; seed: number },
  record: Seed,
): Promise<RehearsalPartner> {
  for (const base of [address, partnerCardIn(home)?.url])
    if (base != null && (await isThere(base)))
      return { base, is: 'running', push: new Map(), close: () => Promise.resolve() };
  let started: PartnerProcess | undefined;
  try {
    started = await startPartnerProcess({ home, port: 0, seed, books: 'in-memory' });
    const push = await seedPartner(started, record);
    const partner = started;
    return { base: partner.url, is: 'started', push, close: () => partner.close() };
  } catch (error) {
    await started?.close();
    if (!(error instanceof PartnerProcessError)) throw error;
    throw new ServiceError('partner-unreachable', `No partner could be started: ${error.message}`, {
      fix: 'Start one: syndexa partner start.',
      cause: error,
    });
  }
}

/** Whether a simulated partner answers at an address of this machine. */
async function isThere(base: string): Promise<boolean> {
  if (!/^http:\/\/(127\.0\.0\.1|localhost)(:\d+)?$/.test(base)) return false;
  try {
    const answer = await fetch(`${base}/healthz`, { signal: AbortSignal.timeout(patience) });
    return answer.ok;
  } catch {
    return false;
  }
}
