import { valueAt } from '../../../text/own-values.js';
import { descendants } from '../../../formats/xml/query.js';
import { escapeXml } from '../../../text/escape-xml.js';
import { readXml } from '../../../formats/xml/read.js';
import { expectedIds } from '../../../roster/expected.js';
import type { Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { qualifiedFiles } from '../survey/sources.js';
import type { AndroidWireContext } from './context.js';
import { stringChanges, type WantedString } from './strings.js';

const platform = 'android' as const;
/** Rules whose findings are fixed by a resource per stage. */
const rules = [
  'stage/test-id-in-production',
  'stage/production-id-in-test',
  'unit-id/wrong-platform',
  'unit-id/app-id-in-place',
  'code/hard-coded-id',
];

/** Unit IDs that are in layouts and that the roster knows: they become references to a string of each stage. */
export function wireLayouts(context: AndroidWireContext): StackWiring {
  const { tree, model, profiles, title } = context;
  const changes: Change[] = [];
  const wanted = new Map<string, WantedString>();
  const sourceSets = new Set(model.variants.flatMap((variant) => variant.sourceSets));
  for (const profile of profiles) {
    const attributes = new Set((profile.android?.views ?? []).flatMap(({ unit }) => unit ?? []));
    if (attributes.size === 0) continue;
    const classes = new Set((profile.android?.views ?? []).map((view) => view.class));
    for (const sourceSet of sourceSets) {
      for (const { path } of qualifiedFiles(tree, model, sourceSet, 'layout')) {
        const root = tree.read(path, readXml)?.root;
        for (const element of root ? descendants(root) : []) {
          if (!classes.has(element.name)) continue;
          for (const { name, value, valueSpan } of element.attributes) {
            const plain = name.split(':').at(-1) ?? name;
            const placement = attributes.has(plain) ? holderOf(context, profile.id, value.trim()) : undefined;
            if (placement === undefined) continue;
            const expected = expectedIds(title, [profile], platform).filter(
              (item) => item.placement === placement,
            );
            if (expected.length < 2 || expected.some(({ id }) => id === undefined)) continue;
            const resource = `${profile.id}_${placement}`.replace(/-/g, '_');
            wanted.set(resource, {
              network: profile.id,
              topic: 'layouts',
              rules,
              name: resource,
              ids: new Map(expected.map(({ stage, id }) => [stage, id ?? ''])),
            });
            changes.push({
              path,
              platform,
              network: profile.id,
              topic: 'layouts',
              rules,
              kind: 'edit',
              edits: [{ ...valueSpan, text: escapeXml(`@string/${resource}`) }],
            });
          }
        }
      }
    }
  }
  return { changes: [...changes, ...stringChanges(context, [...wanted.values()])], byHand: [] };
}

/** The placement that holds a unit ID on a network, on whichever platform and stage. */
function holderOf({ title }: AndroidWireContext, network: string, id: string): string | undefined {
  return Object.entries(title.placements).find(([, { units }]) =>
    Object.values(valueAt(units, network) ?? {}).some((stages) => Object.values(stages).includes(id)),
  )?.[0];
}
