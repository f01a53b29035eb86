import { rehearsalJunit } from '../../core/rehearsal/junit-report.js';
import type { Handlers } from '../route.js';

/** Rehearsals of ad calls. */
export const rehearsalHandlers = {
  listScenarios: (_call, { rehearsing }) => rehearsing.scenarios(),
  rehearse: async ({ params, body, form, response, signal }, { rehearsing }) => {
    const report = await rehearsing.rehearse({ snapshot: params.snapshot, request: body, signal });
    if (form !== 'application/junit+xml') return report;
    response.type('application/junit+xml').send(rehearsalJunit(report));
    return undefined;
  },
} satisfies Partial<Handlers>;
