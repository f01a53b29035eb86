import { namespaceOf } from '../survey/identifier.js';
import { attribute, elements, prefixOf } from '../../../formats/xml/query.js';
import { setAttribute } from '../../../formats/xml/edit.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Profile } from '../../../network/model.js';
import { languageNamed } from '../../../languages/index.js';
import { isEnrolled } from '../../../roster/expected.js';
import { pascalCase } from '../../../languages/common/placebook.js';
import type { ByHand, Change, EditChange } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { androidNamespace } from '../../common/manifest/namespaces.js';
import { codeFiles, manifestPath, sourceSetFolder } from '../survey/sources.js';
import { codeFolder, placebookLanguage } from './placebook.js';
import type { AndroidWireContext } from './context.js';

/** Stands at the top of an application class that wiring made. */
const applicationMark = 'Application class written by Syndexa';

const platform = 'android' as const;

/**
 * The application class that networks want, and in which their SDKs are started. One that the tree has and
 * does not declare is declared; where there is none it is made, declared, and starts what nothing starts yet.
 */
export function wireApplication(context: AndroidWireContext): StackWiring {
  const asking = openNetworks(context);
  if (asking.length === 0) return { changes: [], byHand: [] };
  const { tree, model } = context;
  const path = manifestPath(model, 'main');
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const namespace = namespaceOf(tree, model)?.value ?? null;
  if (!document || !application || namespace === null) return { changes: [], byHand: [] };
  const prefix = prefixOf(root, androidNamespace, 'android');
  const declared = attribute(application, `${prefix}:name`)?.value;
  const made = madeClass(context);
  // A network's own class may be exchanged for one that extends it.
  const ofNetwork = context.allProfiles.some(({ android }) => android?.application?.class === declared);
  const own =
    declared !== undefined &&
    !ofNetwork &&
    (made === undefined || made.name !== fullName(declared, namespace));
  if (own) return { changes: [], byHand: asking.flatMap((item) => byHandFor(context, item, declared)) };
  const undeclared = made ? undefined : undeclaredClass(context);
  if (undeclared) {
    const steps = asking.flatMap((item) => byHandFor(context, item, undeclared));
    return { changes: [declaration(context, undeclared)].flatMap((change) => change ?? []), byHand: steps };
  }
  const wanted = wantedClass(context, asking, namespace);
  if (!wanted) return { changes: [], byHand: asking.flatMap((item) => byHandFor(context, item, null)) };
  const written: Change[] =
    wanted.file && wanted.file.content !== made?.text ? [{ ...base, kind: 'create', ...wanted.file }] : [];
  const declare = declaration(context, wanted.name);
  return { changes: [...written, ...(declare?.edits.length ? [declare] : [])], byHand: [] };
}

const base = {
  platform,
  topic: 'application' as const,
  network: null,
  rules: ['manifest/application-class-missing', 'code/never-started'],
};

/** Gives the application element of the main manifest a class. */
export function declaration(
  { tree, model }: Pick<AndroidWireContext, 'tree' | 'model'>,
  name: string,
): EditChange | undefined {
  const path = manifestPath(model, 'main');
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const namespace = namespaceOf(tree, model)?.value ?? null;
  if (!application) return undefined;
  const prefix = prefixOf(root, androidNamespace, 'android');
  const short = namespace === null ? name : shortName(name, namespace);
  return {
    ...base,
    path,
    kind: 'edit',
    edits: setAttribute(application, `${prefix}:name`, short, tree.text(path)?.text),
  };
}

/** The class that serves all who ask: a network's own when it alone asks for no more, else one that is made. */
export function wantedClass(
  context: AndroidWireContext,
  asking: readonly Asking[],
  namespace: string,
): { name: string; file?: { path: string; content: string } } | undefined {
  const [only] = asking;
  if (asking.length === 1 && only && !only.start && only.extend !== undefined) return { name: only.extend };
  const made = generatedClass(context, asking, namespace, madeClass(context)?.path);
  return made && { name: made.name, file: { path: made.path, content: made.content } };
}

/** What a network asks of the application class. */
interface Asking {
  profile: Profile;
  /** The class that has to be extended. */
  extend: string | undefined;
  /** Whether its start-up call belongs there, and nothing else calls it. */
  start: boolean;
  /** Whether its requirement is not met yet. */
  open: boolean;
}

/** Networks that ask for something, when one of those to wire does not have it yet. */
function openNetworks(context: AndroidWireContext): Asking[] {
  const mine = askingNetworks(context).filter(
    ({ open, profile }) => !open || context.profiles.includes(profile),
  );
  return mine.some(({ open }) => open) ? mine : [];
}

/** Networks that ask for something, those included that the class which wiring made serves already. */
export function askingNetworks(context: AndroidWireContext): Asking[] {
  const { title, allProfiles, survey, edition } = context;
  const language = placebookLanguage(context);
  const module = context.edition.module;
  const made = madeClass(context);
  const mine = survey.facts.filter((fact) => fact.module === module);
  return allProfiles
    .filter(({ id }) => isEnrolled(title, id, platform))
    .flatMap((profile): Asking[] => {
      const start = profile.code[language]?.start;
      const calls = mine.filter(
        (fact) => fact.kind === 'call' && fact.network === profile.id && fact.action === 'start',
      );
      const ownCall = calls.filter(({ place }) => place.path === made?.path);
      const started = edition.variants.every(({ name }) =>
        calls.some(({ variants }) => variants.includes(name)),
      );
      const extend = profile.android?.application?.class;
      const known = mine.filter(({ kind }) => kind === 'application-class');
      const extended = known.some((fact) => fact.network === profile.id);
      const starts = start?.in === 'application' && (!started || ownCall.length > 0);
      const open = (extend !== undefined && !extended) || (start?.in === 'application' && !started);
      return extend !== undefined || starts ? [{ profile, extend, start: starts, open }] : [];
    });
}

/** The application class that an earlier wiring made. */
export function madeClass({
  tree,
  model,
}: Pick<AndroidWireContext, 'tree' | 'model'>): { path: string; name: string; text: string } | undefined {
  for (const path of codeFiles(tree, model, 'main')) {
    const text = tree.text(path)?.text;
    if (!text?.slice(0, 400).includes(applicationMark)) continue;
    const pack = /^package ([\w.]+);?\s*$/m.exec(text)?.[1];
    const name = /^(?:public )?class (\w+)/m.exec(text)?.[1];
    if (pack !== undefined && name !== undefined) return { path, name: `${pack}.${name}`, text };
  }
  return undefined;
}

/** A class of the tree that extends the system's application class, and that no manifest declares. */
function undeclaredClass({ tree, model }: AndroidWireContext): string | undefined {
  for (const path of codeFiles(tree, model, 'main')) {
    const text = tree.text(path)?.text ?? '';
    const name =
      /\bclass (\w+)\s*:\s*(?:android\.app\.)?Application\s*\(\)/.exec(text)?.[1] ??
      /\bclass (\w+) extends (?:android\.app\.)?Application\b/.exec(text)?.[1];
    const pack = /^[ \t]*package ([\w.]+)/m.exec(text)?.[1];
    if (name !== undefined && pack !== undefined) return `${pack}.${name}`;
  }
  return undefined;
}

/** `.App` and `App` belong to the module's namespace. */
export function fullName(written: string, namespace: string): string {
  if (written.includes('.') && !written.startsWith('.')) return written;
  return `${namespace}.${written.replace(/^\./, '')}`;
}

/** A class of the module's own namespace by its short name. */
function shortName(name: string, namespace: string): string {
  return name.startsWith(`${namespace}.`) ? name.slice(namespace.length) : name;
}

function generatedClass(
  context: AndroidWireContext,
  asking: readonly Asking[],
  namespace: string,
  existing: string | undefined,
): { path: string; name: string; content: string } | undefined {
  const { model, title } = context;
  const language = placebookLanguage(context);
  const bases = new Set(asking.flatMap(({ extend }) => extend ?? []));
  // A class has one class above it: two networks that each want theirs cannot both be served.
  if (bases.size > 1) return undefined;
  const [above = 'android.app.Application'] = bases;
  const name = `${pascalCase(
    title.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'title',
  )}Application`;
  const packageName = `${namespace}.ads`;
  const starting = asking.filter(({ start }) => start);
  const calls = starting.flatMap(({ profile }) => {
    const start = profile.code[language]?.start;
    return start
      ? [start.example.replaceAll('APP_ID', languageNamed(language).reference.app(profile.id))]
      : [];
  });
  const imports = [above, ...starting.flatMap(({ profile }) => profile.code[language]?.imports ?? [])];
  const end = language === 'java' ? ';' : '';
  const content = [
    `// ${applicationMark}: it starts the SDKs that are started nowhere else.`,
    '',
    `package ${packageName}${end}`,
    '',
    ...[...new Set(imports)].sort().map((item) => `import ${item}${end}`),
    '',
    ...classLines(language, name, above.split('.').at(-1) ?? above, calls),
    '',
  ].join('\n');
  const folder = `${sourceSetFolder(model, 'main')}/${codeFolder(context, language)}/${packageName.replace(/\./g, '/')}`;
  const path = existing ?? `${folder}/${name}.${language === 'kotlin' ? 'kt' : 'java'}`;
  return { path, name: `${packageName}.${name}`, content };
}

function classLines(
  language: 'kotlin' | 'java',
  name: string,
  base: string,
  calls: readonly string[],
): string[] {
  const body = calls.map((call) => `        ${call}`);
  if (language === 'kotlin')
    return [
      `class ${name} : ${base}() {`,
      '    override fun onCreate() {',
      '        super.onCreate()',
      ...body,
      '    }',
      '}',
    ];
  return [
    `public class ${name} extends ${base} {`,
    '    @Override',
    '    public void onCreate() {',
    '        super.onCreate();',
    ...body,
    '    }',
    '}',
  ];
}

/** What a person has to do in an application class of the tree's own. */
function byHandFor(
  context: AndroidWireContext,
  { profile, extend, start }: Asking,
  own: string | null,
): ByHand[] {
  const language = placebookLanguage(context);
  const where = own ?? manifestPath(context.model, 'main');
  const base = { platform, network: profile.id, where };
  const call = profile.code[language]?.start;
  const extended = context.survey.facts.some(
    (fact) => fact.kind === 'application-class' && fact.network === profile.id,
  );
  return [
    ...(extend === undefined || extended
      ? []
      : [
          {
            ...base,
            rule: 'manifest/application-class-missing',
            what:
              own === null
                ? `Let one application class serve ${extend} too.`
                : `Let ${own} extend ${extend}.`,
            why: profile.android?.application?.why ?? '',
          },
        ]),
    ...(start && call
      ? [
          {
            ...base,
            rule: 'code/never-started',
            what: `Start it in onCreate: ${call.example.replaceAll('APP_ID', languageNamed(language).reference.app(profile.id))}`,
            why: call.why,
          },
        ]
      : []),
  ];
}
