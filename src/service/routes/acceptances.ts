import type { Router } from 'express';
import { writerOf, type ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import { bind } from '../route.js';

/** Findings that somebody accepts, why, and until when. */
export function acceptanceRoutes(router: Router, context: ServiceContext): void {
  const { trees, roster, events } = context;
  const listed = (id: string) => {
    const { id: title } = roster.get(id);
    return { title, acceptances: trees.acceptances(title) };
  };
  bind(router, 'listAccepted', ({ params }) => listed(params.title ?? ''));
  bind(router, 'accept', ({ params, body, request }) => {
    const { id: title } = roster.get(params.title ?? '');
    const { who, at } = writerOf(context, request);
    const { fingerprint, reason, until } = body;
    if (until < at.slice(0, 10))
      throw new ServiceError('invalid', `The day ${until} is past.`, {
        errors: [{ field: 'until', message: 'The day is past.' }],
        fix: 'Name a day on which somebody will look at it again.',
      });
    const finding = trees
      .readings(title)
      .flatMap(({ findings }) => findings)
      .find((candidate) => candidate.fingerprint === fingerprint);
    if (!finding)
      throw new ServiceError('not-found', `The last readings of ${title} have no finding ${fingerprint}.`, {
        fix: `Run syndexa check DIR --title ${title}; it prints the fingerprint of each finding.`,
      });
    trees.accept(title, {
      fingerprint,
      rule: finding.rule,
      message: finding.message,
      reason,
      until,
      who,
      at,
    });
    events.tell({ kind: 'reading', title });
    return listed(title);
  });
  bind(router, 'withdraw', ({ params }) => {
    const { id: title } = roster.get(params.title ?? '');
    if (!trees.withdraw(title, params.fingerprint ?? ''))
      throw new ServiceError('not-found', `${params.fingerprint} is not accepted in ${title}.`, {
        fix: `syndexa accept --list --title ${title} shows what is.`,
      });
    events.tell({ kind: 'reading', title });
    return listed(title);
  });
}
