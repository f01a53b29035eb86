import { needsPlacebook, placebookContents } from '../../placebook/contents.js';
import { kotlinPlacebook } from '../../placebook/kotlin.js';
import { placebookMark } from '../../placebook/model.js';
import { baseOf } from '../../tree/paths.js';
import type { ByHand, Change } from '../../wiring/model.js';
import { placebookRules } from '../../wiring/steps.js';
import type { StackWiring } from '../stack.js';
import { pluginsOf } from './scripts.js';
import { codeFiles, sourceSetFolder } from './sources.js';
import { moduleSetting } from './variants.js';
import type { AndroidWireContext } from './wire-context.js';

const platform = 'android' as const;

/** The Kotlin placebook: one file in each stage's source sets. */
export function wirePlacebook(context: AndroidWireContext): StackWiring {
  const { tree, model, title, profiles, sets } = context;
  if (!needsPlacebook(title, profiles, platform)) return { changes: [], byHand: [] };
  const resolved = moduleSetting(model, ['namespace', 'setNamespace']);
  if (resolved?.value == null) {
    return byHand(
      'Name the module’s namespace in its build script.',
      'The placebook needs a package to stand in.',
      model.module.script,
    );
  }
  const kotlin = pluginsOf(tree, model.module.root, model.module.script).some((plugin) =>
    /kotlin/i.test(plugin),
  );
  const kotlinFolder = tree.hasFolder(`${sourceSetFolder(model, 'main')}/kotlin`);
  if (!kotlin && !kotlinFolder) {
    return byHand(
      'Apply the Kotlin plugin in this module, then wire again.',
      'The placebook is written in Kotlin, and this module compiles none.',
      model.module.script,
    );
  }
  const packageName = `${resolved.value}.ads`;
  const changes = sets.flatMap(({ stage, sourceSet }): Change[] => {
    const standing = codeFiles(tree, model, sourceSet).find(
      (path) =>
        baseOf(path) === 'Placebook.kt' && tree.text(path)?.text.slice(0, 400).includes(placebookMark),
    );
    const folder = `${sourceSetFolder(model, sourceSet)}/${kotlinFolder ? 'kotlin' : 'java'}/${packageName.replace(/\./g, '/')}`;
    const existing = standing ? tree.text(standing) : undefined;
    const ownPackage = /^package ([\w.]+)$/m.exec(existing?.text ?? '')?.[1] ?? packageName;
    const content = kotlinPlacebook(placebookContents(title, profiles, platform, stage), {
      packageName: ownPackage,
      title: title.name,
      stage,
    });
    if (existing?.text.replace(/\r\n/g, '\n') === content) return [];
    return [
      { path: standing ?? `${folder}/Placebook.kt`, platform, network: null, rules: placebookRules, content },
    ];
  });
  return { changes, byHand: [] };
}

function byHand(what: string, why: string, where: string): StackWiring {
  const step: ByHand = { platform, network: null, rule: 'unit-id/not-in-build', what, why, where };
  return { changes: [], byHand: [step] };
}
