import { hostText } from '../../disk/home/secret-hosts.js';
import type { Request, Response, Router } from 'express';
import { credentialUses } from '../../core/roster/credentials.js';
import { writerOf, type ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import { CollectWork } from '../partners/collect-work.js';
import type { Progress } from '../partners/partner-api.js';
import { ProvisionWork } from '../partners/provision-work.js';
import type { RosterWork } from '../roster-work.js';
import { bind } from '../route.js';
import { startEvents } from './snapshots.js';

/** What goes between the roster and the networks: provisioning, collecting, and the secrets that open them. */
export function inventoryRoutes(router: Router, context: ServiceContext, roster: RosterWork): void {
  const provisioning = new ProvisionWork(context, roster);
  const collecting = new CollectWork(context, roster);
  const writer = (request: Request) => writerOf(context, request);

  bind(router, 'provision', ({ params, body, request, response }) =>
    told(context, request, response, 'provision', (progress) =>
      provisioning.provision(params.title ?? '', body, writer(request), progress),
    ),
  );
  bind(router, 'collect', ({ params, body, request, response }) =>
    told(context, request, response, 'collect', (progress) =>
      collecting.collect(params.title ?? '', body, writer(request), progress),
    ),
  );
  bind(router, 'inventory', ({ params }) =>
    context.inventories.find(context.profiles.get(params.network ?? '').profile.id),
  );
  bind(router, 'listSecrets', () => {
    const uses = credentialUses(context.roster.roster());
    return [...uses].map(([reference, usedBy]) => {
      const secret = context.secrets.find(reference);
      const name = reference.replace(/^secret:/, '');
      return {
        name,
        hosts: context.secrets.hosts(name).map(hostText),
        from: secret?.from ?? ('nowhere' as const),
        fingerprint: secret?.fingerprint ?? null,
        usedBy,
      };
    });
  });
}

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
