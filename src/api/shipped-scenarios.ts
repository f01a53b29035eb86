import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Scenario } from '../core/rehearsal/scenario/model.js';
import { readScenario } from '../core/rehearsal/scenario/read.js';

/** A scenario that ships, with the name that it is chosen by. */
export interface ShippedScenario {
  id: string;
  scenario: Scenario;
  source: string;
}

/** The scenarios that ship: beside the build, or in the sources. */
export function shippedScenarios(): ShippedScenario[] {
  const here = dirname(fileURLToPath(import.meta.url));
  const folders = [join(here, '..', 'scenarios'), join(here, '..', '..', 'scenarios')];
  const folder = folders.find((path) => existsSync(path));
  if (folder === undefined) throw new Error('The scenarios are missing. Run npm run build.');
  return readdirSync(folder)
    .filter((name) => name.endsWith('.yaml'))
    .sort()
    .map((name) => {
      const source = readFileSync(join(folder, name), 'utf8');
      const { scenario, problems } = readScenario(source);
      if (!scenario) throw new Error(`The scenario ${name} has faults: ${JSON.stringify(problems)}`);
      return { id: name.replace(/\.yaml$/, ''), scenario, source };
    });
}
