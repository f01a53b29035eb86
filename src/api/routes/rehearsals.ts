import { RehearsalReport } from '../../core/rehearsal/report.js';
import { paths } from '../paths.js';
import { RehearsalRequest, ScenarioList } from '../rehearsals.js';
import type { RouteSpec } from './spec.js';

/** Rehearsals of ad calls. */
export const rehearsalRoutes = {
  listScenarios: { ...paths.listScenarios, summary: 'The built-in scenarios.', answer: ScenarioList },
  rehearse: {
    ...paths.rehearse,
    summary: 'Rehearses the ad calls of a snapshot against the simulated partner.',
    body: RehearsalRequest,
    answer: RehearsalReport,
    progress: true,
    faults: ['invalid', 'partner-unreachable'],
    forms: { 'application/junit+xml': 'A JUnit XML report: a case for each placement in each variant.' },
  },
} as const satisfies Record<string, RouteSpec>;
