import { removeGroup, setGroup, type LabelledGroup } from '../../../formats/msbuild/edit.js';
import { readMsBuild } from '../../../formats/msbuild/read.js';
import { profileFor } from '../../../network/for-stack.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import type { Tree } from '../../../tree/tree.js';
import type { Change, ChangeBase } from '../../../edits/model.js';
import { titleEditions } from '../../common/joint-wiring.js';
import { othersNeedOn } from '../../common/others-need.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import type { MauiProject } from '../survey/project.js';

/** Conditions that hold for one platform alone. */
export const isAndroid = "$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'android'";
export const isIos = "$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'ios'";

/** A group of the project file, as a change. */
export function groupChange(
  tree: Tree,
  { path }: Pick<MauiProject, 'path'>,
  group: LabelledGroup,
  base: Omit<ChangeBase, 'path'>,
): Change[] {
  const document = tree.text(path);
  const file = tree.read(path, readMsBuild);
  if (!document || !file) return [];
  const edits = setGroup(document.text, file, group, document.lineEnd);
  return edits.length === 0 ? [] : [{ ...base, path, kind: 'edit', edits }];
}

/** Takes a group with a label out of the project file. */
export function groupRemoval(tree: Tree, { path }: Pick<MauiProject, 'path'>, label: string): Edit[] {
  const document = tree.text(path);
  const file = tree.read(path, readMsBuild);
  return document && file ? removeGroup(document.text, file, label) : [];
}

const linkerLabel = (flag: string): string => `Ads, linker flag ${flag}`;

/** Linker flags that networks need on iOS. */
export function wireLinker(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const edition = titleEditions(context).find(({ platform }) => platform === 'ios');
  if (!edition) return { changes: [], byHand: [] };
  const changes = context.profiles.flatMap((profile) => {
    if (!isEnrolled(context.title, profile.id, 'ios')) return [];
    const flags = profileFor(profile, 'maui').ios?.['linker-flags'] ?? [];
    return flags.flatMap(({ flag }) => {
      const isThere = edition.variants.every(({ name }) =>
        context.survey.facts.some(
          (fact) =>
            fact.kind === 'linker-flag' &&
            fact.value === flag &&
            fact.module === edition.module &&
            fact.variants.includes(name),
        ),
      );
      if (isThere) return [];
      const entries = [`<MtouchExtraArgs>$(MtouchExtraArgs) --gcc_flags=${flag}</MtouchExtraArgs>`];
      const group: LabelledGroup = {
        kind: 'PropertyGroup',
        label: linkerLabel(flag),
        condition: isIos,
        entries,
      };
      return groupChange(tree, project, group, {
        platform: 'ios',
        network: profile.id,
        topic: 'linker',
        rules: ['plist/linker-flag-missing'],
      });
    });
  });
  return { changes, byHand: [] };
}

export function unwireLinker(tree: Tree, project: MauiProject, context: UnwireContext): Change[] {
  const flags = context.network.ios?.['linker-flags'] ?? [];
  return flags.flatMap(({ flag }): Change[] => {
    const isShared = othersNeedOn(context, 'ios', (other) =>
      (profileFor(other, 'maui').ios?.['linker-flags'] ?? []).some((one) => one.flag === flag),
    );
    const edits = isShared ? [] : groupRemoval(tree, project, linkerLabel(flag));
    return edits.length === 0
      ? []
      : [
          {
            path: project.path,
            platform: 'ios',
            network: context.network.id,
            topic: 'linker',
            rules: [],
            kind: 'edit',
            edits,
          },
        ];
  });
}
