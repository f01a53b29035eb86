import { createHmac } from 'node:crypto';
import { UnitSettings } from '../../core/inventory/model.js';
import type { Profile } from '../../core/network/model.js';
import type { PartnerContext } from '../context.js';

/** A publisher's server is given so long to answer (ms). */
const patience = 3_000;

/** What came of a report. */
export interface Reported {
  report?: { status: number } | { failed: string };
}

/**
 * Reports a reward to the publisher's server, if the account has set an address. The header `Reward-Signature` is
 * `sha256=` and the HMAC of the body in hexadecimal digits, so that the server knows who reports.
 */
export async function reportReward(
  { books, ledger, clock }: PartnerContext,
  profile: Profile,
  ad: string,
): Promise<Reported> {
  const served = ledger.served(profile.id, ad);
  const account = served?.account == null ? undefined : books.accountById(served.account);
  if (!served || account?.rewardAddress == null || account.rewardKey === null) return {};
  const settings = UnitSettings.safeParse(books.unit(profile.id, served.unit)?.settings).data;
  const body = JSON.stringify({
    ad,
    unit: served.unit,
    test: served.isTest,
    reward: settings?.reward ?? null,
    at: clock.now().toISOString(),
  });
  const signature = createHmac('sha256', account.rewardKey).update(body).digest('hex');
  try {
    const answer = await fetch(account.rewardAddress, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Reward-Signature': `sha256=${signature}` },
      body,
      redirect: 'error',
      signal: AbortSignal.timeout(patience),
    });
    return { report: { status: answer.status } };
  } catch (error) {
    return { report: { failed: error instanceof Error ? error.message : String(error) } };
  }
}
