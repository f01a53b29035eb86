import { withNames } from '../../core/checks/placeholders.js';
import { rules } from '../../core/checks/rules/index.js';
import { answersFrom, draftProfile, ProfileAnswers } from '../../core/drafting/profile.js';
import { unclaimed } from '../../core/drafting/unclaimed.js';
import { platforms } from '../../core/words/words.js';
import { isUsedBy } from '../../core/roster/used.js';
import { readProfile } from '../../core/network/read.js';
import { recogniser } from '../../core/network/recognise.js';
import type { LintAnswer, ProfileDraft } from '../../api/networks.js';
import { collectPlanOf } from '../collect-plan.js';
import { NetworkWork } from '../network-work.js';
import { faultsOf, ServiceError } from '../errors.js';
import { created, type Handlers } from '../route.js';

/** Network profiles, rules, and what the service wants to see of a tree. */
export const networkHandlers = {
  listNetworks: (_call, service) => {
    const titles = Object.entries(service.roster.roster().titles);
    return service.profiles.loaded().map(({ profile, shipped }) => ({
      id: profile.id,
      name: profile.name,
      about: profile.about,
      formats: Object.keys(profile.formats),
      platforms: platforms.filter((platform) => profile[platform]),
      shipped,
      usedBy: titles.flatMap(([id, title]) => (isUsedBy(title, profile.id) ? [id] : [])),
    }));
  },
  showNetwork: ({ params }, service) => service.profiles.get(params.network),
  lintNetwork: ({ body }) => linted(body.text),
  addNetwork: ({ body, response }, service) => {
    const loaded = new NetworkWork(service).add(body.text, body.despite);
    service.events.tell({ kind: 'roster' });
    created(response, `/networks/${loaded.profile.id}`);
    return loaded;
  },
  planNetwork: ({ body }, service) => new NetworkWork(service).plan(body.text),
  removeNetwork: ({ params }, service) => {
    const removed = new NetworkWork(service).remove(params.network);
    service.events.tell({ kind: 'roster' });
    return removed;
  },
  draftNetwork: ({ body }) => draftAnswer(draftProfile(body), { stem: null, declared: [] }, []),
  draftFromTree: async ({ params, body, signal }, service) => {
    const declared = await service.treeWork.run('declared', { ...params, title: null, signal }, undefined);
    const groups = unclaimed(declared, service.profiles.profiles());
    const chosen = body.only === undefined ? groups[0] : groups.find(({ stem }) => stem === body.only);
    if (!chosen) {
      const fix =
        groups.length > 0
          ? `The tree has ${groups.map(({ stem }) => stem).join(', ')}.`
          : 'Draft one from what you know: syndexa network new --id ID --name NAME.';
      throw new ServiceError(
        'not-found',
        groups.length > 0
          ? `The tree declares nothing of ${body.only ?? ''} that no profile explains.`
          : 'The tree declares no dependency, key or permission that no profile explains.',
        { fix },
      );
    }
    const answers = ProfileAnswers.parse(answersFrom(chosen.stem, chosen.declared));
    return draftAnswer(
      draftProfile(answers),
      chosen,
      groups.filter((group) => group !== chosen),
    );
  },
  tryNetwork: async ({ params, body, signal }, service) => {
    const { profile, problems } = readProfile(body.text);
    if (!profile)
      return { id: null, problems: faultsOf(problems), stacks: [], facts: [], unresolved: [], unmet: [] };
    const found = await service.treeWork.run('tryProfile', { ...params, title: null, signal }, { profile });
    return { id: profile.id, problems: [], ...found };
  },
  listRules: () =>
    rules.map(({ meta }) => ({
      ...meta,
      messages: Object.fromEntries(
        Object.entries(meta.messages).map(([name, text]) => [name, withNames(text)]),
      ),
    })),
  collectPlan: (_call, service) => collectPlanOf(service.profiles, service.roster, service.settings),
} satisfies Partial<Handlers>;

function linted(text: string): LintAnswer {
  const { profile, problems } = readProfile(text);
  return {
    ok: profile !== null,
    id: profile?.id ?? null,
    problems: faultsOf(problems),
    needles: profile ? [...recogniser([profile]).needles] : [],
  };
}

function draftAnswer(
  text: string,
  from: Pick<ProfileDraft, 'stem' | 'declared'>,
  others: ProfileDraft['others'],
): ProfileDraft {
  const { profile, problems } = readProfile(text);
  return {
    id: profile?.id ?? '',
    text,
    problems: faultsOf(problems),
    stem: from.stem,
    declared: from.declared,
    others,
  };
}
