import { junitDocument, type JunitCase } from '../standards/junit.js';
import { printableValue } from '../text/printable.js';
import { isRight, type RehearsalReport } from './report.js';
import { verdictText } from './words.js';

/** A rehearsal as JUnit XML: a suite per variant, a case per placement, and one for each finding. */
export function rehearsalJunit(report: RehearsalReport): string {
  const { runs, findings, scenario, seed } = printableValue(report);
  const cases = runs.flatMap(({ platform, variant, stage, placements }) =>
    placements.map(({ placement, verdict }): JunitCase => {
      const message = verdictText(verdict, stage);
      const text = `${scenario}, seed ${seed}`;
      return {
        suite: `${platform} ${variant}`,
        name: placement,
        ...(isRight(verdict, stage) ? {} : { failure: { type: verdict.is, message, text } }),
      };
    }),
  );
  const found = findings.map(({ rule, message, mend, place, severity, fingerprint }): JunitCase => ({
    suite: 'findings',
    name: `${rule} (${fingerprint})`,
    file: place ? { path: place.path, line: place.line } : undefined,
    failure: { type: severity, message, text: mend },
  }));
  return junitDocument([...cases, ...found]);
}
