import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import { attribute, descendants, elements, prefixOf } from '../../../formats/xml/query.js';
import { aboutText, toldBy, toldText, type Told } from '../../../network/directives.js';
import type { Directive } from '../../../network/needs.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { Tree } from '../../../tree/tree.js';
import { className } from './declared-facts.js';
import type { ManifestBuild } from './model.js';
import { androidNamespace, toolsNamespace } from './namespaces.js';

/** The elements of a manifest that a directive applies to. */
export function elementsOf(
  root: XmlElement,
  { element, name }: Pick<Directive, 'element' | 'name'>,
  namespace: string | null,
): XmlElement[] {
  const applications = elements(root, 'application');
  if (element === 'application') return applications;
  const key = `${prefixOf(root, androidNamespace, 'android')}:name`;
  const found =
    element === 'uses-permission'
      ? elements(root, element)
      : element === 'meta-data'
        ? [...descendants(root)].filter((one) => one.name === element)
        : applications.flatMap((application) => elements(application, element));
  const isClass = element !== 'uses-permission' && element !== 'meta-data';
  return found.filter((one) => {
    const written = attribute(one, key)?.value.trim();
    return written !== undefined && (isClass ? className(written, namespace) : written) === name;
  });
}

/** The elements that a directive applies to, whether their class names are written short or in full. */
export function elementsNamed(root: XmlElement, about: Pick<Directive, 'element' | 'name'>): XmlElement[] {
  const { name } = about;
  const names = name === undefined ? [undefined] : new Set([name, name.replace(/^.*(?=\.)/, '')]);
  return [...names].flatMap((one) => elementsOf(root, { ...about, name: one }, null));
}

/** Whether an element has a directive. */
export function isTold(root: XmlElement, element: XmlElement, { by, value }: Told): boolean {
  const prefix = prefixOf(root, toolsNamespace, 'tools');
  const written = attribute(element, `${prefix}:${by}`)?.value ?? '';
  if (by === 'node') return written.trim() === value;
  const own = value.replace(/^android:/, `${prefixOf(root, androidNamespace, 'android')}:`);
  return written.split(',').some((item) => item.trim() === own);
}

/** Whether a directive applies to an element. `tools:replace` only does where the element sets the attribute. */
function concerns(root: XmlElement, element: XmlElement, { by, value }: Told): boolean {
  const prefix = prefixOf(root, androidNamespace, 'android');
  return by === 'node' || attribute(element, value.replace(/^android:/, `${prefix}:`)) !== undefined;
}

/** Facts for the directives that profiles require: where the app's manifests have them, and where they lack them. */
export function directiveFacts(tree: Tree, build: ManifestBuild, { profiles }: SurveyContext): Fact[] {
  const { files, module, variant, namespace } = build;
  const own = files.filter(({ library }) => !library);
  return profiles.flatMap(({ id, android }) =>
    (android?.merge ?? []).flatMap((directive) =>
      toldBy(directive).flatMap((told): Fact[] => {
        const stands = own.flatMap((file) => {
          const { root } = file.document;
          if (!root) return [];
          return elementsOf(root, directive, namespace)
            .filter((element) => concerns(root, element, told))
            .map((element) => ({ file, element, given: isTold(root, element, told) }));
        });
        // One manifest with the directive is enough; the strongest one is shown.
        const chosen = stands.findLast(({ given }) => given) ?? stands.at(-1);
        if (!chosen) return [];
        const { file, element, given } = chosen;
        const place = placeAt(file.path, tree.text(file.path), element);
        const value = toldText(told);
        const chain: ChainStep[] = [
          { what: `manifest of ${file.sourceSet}`, value: given ? value : null, place },
        ];
        const base = { platform: 'android' as const, module, variants: [variant], effective: true as const };
        const about = { network: id, name: aboutText(directive), value, given };
        return [{ ...base, kind: 'merge-directive', ...about, place, chain }];
      }),
    ),
  );
}
