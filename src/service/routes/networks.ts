import type { Router } from 'express';
import { rules } from '../../core/checks/rules/index.js';
import { readProfile } from '../../core/network/read.js';
import { recogniser } from '../../core/network/recognise.js';
import { stacks } from '../../core/stacks/index.js';
import type { CollectPlan } from '../../api/trees.js';
import type { ServiceContext } from '../context.js';
import type { LoadedProfile } from '../profiles.js';
import { ServiceError } from '../errors.js';
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
export function collectPlanOf(profiles: readonly LoadedProfile[]): CollectPlan {
  return {
    rules: stacks.flatMap(({ collect }) => collect.map((rule) => ({ ...rule }))),
    folders: stacks.flatMap(({ folders }) => [...folders]),
    needles: [...recogniser(profiles.map(({ profile }) => profile)).needles],
    skipFolders: [...skipFolders],
    maxFileBytes,
  };
}

/** Network profiles, rules, and what the service wants to see of a tree. */
export function networkRoutes(router: Router, { profiles }: ServiceContext): void {
  bind(router, 'listNetworks', () =>
    profiles.map(({ profile, shipped }) => ({
      id: profile.id,
      name: profile.name,
      about: profile.about,
      formats: Object.keys(profile.formats),
      platforms: (['android', 'ios'] as const).filter((platform) => profile[platform]),
      shipped,
    })),
  );
  bind(router, 'showNetwork', ({ params }) => {
    const found = profiles.find(({ profile }) => profile.id === params.network);
    if (found) return found;
    throw new ServiceError('not-found', `There is no profile of the network ${params.network}.`, {
      fix: `The networks are ${profiles.map(({ profile }) => profile.id).join(', ')}.`,
    });
  });
  bind(router, 'lintNetwork', ({ body }) => {
    const { profile, problems } = readProfile(body.text);
    return { ok: profile !== null, id: profile?.id ?? null, problems };
  });
  bind(router, 'listRules', () => rules.map(({ meta }) => ({ ...meta })));
  bind(router, 'collectPlan', () => collectPlanOf(profiles));
}
