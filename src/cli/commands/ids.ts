import { platformLabels } from '../../core/words/platform-labels.js';
import type { Platform, Stage } from '../../core/words/words.js';
import { withService } from '../connect.js';
import type { Io, Paint } from '../io.js';
import { idTraceText } from '../render/id-trace.js';
import { plainTable } from '../render/table.js';
import { type Output, tell } from './titles.js';

/** `syndexa id list TITLE`. */
export function listIds(io: Io, id: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const { rows } = await client.call('board', { params: { title: id } });
    const cells = rows.flatMap(({ placement, network, cells: own }) =>
      own.map(({ platform, stage, id: value, record }) => ({
        placement,
        network,
        platform,
        stage,
        id: value,
        record,
      })),
    );
    const head = ['placement', 'network', 'build', 'ID', 'state'];
    const lines = cells.map(({ placement, network, platform, stage, id: value, record }) => [
      placement ?? '(app)',
      network,
      `${platformLabels[platform]} ${stage}`,
      value ?? '—',
      record.replaceAll('-', ' '),
    ]);
    const table = plainTable({ head, rows: lines, whole: [head.indexOf('ID')] }, io.columns);
    return tell(
      io,
      options,
      cells,
      cells.length > 0 ? table : `${id} has no IDs yet: add the first one with syndexa id set.`,
    );
  });
}

export interface IdFields extends Output {
  network: string;
  platform: Platform;
  stage: Stage;
  placement?: string;
  credential?: string;
}

/** `syndexa id set TITLE ID` and `syndexa id unset TITLE`; the value is taken exactly as it is given. */
export function setId(io: Io, id: string, value: string | null, fields: IdFields): Promise<number> {
  const { network, platform, stage, placement, credential } = fields;
  return withService(io, async (client) => {
    const { answer, etag } = await client.callWithVersion('showTitle', { params: { title: id } });
    const record = await client.call('setId', {
      params: { title: id },
      body: {
        network,
        platform,
        stage,
        placement: placement ?? null,
        value,
        ...(credential === undefined ? {} : { credential }),
      },
      headers: { 'If-Match': etag },
    });
    const spot = `${credential ?? placement ?? 'the app ID'} on ${network} (${platformLabels[platform]}, ${stage})`;
    if (value !== null) return tell(io, fields, record, `Set ${spot} to ${value}.`);
    const isChanged = record.version !== answer.version;
    return tell(io, fields, record, isChanged ? `Removed ${spot}.` : `There is nothing to remove: ${spot}.`);
  });
}

/** `syndexa id trace ID`. */
export function traceId(io: Io, paint: Paint, id: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const trace = await client.call('traceId', { query: { id } });
    return tell(io, options, trace, idTraceText(trace, paint).trimEnd());
  });
}

/** `syndexa find TEXT`. */
export function find(io: Io, text: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const hits = await client.call('search', { query: { text } });
    const rows = hits.map(({ kind, name, where }) => [kind, name, where]);
    const nothing = `No name or ID contains “${text}”.`;
    const table = plainTable({ head: ['what', 'name', 'where'], rows, whole: [1] }, io.columns);
    return tell(io, options, hits, hits.length > 0 ? table : nothing);
  });
}
