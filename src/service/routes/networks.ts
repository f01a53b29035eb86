import type { Router } from 'express';
import { rules } from '../../core/checks/rules/index.js';
import { answersFrom, draftProfile, ProfileAnswers } from '../../core/drafting/profile.js';
import { callNeedles } from '../../core/code/calls.js';
import { unclaimed } from '../../core/drafting/unclaimed.js';
import { platforms } from '../../core/words/words.js';
import { isWanted, unmetNeeds } from '../../core/network/unmet.js';
import { readProfile } from '../../core/network/read.js';
import { recogniser } from '../../core/network/recognise.js';
import { stacks } from '../../core/stacks/index.js';
import { runSurvey } from '../../core/surveying.js';
import type { LintAnswer, ProfileDraft } from '../../api/networks.js';
import type { CollectPlan } from '../../api/trees.js';
import type { ServiceContext } from '../context.js';
import type { ProfileShelf } from '../profiles.js';
import { faultsOf, ServiceError } from '../errors.js';
import { bind } from '../route.js';

/** Files larger than this are not looked into. */
const maxFileBytes = 16 * 1024 * 1024;

/** Folders that tools fill: nothing in them is a person's to keep true. */
const skipFolders = [
  '.git',
  '.gradle',
  '.idea',
  '.svn',
  '.hg',
  'node_modules',
  '.dart_tool',
  '.pub-cache',
  '.symlinks',
  'ephemeral',
  'build',
  'Pods',
  'Carthage',
  'DerivedData',
  'xcuserdata',
  '.build',
  '.cxx',
  '.syndexa-write',
];

/** Which files of a tree matter to the stacks, and to the networks that are known. */
export function collectPlanOf(shelf: ProfileShelf): CollectPlan {
  return {
    rules: [
      ...stacks.flatMap(({ collect }) => collect.map((rule) => ({ ...rule }))),
      ...handedOut(shelf).map((name) => ({ name })),
    ],
    folders: stacks.flatMap(({ folders }) => [...folders]),
    needles: [
      ...recogniser(shelf.profiles()).needles,
      ...callNeedles(shelf.profiles()),
      ...stacks.flatMap(({ needles }) => [...needles]),
    ],
    skipFolders: [...skipFolders],
    skipBeside: stacks.flatMap(({ fills = [] }) => fills.map((one) => ({ ...one }))),
    maxFileBytes,
  };
}

/** The names of files that networks hand out or keep: companion files, libraries, and settings of theirs. */
function handedOut(shelf: ProfileShelf): string[] {
  const files = shelf.profiles().flatMap(({ android, ios, stacks: { unity } }) => {
    const companions = [android?.companion, ios?.companion].flatMap((companion) => companion?.file ?? []);
    const binaries = [...(android?.binaries ?? []), ...(ios?.binaries ?? [])].map(({ file }) => file);
    const kept =
      unity && 'package' in unity
        ? [unity.settings?.asset, unity.native?.android?.file, unity.native?.ios?.file]
        : [];
    return [...companions, ...binaries, ...kept.flatMap((file) => file ?? [])].flatMap(
      (file) => file.split('/').pop() ?? [],
    );
  });
  return [...new Set(files)];
}

/** Network profiles, rules, and what the service wants to see of a tree. */
export function networkRoutes(router: Router, { profiles, trees, events }: ServiceContext): void {
  bind(router, 'listNetworks', () =>
    profiles.loaded().map(({ profile, shipped }) => ({
      id: profile.id,
      name: profile.name,
      about: profile.about,
      formats: Object.keys(profile.formats),
      platforms: platforms.filter((platform) => profile[platform]),
      shipped,
    })),
  );
  bind(router, 'showNetwork', ({ params }) => profiles.get(params.network ?? ''));
  bind(router, 'lintNetwork', ({ body }) => linted(body.text));
  bind(router, 'addNetwork', ({ body, response }) => {
    const { profile, problems } = readProfile(body.text);
    if (!profile)
      throw new ServiceError('invalid', 'The profile is not right.', {
        errors: faultsOf(problems),
        fix: 'Correct the fields named here; syndexa network lint FILE shows them with their lines.',
      });
    const loaded = profiles.add(profile, body.text);
    events.tell({ kind: 'roster' });
    response.status(201);
    return loaded;
  });
  bind(router, 'draftNetwork', ({ body }) => draftAnswer(draftProfile(body), []));
  bind(router, 'draftFromTree', async ({ params, body }) => {
    const { tree } = await trees.tree(params.snapshot ?? '');
    const declared = stacks.flatMap((stack) =>
      stack.recognise(tree).flatMap(({ root }) => stack.declared(tree, root)),
    );
    const groups = unclaimed(declared, profiles.profiles());
    const chosen = body.only === undefined ? groups[0] : groups.find(({ stem }) => stem === body.only);
    if (!chosen) {
      const fix =
        groups.length > 0
          ? `The tree has ${groups.map(({ stem }) => stem).join(', ')}.`
          : 'Draft one from what you know: syndexa network new --id ID --name NAME.';
      throw new ServiceError('not-found', 'The tree declares nothing of the kind that no profile claims.', {
        fix,
      });
    }
    const answers = ProfileAnswers.parse(answersFrom(chosen.stem, chosen.declared));
    return draftAnswer(
      draftProfile(answers),
      groups.filter((group) => group !== chosen),
    );
  });
  bind(router, 'tryNetwork', async ({ params, body }) => {
    const { name, tree } = await trees.tree(params.snapshot ?? '');
    const { profile, problems } = readProfile(body.text);
    if (!profile)
      return { id: null, problems: faultsOf(problems), stacks: [], facts: [], unresolved: [], unmet: [] };
    const { survey } = runSurvey(tree, { name, profiles: [profile], title: null });
    const mine = survey.facts.filter(
      ({ network, kind, name: named }) => network === profile.id || isWanted(profile, kind, named),
    );
    return {
      id: profile.id,
      problems: [],
      stacks: survey.stacks.map(({ stack, root }) => ({ stack, root })),
      facts: mine,
      unresolved: survey.unresolved.filter(({ network }) => network === profile.id),
      unmet: unmetNeeds(profile, survey),
    };
  });
  bind(router, 'listRules', () => rules.map(({ meta }) => ({ ...meta })));
  bind(router, 'collectPlan', () => collectPlanOf(profiles));
}

function linted(text: string): LintAnswer {
  const { profile, problems } = readProfile(text);
  return {
    ok: profile !== null,
    id: profile?.id ?? null,
    problems: faultsOf(problems),
    needles: profile ? [...recogniser([profile]).needles] : [],
  };
}

function draftAnswer(text: string, others: ProfileDraft['others']): ProfileDraft {
  const { profile, problems } = readProfile(text);
  return { id: profile?.id ?? '', text, problems: faultsOf(problems), others };
}
