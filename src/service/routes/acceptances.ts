import { writerOf } from '../context.js';
import { ServiceError } from '../errors.js';
import type { Handlers } from '../route.js';
import type { Service } from '../service.js';

/** Findings that somebody accepts, why, and until when. */
export const acceptanceHandlers = {
  listAccepted: ({ params }, service) => listed(service, params.title),
  accept: ({ params, body, request }, service) => {
    const { id: title } = service.roster.get(params.title);
    const { who, at } = writerOf(service, request);
    const { fingerprint, reason, until } = body;
    if (until < at.slice(0, 10))
      throw new ServiceError('invalid', `The day ${until} is past.`, {
        errors: [{ field: 'until', message: 'The day is past.' }],
        fix: 'Choose a day on which somebody will review it.',
      });
    const finding = service.trees
      .readings(title)
      .flatMap(({ findings }) => findings)
      .find((candidate) => candidate.fingerprint === fingerprint);
    if (!finding)
      throw new ServiceError('not-found', `The last readings of ${title} have no finding ${fingerprint}.`, {
        fix: `Run syndexa check DIR --title ${title}; it prints the fingerprint of each finding.`,
      });
    service.accepted.accept(title, {
      fingerprint,
      rule: finding.rule,
      message: finding.message,
      reason,
      until,
      who,
      at,
    });
    service.events.tell({ kind: 'reading', title });
    return listed(service, title);
  },
  withdraw: ({ params }, service) => {
    const { id: title } = service.roster.get(params.title);
    if (!service.accepted.withdraw(title, params.fingerprint))
      throw new ServiceError('not-found', `${params.fingerprint} is not accepted in ${title}.`, {
        fix: `syndexa accept --list --title ${title} shows what is.`,
      });
    service.events.tell({ kind: 'reading', title });
    return listed(service, title);
  },
} satisfies Partial<Handlers>;

function listed(service: Service, id: string) {
  const { id: title } = service.roster.get(id);
  return { title, acceptances: service.accepted.of(title) };
}
