import { describe, expect, it } from 'vitest';
import { readXml } from '../../../src/core/formats/xml/read.js';
import { mergedElements, removedElements } from '../../../src/core/stacks/common/manifest/merge.js';
import type { ManifestFile } from '../../../src/core/stacks/common/manifest/model.js';

// The manifest merger, element by element: what is stronger comes last, as for `mergedElements`.

const file = (
  path: string,
  inside: string,
  more: { library?: string; application?: string } = {},
): ManifestFile => ({
  path,
  sourceSet: path,
  library: more.library !== undefined,
  document: readXml(
    `<manifest xmlns:android="http://schemas.android.com/apk/res/android" xmlns:tools="http://schemas.android.com/tools"${more.library ? ` package="${more.library}"` : ''}>\n<application ${more.application ?? ''}>\n${inside}\n</application>\n</manifest>\n`,
  ),
});
const service = (attributes: string) => `<service android:name="Ads" ${attributes} />`;
const [alpha, beta] = ['example.alpha', 'example.beta'];

/** The attributes of the merged service, and how many conflicts there are. */
function merged(...files: ManifestFile[]) {
  const [element] = mergedElements(files, 'service');
  return (
    element && {
      ...Object.fromEntries([...element.attributes].map(([name, { value }]) => [name, value])),
      conflicts: element.conflicts.map(
        ({ attribute, stronger, weaker }) => `${attribute} ${stronger.value} ${weaker.value}`,
      ),
    }
  );
}

describe('the attributes of an element', () => {
  it('are those of all manifests; of two values the stronger one stays, and the conflict is told', () => {
    const weak = file('lib', service('android:exported="true" android:process="p"'), { library: alpha });
    const strong = file('main', service('android:exported="false" android:label="l"'));
    expect(merged(weak, strong)).toEqual({
      name: 'Ads',
      exported: 'false',
      label: 'l',
      process: 'p',
      conflicts: ['exported false true'],
    });
    expect(merged(weak, file('main', service('android:exported="true"')))?.conflicts).toEqual([]);
  });

  it.each([
    ['replaced', 'tools:replace="android:exported"', { exported: 'false', conflicts: [] }],
    ['replaced, among others', 'tools:replace="label, exported"', { exported: 'false', conflicts: [] }],
    ['of another name', 'tools:replace="android:label"', { conflicts: ['exported false true'] }],
  ])('are %s', (_, directive, expected) => {
    const weak = file('lib', service('android:exported="true"'), { library: alpha });
    expect(merged(weak, file('main', service(`android:exported="false" ${directive}`)))).toMatchObject(
      expected,
    );
  });

  it('are removed', () => {
    const weak = file('lib', service('android:exported="true" android:label="l"'), { library: alpha });
    const found = merged(weak, file('main', service('tools:remove="android:exported"')));
    expect(found).toEqual({ name: 'Ads', label: 'l', conflicts: [] });
  });

  it('are directed by a manifest in the middle, too', () => {
    const [weak, middle, strong] = [
      file('lib', service('android:exported="true" android:label="l"'), { library: alpha }),
      file('main', service('tools:replace="exported" tools:remove="label"')),
      file('debug', service('android:exported="false" tools:replace="process"')),
    ];
    expect(merged(weak, middle, strong)).toEqual({ name: 'Ads', exported: 'false', conflicts: [] });
  });
});

describe('a selector', () => {
  const libraries = [alpha, beta].map((library) =>
    file(library, service('android:exported="true"'), { library }),
  );
  const directed = (directive: string) =>
    merged(...libraries, file('main', service(`android:exported="false" ${directive}`)))?.conflicts;

  it('keeps a directive to the library of that package', () => {
    expect(directed('tools:replace="exported"')).toEqual([]);
    expect(directed(`tools:replace="exported" tools:selector="${alpha}"`)).toHaveLength(1);
    expect(directed('tools:replace="exported" tools:selector="example.none"')).toHaveLength(2);
  });

  it('is that of the strongest manifest which has one', () => {
    const middle = file('main', service(`tools:selector="${beta}"`));
    const strong = (selector: string) =>
      file('debug', service(`android:exported="false" tools:replace="exported" ${selector}`));
    const [onlyAlpha] = libraries;
    expect(merged(onlyAlpha!, middle, strong(`tools:selector="${alpha}"`))?.conflicts).toEqual([]);
    expect(merged(onlyAlpha!, middle, strong(''))?.conflicts).toHaveLength(1);
  });

  it('is for libraries: a manifest of the application itself is not meant', () => {
    const own = { ...file('main', service('android:exported="true"'), { library: alpha }), library: false };
    const strong = file(
      'debug',
      service(`android:exported="false" tools:replace="exported" tools:selector="${alpha}"`),
    );
    expect(merged(own, strong)?.conflicts).toHaveLength(1);
  });

  it('keeps a removal to its library: another that declares the element brings it back', () => {
    const removing = (selector: string) => file('main', service(`tools:node="remove" ${selector}`));
    expect(merged(...libraries, removing(''))).toBe(undefined);
    expect(merged(libraries[0]!, removing(`tools:selector="${alpha}"`))).toBe(undefined);
    expect(merged(libraries[1]!, removing(`tools:selector="${alpha}"`))).toEqual({
      name: 'Ads',
      exported: 'true',
      conflicts: [],
    });
    const [element] = mergedElements([libraries[1]!, removing(`tools:selector="${alpha}"`)], 'service');
    expect(element?.sources.map((source) => source.file.path)).toEqual([beta]);
  });
});

describe('an element', () => {
  const weak = file('lib', service('android:exported="true"'), { library: alpha });

  it('is replaced as a whole, from whichever manifest says so', () => {
    expect(merged(weak, file('main', service('tools:node="replace"')))).toEqual({
      name: 'Ads',
      conflicts: [],
    });
    const strong = file('debug', service('android:label="l"'));
    expect(merged(weak, file('main', service('tools:node="replace"')), strong)).toEqual({
      name: 'Ads',
      label: 'l',
      conflicts: [],
    });
  });

  it.each([
    ['itself', service('tools:node="remove"'), '', 'tools:node="remove"'],
    ['with all of its name', '<service tools:node="removeAll" />', '', 'tools:node="removeAll"'],
    ['by an application that replaces', '', 'tools:node="replace"', 'tools:node="replace"'],
    ['by an application that removes all', '', 'tools:node="removeAll"', 'tools:node="removeAll"'],
  ])('is removed %s', (_, inside, application, directive) => {
    const files = [weak, file('main', inside, { application })];
    expect(merged(...files)).toBe(undefined);
    expect(
      removedElements(files, 'service').map(({ key, directive: by, file: { path } }) => [key, by, path]),
    ).toEqual([['Ads', directive, 'main']]);
  });

  it('stays where something weaker would remove it', () => {
    const strong = file('debug', service('android:label="l"'));
    expect(merged(file('main', '<service tools:node="removeAll" />'), strong)).toMatchObject({ label: 'l' });
    expect(merged(weak, file('main', '', { application: 'tools:node="replace"' }), strong)).toEqual({
      name: 'Ads',
      label: 'l',
      conflicts: [],
    });
  });

  it('counts once in a file, the first time', () => {
    const twice = file('main', service('android:label="a"') + service('android:label="b"'));
    expect(merged(twice)).toEqual({ name: 'Ads', label: 'a', conflicts: [] });
  });

  it('is one of its name and its place', () => {
    const two = file(
      'main',
      '<service android:name=" Ads " /><service android:name="Other" /><activity android:name="Ads" />',
    );
    expect(mergedElements([two], 'service').map(({ key }) => key)).toEqual(['Ads', 'Other']);
    expect(mergedElements([two], 'service', 'manifest')).toEqual([]);
    expect(mergedElements([two], 'application', 'manifest').map(({ key }) => key)).toEqual(['']);
  });

  it('may be written with other prefixes', () => {
    const document = readXml(
      '<manifest xmlns:a="http://schemas.android.com/apk/res/android" xmlns:t="http://schemas.android.com/tools"><application><service a:name="Ads" a:label="l" t:node="replace" /></application></manifest>',
    );
    expect(merged(weak, { ...file('main', ''), document })).toEqual({
      name: 'Ads',
      label: 'l',
      conflicts: [],
    });
  });
});
