import type { Change } from '../../../edits/model.js';
import { removeAttribute } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import { attribute, descendants, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { aboutText, toldBy, type Told } from '../../../network/directives.js';
import type { Directive } from '../../../network/needs.js';
import type { Edit } from '../../../text/edit.js';
import type { Tree } from '../../../tree/tree.js';
import type { UnwireContext } from '../../stack.js';
import { othersNeedOn } from '../others-need.js';
import { declaredMark, toldMark, toolsMark } from './directive-wiring.js';
import { elementsNamed, isTold } from './directives.js';
import { androidNamespace, toolsNamespace } from './namespaces.js';

/**
 * The merger directives that wiring wrote for one network only: elements without other content, and attributes of
 * others.
 */
export function directiveRemovals(
  context: UnwireContext & { tree: Tree },
  path: string,
): { elements: XmlElement[]; changes: (gone: ReadonlySet<XmlElement>) => Change[] } {
  const { tree, network, added } = context;
  const text = tree.text(path)?.text;
  const root = tree.read(path, readXml)?.root;
  if (text === undefined || !root) return { elements: [], changes: () => [] };
  const isShared = (about: Directive, told: Told) =>
    othersNeedOn(context, 'android', ({ android }) =>
      (android?.merge ?? []).some(
        (other) =>
          aboutText(other) === aboutText(about) &&
          toldBy(other).some(({ by, value }) => by === told.by && value === told.value),
      ),
    );
  const mine = (network.android?.merge ?? []).map((directive) => ({
    directive,
    told: toldBy(directive).filter((one) => !isShared(directive, one)),
  }));
  const whole = mine.flatMap(({ directive, told }) =>
    added.has(declaredMark(aboutText(directive))) && told.length === toldBy(directive).length
      ? elementsNamed(root, directive)
      : [],
  );
  const change = (edits: Edit[], adds: string[]): Change => ({
    path,
    platform: 'android',
    network: network.id,
    topic: 'merge',
    rules: [],
    adds,
    kind: 'edit',
    edits,
  });
  return {
    elements: whole,
    changes(gone) {
      const left = new Set([...gone, ...whole]);
      const changes = mine.flatMap(({ directive, told }) => {
        const about = aboutText(directive);
        const made = told.filter((one) => added.has(toldMark(about, one)));
        return elementsNamed(root, directive).flatMap((element): Change[] => {
          const ours = made.filter((one) => isTold(root, element, one));
          return left.has(element) || ours.length === 0
            ? []
            : [
                change(
                  untellEdits(text, root, element, ours),
                  ours.map((one) => toldMark(about, one)),
                ),
              ];
        });
      });
      const bound = boundEdits(text, root, left, changes);
      return added.has(toolsMark) && bound ? [...changes, change([bound], [toolsMark])] : changes;
    },
  };
}

function untellEdits(text: string, root: XmlElement, element: XmlElement, told: readonly Told[]): Edit[] {
  const prefix = prefixOf(root, toolsNamespace, 'tools');
  const own = prefixOf(root, androidNamespace, 'android');
  const node = told.some(({ by }) => by === 'node') ? attribute(element, `${prefix}:node`) : undefined;
  const gone = new Set(told.map(({ value }) => value.replace(/^android:/, `${own}:`)));
  const replace = attribute(element, `${prefix}:replace`);
  const items = replace?.value.split(',').map((item) => item.trim()) ?? [];
  const kept = items.filter((item) => !gone.has(item));
  return [
    ...(node ? [removeAttribute(text, node)] : []),
    ...(replace && kept.length === 0 ? [removeAttribute(text, replace)] : []),
    ...(replace && kept.length > 0 && kept.length < items.length
      ? [{ ...replace.valueSpan, text: escapeXml(kept.join(',')) }]
      : []),
  ];
}

/** The binding of the prefix, where nothing that stays uses it. */
function boundEdits(
  text: string,
  root: XmlElement,
  gone: ReadonlySet<XmlElement>,
  changes: readonly Change[],
): Edit | undefined {
  const bound = root.attributes.find(
    ({ name, value }) => name.startsWith('xmlns:') && value === toolsNamespace,
  );
  if (!bound) return undefined;
  const prefix = `${bound.name.slice('xmlns:'.length)}:`;
  const removed = changes.flatMap((change) => (change.kind === 'edit' ? change.edits : []));
  const isUsed = [...descendants(root)].some(
    (element) =>
      !gone.has(element) &&
      element.attributes.some(
        ({ name, start, end }) =>
          name.startsWith(prefix) &&
          !removed.some((edit) => edit.text === '' && edit.start <= start && end <= edit.end),
      ),
  );
  return isUsed ? undefined : removeAttribute(text, bound);
}
