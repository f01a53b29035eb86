import type { IdTrace } from '../../core/id-trace/trace.js';
import { moneyText } from '../../core/tally/money.js';
import { printableValue } from '../../core/text/printable.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import type { Paint } from '../io.js';
import { placeText } from './places.js';
import { whole } from '../../core/tally/words.js';

/** All that is known of an ID, a paragraph for each source. */
export function idTraceText(trace: IdTrace, paint: Paint): string {
  const { id, is, record, builds, listed, changes, earned } = printableValue(trace);
  const lines = [paint.bold(id)];
  for (const { networkName, label, platform, sample } of is)
    lines.push(
      `  ${sample ? `sample ${label}` : label} of ${networkName}${platform ? `, for ${platformLabels[platform]}` : ''}${sample ? ': for testing only' : ''}`,
    );
  if (is.length === 0) lines.push('  no known network has IDs of this shape');
  const part = (name: string, of: readonly string[], none: string) =>
    lines.push(
      '',
      paint.bold(name),
      ...(of.length > 0 ? of.map((line) => `  ${line}`) : [paint.dim(`  ${none}`)]),
    );
  part(
    'In the roster',
    record.map(
      ({ title, network, placement, platform, stage }) =>
        `${title}: ${placement ?? 'app ID'} on ${network}, ${platformLabels[platform]} ${stage}`,
    ),
    'no title uses it',
  );
  part(
    'In trees',
    builds.map(
      ({ tree, place, variants }) =>
        `${tree}/${placeText(place)}  ${paint.dim(variants.join(', ') || 'in no variant')}`,
    ),
    'no tree that was read contains it',
  );
  part(
    'At the network',
    listed.map(({ network, name, readAt, unit }) => {
      const about = unit ? [unit.format, unit.platform, unit.status].filter(Boolean).join(', ') : 'app';
      return `${network} lists it as ${name} (${about}), read ${readAt.slice(0, 10)}`;
    }),
    'no fetched list contains it',
  );
  part(
    'Earned',
    earned.map(
      ({ network, from, to, currency, requests, impressions, revenue }) =>
        `${moneyText(revenue, currency)} from ${network}, ${from} to ${to}: ${requests === null ? '' : `${whole(requests)} requests, `}${whole(impressions)} impressions`,
    ),
    'no daily numbers mention it',
  );
  part(
    'Changes',
    changes.map(
      ({ at, who, path, did }) =>
        `${at.slice(0, 16).replace('T', ' ')}  ${who} ${did === 'set' ? 'set it' : 'removed it'}  ${paint.dim(path)}`,
    ),
    'none',
  );
  return `${lines.join('\n')}\n`;
}
