import type { Profile } from './network/model.js';
import { withoutNetwork } from './roster/without.js';
import { runSurvey, type SurveyRun } from './surveying.js';
import type { Tree } from './tree/tree.js';
import { noExtras, type ByHand } from './edits/model.js';
import { brokenSteps } from './wiring/readable.js';
import { check, finish, readably, type Plan, type PlanOptions } from './planning.js';

/** What taking a network out is planned with. */
export interface UnwireOptions extends PlanOptions {
  network: Profile;
  /** What earlier wirings of this tree say they put in that others may need too. */
  added: readonly string[];
}

/**
 * Plans the edits that remove a network from a tree: what wiring would add for it, and no other network of the title
 * needs. The remains are listed as steps for a person.
 */
export function planUnwiring(
  tree: Tree,
  options: UnwireOptions,
  run: SurveyRun = runSurvey(tree, options),
): Plan {
  const { network, added } = options;
  const { title } = options.title;
  const rest = withoutNetwork(title, network.id);
  const parts = run.parts.map(({ stack, root, survey }) =>
    stack.unwire(tree, root, {
      ...run.context,
      allProfiles: run.context.profiles,
      title,
      rest,
      survey,
      network,
      added: new Set(added),
      extras: noExtras,
      revision: options.revision,
    }),
  );
  const later = { ...options, progress: undefined, title: { ...options.title, title: rest } };
  const changes = parts.flatMap((part) => part.changes);
  const { outcomes, after = runSurvey(tree, later), dropped } = readably(tree, changes, run, later);
  const steps = [...standing(after, network), ...lockSteps(run, after, network), ...brokenSteps(dropped)];
  const left = { changes: [], byHand: steps };
  const plan = finish(tree, {
    titleId: options.title.id,
    outcomes,
    findings: check(run, options),
    remaining: check(after, later).filter(({ network: about }) => about === network.id),
    parts: [...parts, left],
  });
  return { ...plan, byHand: [...plan.byHand, rosterStep(options)] };
}

/** The remains of the network, one step per file. */
function standing({ survey }: SurveyRun, network: Profile): ByHand[] {
  const places = new Map<string, { line: number; value: string; platform: 'android' | 'ios' }>();
  for (const { network: about, place, value, platform } of survey.facts)
    if (about === network.id && !places.has(place.path))
      places.set(place.path, { line: place.line, value, platform });
  return [...places].map(([path, { line, value, platform }]) => ({
    platform,
    network: network.id,
    rule: null,
    what: `Take ${value} out of ${path}.`,
    why: 'It was written by hand, so whether to remove it is your decision.',
    where: `${path}:${line}`,
  }));
}

/** A step for each lock file that still lists a package that was removed. */
function lockSteps(before: SurveyRun, after: SurveyRun, network: Profile): ByHand[] {
  const held = ({ survey }: SurveyRun) =>
    survey.facts.flatMap((fact) =>
      fact.kind === 'resolved-version' && fact.network === network.id && fact.state === 'locked'
        ? [fact]
        : [],
    );
  const still = new Set(held(after).map(({ place }) => place.path));
  const files = new Map(held(before).map((fact) => [fact.place.path, fact]));
  return [...files.values()]
    .filter(({ place }) => !still.has(place.path))
    .map(({ name, lock, place }) => ({
      platform: null,
      network: network.id,
      rule: null,
      what: 'Install the packages again, and commit the new lock file.',
      why: `${lock} still lists ${name}; only the package manager changes its lock file.`,
      where: `${place.path}:${place.line}`,
    }));
}

function rosterStep({ title, network }: UnwireOptions): ByHand {
  return {
    platform: null,
    network: network.id,
    rule: null,
    what: `Take ${network.name} out of the roster of ${title.id} too.`,
    why: 'The roster still says that the title uses it, so the next wiring would add it again.',
    where: `syndexa roster export, then without networks.${network.id} and its units: syndexa roster import`,
  };
}
