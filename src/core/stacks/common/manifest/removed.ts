import { elements, prefixOf } from '../../../formats/xml/query.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import type { Profile } from '../../../network/model.js';
import type { ByHand } from '../../../edits/model.js';
import type { Fact } from '../../../facts/model.js';
import { androidNamespace } from './namespaces.js';

/**
 * What an edition lacks and wiring can write, and what a directive removes, which writing it once more would not
 * change.
 */
export function lackingIn(
  variants: readonly { name: string }[],
  facts: readonly Fact[],
): { isLacking: boolean; removals: Fact[] } {
  const lacking = variants.filter(
    ({ name }) => !facts.some((fact) => fact.effective === true && fact.variants.includes(name)),
  );
  const removals = facts.filter((fact) => fact.effective !== true && fact.effective.reason === 'removed');
  const left = lacking.filter(({ name }) => !removals.some((fact) => fact.variants.includes(name)));
  return { isLacking: left.length > 0, removals };
}

/** Whether a manifest declares an element with a name already. */
export function declares(root: XmlElement, parent: XmlElement, element: string, name: string): boolean {
  const attribute = `${prefixOf(root, androidNamespace, 'android')}:name`;
  return elements(parent, element).some(({ attributes }) =>
    attributes.some((one) => one.name === attribute && one.value.trim() === name),
  );
}

/** The steps for directives that remove what a network needs, once per place. */
export function removalSteps(
  { id, name: network }: Profile,
  rule: string,
  removals: readonly Fact[],
): ByHand[] {
  const seen = new Set<string>();
  return removals.flatMap(({ place, value, effective }): ByHand[] => {
    const where = `${place.path}:${place.line}`;
    if (seen.has(where) || effective === true) return [];
    seen.add(where);
    return [
      {
        platform: 'android',
        network: id,
        rule,
        what: `Take ${effective.about ?? 'the directive'} of ${value} out, or accept the finding if these variants do not need it.`,
        why: `${network} needs ${value}, but this directive removes it from the merged manifest, whatever other manifests declare.`,
        where,
      },
    ];
  });
}
