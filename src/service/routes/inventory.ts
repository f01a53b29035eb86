import { hostText } from '../../disk/home/secret-hosts.js';
import { credentialUses } from '../../core/roster/credentials.js';
import { writerOf } from '../context.js';
import type { Handlers } from '../route.js';
import { withProgress } from '../server-events.js';

/** What goes between the roster and the networks: provisioning, collecting, and the secrets that open them. */
export const inventoryHandlers = {
  provision: ({ params, body, form, request, response }, service) =>
    withProgress(service, { form, response, name: 'provision' }, (progress) =>
      service.provisioning.provision(params.title, body, writerOf(service, request), progress),
    ),
  collect: ({ params, body, form, request, response }, service) =>
    withProgress(service, { form, response, name: 'collect' }, (progress) =>
      service.collecting.collect(params.title, body, writerOf(service, request), progress),
    ),
  inventory: ({ params }, service) =>
    service.inventories.find(service.profiles.get(params.network).profile.id),
  listSecrets: (_call, service) => {
    const uses = credentialUses(service.roster.roster());
    return [...uses].map(([reference, usedBy]) => {
      const secret = service.secrets.find(reference);
      const name = reference.replace(/^secret:/, '');
      return {
        name,
        hosts: service.secrets.hosts(name).map(hostText),
        from: secret?.from ?? ('nowhere' as const),
        fingerprint: secret?.fingerprint ?? null,
        usedBy,
      };
    });
  },
} satisfies Partial<Handlers>;
