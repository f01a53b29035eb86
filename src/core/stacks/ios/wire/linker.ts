import { appendItem, setPbxString } from '../../../formats/pbxproj/edit.js';
import { entryOf } from '../../../formats/pbxproj/read.js';
import { readXcconfig } from '../../../formats/xcconfig/read.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { settingOf } from '../survey/settings.js';
import type { IosWireContext, StagedVariant } from './context.js';
import { settingChanges } from './settings.js';
import { byPods } from './sdk.js';

const key = 'OTHER_LDFLAGS';

/** Linker flags that enrolled networks need; an install of pods sets them by itself. */
export function wireLinkerFlags(context: IosWireContext): StackWiring {
  const { tree, title, profiles, variants, model } = context;
  const changes: Change[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'ios'))) {
    if (byPods(context, profile)) continue;
    for (const { flag } of profile.ios?.['linker-flags'] ?? []) {
      const given = {
        network: profile.id,
        topic: 'linker' as const,
        rules: ['plist/linker-flag-missing'],
        adds: [`linker flag ${flag}`],
      };
      const values = new Map<StagedVariant, string>();
      for (const variant of variants) {
        const flags = (settingOf(variant.scope, key)?.value ?? '').split(/\s+/);
        if (flags.includes(flag)) continue;
        const document = tree.text(model.project.path);
        const own = entryOf(variant.scope.own.settings ?? undefined, key)?.value;
        if (own?.type === 'list' && document) {
          changes.push({
            ...given,
            platform: 'ios',
            path: model.project.path,
            variants: [variant.name],
            kind: 'edit',
            edits: [appendItem(document.text, own, flag, document.lineEnd)],
          });
        } else if (own?.type === 'string' && document && variant.scope.own.settings) {
          changes.push({
            ...given,
            platform: 'ios',
            path: model.project.path,
            variants: [variant.name],
            kind: 'edit',
            edits: setPbxString(
              document.text,
              variant.scope.own.settings,
              key,
              `${own.value} ${flag}`.trim(),
              document.lineEnd,
            ),
          });
        } else values.set(variant, `${inBaseFile(context, variant) ?? '$(inherited)'} ${flag}`);
      }
      changes.push(...settingChanges(context, key, values, given));
    }
  }
  return { changes, byHand: [] };
}

/** What the base configuration file of a variant says already. */
function inBaseFile({ tree }: IosWireContext, { scope }: StagedVariant): string | undefined {
  const { base } = scope.own;
  const file = base === null ? undefined : tree.read(base, readXcconfig);
  return file?.settings.filter((setting) => setting.key === key).at(-1)?.value;
}
