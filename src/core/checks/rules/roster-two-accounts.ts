import { defineRule } from '../model.js';
import { heldIds } from '../../roster/validate.js';
import { networkName } from '../scope.js';

/** The IDs of one title belong to two accounts at one network. */
export const twoAccounts = defineRule({
  meta: {
    id: 'roster/two-accounts',
    severity: 'warning',
    ifShipped: 'Part of the revenue goes to another account, and app-ads.txt names only one.',
    mend: 'Create the odd ones again in the right account.',
    messages: {
      accounts:
        '{network}: {odd} belongs to the account {account}, but most IDs of the title belong to {usual}.',
    },
    needsTitle: true,
  },
  *run(context) {
    if (!context.title) return;
    const held = heldIds(context.title).flatMap(({ id, network }) => {
      const reading = context.recogniser.recognise(id, network).find((found) => found.network === network);
      return reading?.account && !reading.sample ? [{ id, network, account: reading.account }] : [];
    });
    for (const network of new Set(held.map((item) => item.network))) {
      const mine = held.filter((item) => item.network === network);
      const counts = new Map<string, number>();
      for (const { account } of mine) counts.set(account, (counts.get(account) ?? 0) + 1);
      const [usual] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [];
      for (const { id, account } of mine) {
        if (usual === undefined || account === usual) continue;
        const data = { network: networkName(context, network), odd: id, account, usual };
        yield { network, message: 'accounts', data };
      }
    }
  },
});
