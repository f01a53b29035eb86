import { insertAfter, removeElement } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import { elements } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { packageFor } from '../../../network/for-stack.js';
import type { Profile } from '../../../network/model.js';
import type { Edit } from '../../../text/edit.js';
import { folderOf, isWithin } from '../../../text/paths.js';
import { platformNames } from '../../../words/names.js';
import { maui } from '../description.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change, ChangeBase } from '../../../edits/model.js';
import { othersNeedOn } from '../../common/others-need.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, UnwireContext } from '../../stack.js';
import { feedFiles, feedState } from '../survey/feeds.js';
import type { MauiProject } from '../survey/project.js';

const head = ['<?xml version="1.0" encoding="utf-8"?>', '<configuration>', '  <packageSources>'];
const tail = ['  </packageSources>', '</configuration>'];

/** The feed of a network, in the files of all projects that need it and do not have it. */
export function wireFeed(
  tree: Tree,
  project: MauiProject,
  profile: Profile,
  base: Omit<ChangeBase, 'path'>,
): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  const { url = '', lacking = [] } = feedState(tree, project, profile) ?? {};
  const line = `<add key="${escapeXml(profile.name)}" value="${escapeXml(url)}" />`;
  const files = new Set(lacking.flatMap((path) => feedFiles(tree, folderOf(path))[0] ?? []));
  for (const path of files) {
    const steps = feedLine(tree, path, line, profile);
    changes.push(...steps.changes.map((edits): Change => ({ ...base, path, kind: 'edit', edits })));
    byHand.push(...steps.byHand);
  }
  const without = lacking.map(folderOf).filter((folder) => feedFiles(tree, folder).length === 0);
  if (without.length > 0) {
    const path = below(commonFolder(without), 'nuget.config');
    changes.push({ ...base, path, kind: 'create', content: { head, lines: [`    ${line}`], tail } });
  }
  return { changes, byHand };
}

/** The folder that holds all of some folders. */
function commonFolder(folders: readonly string[]): string {
  let common = folders[0] ?? '';
  while (common !== '' && !folders.every((folder) => folder === common || isWithin(folder, common)))
    common = folderOf(common);
  return common;
}

function feedLine(
  tree: Tree,
  path: string,
  line: string,
  profile: Profile,
): { changes: Edit[][]; byHand: ByHand[] } {
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const sources = root ? elements(root, 'packageSources')[0] : undefined;
  const last = sources && elements(sources).at(-1);
  const step = { platform: null, network: profile.id, where: path };
  if (!document || !root || !last)
    return {
      changes: [],
      byHand: [
        {
          ...step,
          rule: 'build/feed-missing',
          what: `Add ${line} to packageSources.`,
          why: `${profile.name} publishes its package only there.`,
        },
      ],
    };
  const byHand: ByHand[] =
    elements(root, 'packageSourceMapping').length > 0
      ? [
          {
            ...step,
            rule: null,
            what: `Map ${packageFor(profile, 'maui')?.package ?? ''} to ${profile.name} in packageSourceMapping.`,
            why: 'With source mapping, a package is only looked up in its mapped source.',
          },
        ]
      : [];
  return { changes: [[insertAfter(document.text, last, [line], document.lineEnd)]], byHand };
}

/** Takes the feed of a network out, where no other network publishes there. */
export function unwireFeed(
  tree: Tree,
  project: MauiProject,
  context: UnwireContext,
  base: Omit<ChangeBase, 'path'>,
): Change[] {
  const { network } = context;
  const { url, feeds = [] } = feedState(tree, project, network) ?? {};
  const isNeeded = platformNames.some((platform) =>
    othersNeedOn(context, platform, (profile) => url !== undefined && maui.needsOf(profile)?.source === url),
  );
  if (url === undefined || isNeeded) return [];
  const made = feedText(network, url);
  return feeds.flatMap(({ path, element }): Change[] => {
    const document = tree.text(path);
    if (!document || element.name !== 'add') return [];
    return document.text.replace(/\r\n/g, '\n') === made
      ? [{ ...base, path, kind: 'remove' }]
      : [{ ...base, path, kind: 'edit', edits: [removeElement(document.text, element)] }];
  });
}

/** The file as wiring makes it for one network. */
function feedText({ name }: Profile, url: string): string {
  const line = `    <add key="${escapeXml(name)}" value="${escapeXml(url)}" />`;
  return [...head, line, ...tail, ''].join('\n');
}
