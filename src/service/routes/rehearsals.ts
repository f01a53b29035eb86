import { rehearsalJunit } from '../../core/rehearsal/junit-report.js';
import type { Handlers } from '../route.js';
import { withProgress } from '../server-events.js';

/** Rehearsals of ad calls. */
export const rehearsalHandlers = {
  listScenarios: (_call, { rehearsing }) => rehearsing.scenarios(),
  rehearse: async ({ params, body, form, response, signal }, service) => {
    const report = await withProgress(service, { form, response, name: 'rehearsal' }, (progress) =>
      service.rehearsing.rehearse({ ...params, request: body, signal, progress }),
    );
    if (report === undefined || form !== 'application/junit+xml') return report;
    response.type('application/junit+xml').send(rehearsalJunit(report));
    return undefined;
  },
} satisfies Partial<Handlers>;
