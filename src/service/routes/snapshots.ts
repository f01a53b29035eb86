import type { Response, Router } from 'express';
import { junitXml } from '../../core/checks/junit-report.js';
import { sarifLog } from '../../core/checks/sarif-report.js';
import { rules } from '../../core/checks/rules/index.js';
import type { ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import { bind } from '../route.js';
import type { TreeWork } from '../tree-work.js';

/** Trees that are sent: by hash first, then only the contents that are missing. */
export function snapshotRoutes(router: Router, context: ServiceContext, work: TreeWork): void {
  const { trees } = context;
  bind(router, 'addSnapshot', ({ body }) => trees.addSnapshot(body));
  bind(router, 'sendBlobs', ({ body }) => ({
    stored: trees.addBlobs(
      body.blobs.map(({ hash, base64 }) => ({ hash, bytes: Buffer.from(base64, 'base64') })),
    ),
  }));
  bind(router, 'survey', async ({ params, body, request, response }) => {
    const snapshot = params.snapshot ?? '';
    if (
      !request.accepts(['application/json', 'text/event-stream']) ||
      request.headers.accept !== 'text/event-stream'
    )
      return (await work.survey(snapshot, body.title)).survey;
    const send = startEvents(response, context);
    try {
      const { survey } = await work.survey(snapshot, body.title, (step) => send('progress', step));
      send('survey', survey);
    } catch (error) {
      if (!(error instanceof ServiceError)) throw error;
      send('problem', error.toProblem());
    }
    response.end();
    return undefined;
  });
  bind(router, 'check', async ({ params, body, request, response }) => {
    const report = await work.check(params.snapshot ?? '', body.title, body.against);
    if (request.headers.accept === 'application/junit+xml') {
      const text = junitXml(
        report,
        rules.map(({ meta }) => meta.id),
      );
      response.type('application/xml').send(text);
      return undefined;
    }
    if (request.headers.accept !== 'application/sarif+json') return report;
    response
      .type('application/sarif+json')
      .send(
        JSON.stringify(sarifLog(report, { version: context.version, rules: rules.map(({ meta }) => meta) })),
      );
    return undefined;
  });
  bind(router, 'wire', async ({ params, body }) => {
    const snapshot = params.snapshot ?? '';
    const title = await work.wireTitle(snapshot, body.title);
    const { edits, groups, patch, byHand } = await work.plan(snapshot, title, body);
    return trees.addWiring(title.id, snapshot, { edits, groups, patch, byHand });
  });
  bind(router, 'unwire', async ({ params, body }) => {
    const snapshot = params.snapshot ?? '';
    const title = await work.wireTitle(snapshot, body.title);
    const { edits, groups, patch, byHand } = await work.unwire(snapshot, title, body.network, body.added);
    return trees.addWiring(title.id, snapshot, { edits, groups, patch, byHand }, body.network);
  });
  bind(router, 'source', async ({ params, query }) => {
    const { path, line, around } = query;
    const { tree } = await trees.tree(params.snapshot ?? '');
    const document = tree.text(path);
    if (!document) throw new ServiceError('not-found', `The snapshot has no text file ${path}.`);
    const first = Math.max(1, line - around);
    const last = Math.min(document.lines.lineCount, line + around);
    const lines: string[] = [];
    for (let at = first; at <= last; at++)
      lines.push(document.text.slice(document.lines.lineStart(at), document.lines.lineEnd(at)).slice(0, 500));
    return { path, first, lines };
  });
}

/** Opens a stream of server-sent events; returns what sends one. Problems are cleaned of secrets as elsewhere. */
export function startEvents(
  response: Response,
  { secrets }: Pick<ServiceContext, 'secrets'>,
): (event: string, data: unknown) => void {
  response
    .status(200)
    .set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' });
  response.flushHeaders();
  return (event, data) => {
    const text = JSON.stringify(data);
    response.write(`event: ${event}\ndata: ${event === 'problem' ? secrets.cleaner()(text) : text}\n\n`);
  };
}
