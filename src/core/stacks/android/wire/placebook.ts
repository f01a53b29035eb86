import { namespaceOf } from '../survey/identifier.js';
import { needsPlacebook, placebookContents, placebookProfiles } from '../../../placebook/contents.js';
import { java } from '../../../languages/java/index.js';
import { kotlin } from '../../../languages/kotlin/index.js';
import { placebookMark, isSameGeneratedText } from '../../../languages/common/placebook.js';
import { baseOf } from '../../../text/paths.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { placebookRules } from '../../common/by-hand-steps.js';
import type { StackWiring } from '../../stack.js';
import { pluginsOf } from '../../common/gradle/scripts.js';
import { codeFiles, sourceSetFolder } from '../survey/sources.js';
import type { AndroidWireContext } from './context.js';

const platform = 'android' as const;
const topic = 'placebook' as const;

const languages = { kotlin, java } as const;
type Language = keyof typeof languages;

/** A placebook that is in a source set. */
interface ExistingPlacebook {
  path: string;
  language: Language;
  text: string;
}

/** The placebook in the language of the module: one file in each stage's source sets. */
export function wirePlacebook(context: AndroidWireContext): StackWiring {
  const { tree, model, title, sets } = context;
  const profiles = placebookProfiles(
    context.allProfiles,
    context.profiles,
    sets.flatMap(({ sourceSet }) => existingPlacebooks(context, sourceSet).map(({ text }) => text)),
  );
  if (!needsPlacebook(title, profiles, platform)) return { changes: [], byHand: [] };
  const namespace = namespaceOf(tree, model);
  if (namespace?.value == null) {
    return byHand(
      'Name the module’s namespace in its build script.',
      'The placebook needs a package.',
      model.module.script,
    );
  }
  const language = placebookLanguage(context);
  const { files, write } = languages[language].placebook;
  const packageName = `${namespace.value}.ads`;
  const changes = sets.flatMap(({ stage, sourceSet }): Change[] => {
    const all = existingPlacebooks(context, sourceSet);
    const existing = all.find((item) => item.language === language);
    const folder = `${sourceSetFolder(model, sourceSet)}/${codeFolder(context, language)}/${packageName.replace(/\./g, '/')}`;
    const ownPackage = /^package ([\w.]+);?\s*$/m.exec(existing?.text ?? '')?.[1] ?? packageName;
    const [content = ''] = write(placebookContents(title, profiles, platform, stage), {
      packageName: ownPackage,
      title: title.name,
      stage,
      revision: context.revision,
    });
    const base = { platform, network: null, topic, rules: placebookRules };
    const gone = all
      .filter((item) => item.language !== language)
      .map(({ path }): Change => ({ ...base, path, kind: 'remove' }));
    if (existing && isSameGeneratedText(existing.text, content)) return gone;
    return [...gone, { ...base, path: existing?.path ?? `${folder}/${files[0]}`, kind: 'create', content }];
  });
  return { changes, byHand: [] };
}

/** The placebooks that are in a source set, in any language. */
export function existingPlacebooks(
  { tree, model }: Pick<AndroidWireContext, 'tree' | 'model'>,
  sourceSet: string,
): ExistingPlacebook[] {
  return codeFiles(tree, model, sourceSet).flatMap((path): ExistingPlacebook[] => {
    const language = (Object.keys(languages) as Language[]).find(
      (id) => languages[id].placebook.files[0] === baseOf(path),
    );
    const text = language === undefined ? undefined : tree.text(path)?.text;
    return language !== undefined && text?.slice(0, 400).includes(placebookMark)
      ? [{ path, language, text }]
      : [];
  });
}

/** Kotlin where the module compiles it, else Java. */
export function placebookLanguage({ tree, model }: Pick<AndroidWireContext, 'tree' | 'model'>): Language {
  const { root, script } = model.module;
  const plugin = pluginsOf(tree, root, script).some((id) => /kotlin/i.test(id));
  return plugin || hasKotlinFolder({ tree, model }) ? 'kotlin' : 'java';
}

function hasKotlinFolder({ tree, model }: Pick<AndroidWireContext, 'tree' | 'model'>): boolean {
  return tree.hasFolder(`${sourceSetFolder(model, 'main')}/kotlin`);
}

/** The folder of a source set in which new code of a language is put. */
export function codeFolder(context: Pick<AndroidWireContext, 'tree' | 'model'>, language: Language): string {
  return language === 'kotlin' && hasKotlinFolder(context) ? 'kotlin' : 'java';
}

function byHand(what: string, why: string, where: string): StackWiring {
  const step: ByHand = { platform, network: null, rule: 'unit-id/not-in-build', what, why, where };
  return { changes: [], byHand: [step] };
}
