import { attribute, elements } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { packageFor } from '../../../network/for-stack.js';
import type { Profile } from '../../../network/model.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf, folderOf } from '../../../text/paths.js';
import { platformNames } from '../../../words/names.js';
import { maui } from '../description.js';
import type { Tree } from '../../../tree/tree.js';
import { inEditions, type SharedFact } from '../../common/package-facts.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { itemsNaming } from './packages.js';
import { partsOf, type Part } from './parts.js';
import type { MauiProject } from './project.js';

type XmlNode = NonNullable<NonNullable<ReturnType<typeof readXml>>['root']>;

/** A place where a feed is named: in a file of NuGet, or by a property of the project. */
interface Feed {
  path: string;
  element: XmlNode;
}

/**
 * The files that say where packages of a project come from, the nearest first: those of its folder and of all above it,
 * up to one that clears what others name. Source: learn.microsoft.com, "Common NuGet configurations".
 */
export function feedFiles(tree: Tree, folder: string): string[] {
  const found: string[] = [];
  for (let at = folder; ; at = folderOf(at)) {
    const path = tree.paths.find(
      (one) => folderOf(one) === at && baseOf(one).toLowerCase() === 'nuget.config',
    );
    if (path !== undefined) found.push(path);
    const clears = path !== undefined && sections(tree, path, 'packageSources').some(isClearing);
    if (at === '' || clears) return found;
  }
}

const isClearing = (section: XmlNode): boolean => elements(section, 'clear').length > 0;

function sections(tree: Tree, path: string, name: string): XmlNode[] {
  const root = tree.read(path, readXml)?.root;
  return root ? elements(root, name) : [];
}

/** Where a feed is named for a project; a source that is switched off is none. */
function feedOf(tree: Tree, { path, build }: Part, url: string): Feed | undefined {
  const files = feedFiles(tree, folderOf(path));
  const named = (name: string) =>
    files.flatMap((file) =>
      sections(tree, file, name).flatMap((section) =>
        elements(section, 'add').map((element) => ({ path: file, element })),
      ),
    );
  const off = new Set(
    named('disabledPackageSources').flatMap(({ element }) =>
      /^true$/i.test(attribute(element, 'value')?.value ?? '')
        ? (attribute(element, 'key')?.value ?? [])
        : [],
    ),
  );
  const feed = named('packageSources').find(
    ({ element }) =>
      attribute(element, 'value')?.value === url && !off.has(attribute(element, 'key')?.value ?? ''),
  );
  if (feed) return feed;
  const property = ['RestoreSources', 'RestoreAdditionalProjectSources']
    .map((name) => build.property(name))
    .find((one) => one?.value?.split(';').some((source) => source.trim() === url));
  return property && { path: property.source.path, element: property.source.element };
}

/** The feed of a network: where it is named, and the projects that need it and do not have it. */
export interface FeedState {
  url: string;
  feeds: Feed[];
  lacking: string[];
}

/** Each project of the builds that refers to the package needs its feed; the application needs it in any case. */
export function feedState(tree: Tree, project: MauiProject, profile: Profile): FeedState | undefined {
  const url = maui.needsOf(profile)?.source;
  if (url === undefined) return undefined;
  const name = packageFor(profile, 'maui')?.package ?? '';
  const parts = new Map(
    platformNames
      .filter((platform) => project.frameworks[platform] !== undefined)
      .flatMap((platform) =>
        project.configurations.flatMap((configuration) => partsOf(tree, project, platform, configuration)),
      )
      .filter(
        ({ path, build }) => path === project.path || itemsNaming(build, 'PackageReference', name).length > 0,
      )
      .map((part) => [part.path, part]),
  );
  const states = [...parts.values()].map((part) => ({ part, feed: feedOf(tree, part, url) }));
  const lacking = states.flatMap(({ part, feed }) => (feed ? [] : [part.path]));
  const feeds = new Map(states.flatMap(({ feed }) => (feed ? [[feed.element, feed] as const] : [])));
  return { url, feeds: [...feeds.values()], lacking };
}

/** The feeds of networks that every project has which needs them. */
export function feedFacts(
  tree: Tree,
  project: MauiProject,
  editions: readonly SurveyEdition[],
  { profiles }: SurveyContext,
): Fact[] {
  const feeds = profiles.flatMap((profile): SharedFact[] => {
    const { url = '', feeds: named = [], lacking = [] } = feedState(tree, project, profile) ?? {};
    const [feed] = named;
    if (!feed || lacking.length > 0) return [];
    const place = placeAt(feed.path, tree.text(feed.path), feed.element);
    const chain = [{ what: 'package source', value: url, place }];
    const base = { network: profile.id, name: 'package source', value: url, effective: true as const };
    return [{ kind: 'repository', ...base, scope: 'feed', place, chain }];
  });
  return inEditions(feeds, editions);
}
