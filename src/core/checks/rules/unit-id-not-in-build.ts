import { carryingOf } from '../../facts/carried.js';
import type { FactOf } from '../../facts/model.js';
import { languageOf } from '../../languages/index.js';
import { defineRule } from '../model.js';
import type { CheckContext, Report } from '../model.js';
import { editionScopes, listed, networkName, stagedVariants, type EditionScope } from '../scope.js';

/** The roster holds a unit ID that some variant of its stage does not use anywhere. */
export const unitIdNotInBuild = defineRule({
  meta: {
    id: 'unit-id/not-in-build',
    severity: 'blocker',
    ifShipped: 'The placement cannot request an ad, and earns nothing.',
    mend: 'Name the placement in code, through the placebook that syndexa wire writes.',
    byWiring: 'Run syndexa wire: it names the placement through the placebook where code has its ID.',
    messages: {
      absent: 'No code and no resource uses the unit of {placement} on {network} ({ids}){reference}.',
    },
    isAbsence: true,
    mayBeInScript: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context))
      for (const lack of lacks(context, scope)) yield reportOf(context, scope, lack);
  },
});

/** A placement that variants lack: nothing has its ID, or the placebook alone. */
interface Lack {
  network: string;
  placement: string;
  variants: string[];
  ids: string[];
  /** Where the placebook has it. */
  unused: FactOf<'unit-id'> | undefined;
}

function lacks({ survey }: CheckContext, scope: EditionScope): Iterable<Lack> {
  const units = scope.facts.filter((fact) => fact.kind === 'unit-id');
  const open = survey.unresolved.filter(
    ({ kind, module }) => kind === 'unit-id' && module === scope.edition.module,
  );
  const carrying = carryingOf(scope.facts);
  const found = new Map<string, Lack>();
  for (const { kind, network, stage, id, placement } of scope.expected) {
    if (kind !== 'unit' || id === undefined || placement === undefined) continue;
    const mine = units.filter(({ value }) => value === id);
    const covered = new Set([
      ...mine.flatMap((fact) => carrying(fact)),
      ...open.filter(({ value }) => value === id).flatMap(({ variants }) => variants),
    ]);
    for (const { name } of stagedVariants(scope, stage)) {
      if (covered.has(name)) continue;
      const unused = mine.find(({ carrier, variants }) => carrier === 'placebook' && variants.includes(name));
      const key = `${network} ${placement}`;
      const lack = found.get(key) ?? { network, placement, variants: [], ids: [], unused: undefined };
      found.set(key, lack);
      lack.unused ??= unused;
      lack.variants.push(name);
      const text = `${stage} ${id}`;
      if (!lack.ids.includes(text)) lack.ids.push(text);
    }
  }
  return found.values();
}

function reportOf(
  context: CheckContext,
  { platform, edition }: EditionScope,
  { network, placement, variants, ids, unused }: Lack,
): Report<'absent'> {
  const report: Report<'absent'> = {
    platform,
    module: edition.module,
    variants,
    network,
    placement,
    place: edition.home,
    message: 'absent',
    data: { placement, network: networkName(context, network), ids: listed(ids) },
    changing: { reference: '' },
  };
  const reference = unused && languageOf(unused.place.path)?.reference.unit(placement, network);
  if (reference === undefined) return report;
  return { ...report, chain: unused?.chain, changing: { reference: `; in code it is ${reference}` } };
}
