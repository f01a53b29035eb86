import { hostText } from '../../disk/home/secret-hosts.js';
import type { Request, Response } from 'express';
import { credentialUses } from '../../core/roster/credentials.js';
import { writerOf, type ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import type { Progress } from '../partners/partner-api.js';
import type { Handlers } from '../route.js';
import { startEvents } from './snapshots.js';

/** What goes between the roster and the networks: provisioning, collecting, and the secrets that open them. */
export const inventoryHandlers = {
  provision: ({ params, body, request, response }, service) =>
    told(service, request, response, 'provision', (progress) =>
      service.provisioning.provision(params.title, body, writerOf(service, request), progress),
    ),
  collect: ({ params, body, request, response }, service) =>
    told(service, request, response, 'collect', (progress) =>
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

/** Answers with JSON, or with progress and then the answer when events are asked for. */
async function told<Answer>(
  context: ServiceContext,
  request: Request,
  response: Response,
  name: string,
  work: (progress: Progress) => Promise<Answer>,
): Promise<Answer | undefined> {
  if (request.headers.accept !== 'text/event-stream') return work(() => undefined);
  const send = startEvents(response, context);
  try {
    send(name, await work((step) => send('progress', step)));
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    send('problem', error.toProblem());
  }
  response.end();
  return undefined;
}
