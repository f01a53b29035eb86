import { junitXml } from '../../core/checks/junit-report.js';
import { sarifLog } from '../../core/checks/sarif-report.js';
import { rules } from '../../core/checks/rules/index.js';
import { ServiceError } from '../errors.js';
import type { Handlers } from '../route.js';
import { withProgress } from '../server-events.js';

/** Trees that are sent: by hash first, then only the contents that are missing. */
export const snapshotHandlers = {
  addSnapshot: ({ body }, service) => service.trees.addSnapshot(body),
  sendBlobs: ({ body }, service) => ({
    stored: service.trees.addBlobs(
      body.blobs.map(({ hash, base64 }) => ({ hash, bytes: Buffer.from(base64, 'base64') })),
    ),
  }),
  survey: ({ params, body, request, response }, service) =>
    withProgress(service, { request, response, name: 'survey' }, async (progress) => {
      const { survey } = await service.treeWork.survey(params.snapshot, body.title, progress);
      return survey;
    }),
  check: async ({ params, body, request, response }, service) => {
    const report = await service.treeWork.check(params.snapshot, body.title, body.against);
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
        JSON.stringify(sarifLog(report, { version: service.version, rules: rules.map(({ meta }) => meta) })),
      );
    return undefined;
  },
  wire: async ({ params, body }, service) => {
    const snapshot = params.snapshot;
    const title = await service.treeWork.wireTitle(snapshot, body.title);
    const { edits, groups, patch, byHand } = await service.treeWork.plan(snapshot, title, body);
    return service.trees.addWiring(title.id, snapshot, { edits, groups, patch, byHand });
  },
  unwire: async ({ params, body }, service) => {
    const snapshot = params.snapshot;
    const title = await service.treeWork.wireTitle(snapshot, body.title);
    const { edits, groups, patch, byHand } = await service.treeWork.unwire(
      snapshot,
      title,
      body.network,
      body.added,
    );
    return service.trees.addWiring(title.id, snapshot, { edits, groups, patch, byHand }, body.network);
  },
  source: async ({ params, query }, service) => {
    const { path, line, around } = query;
    const { tree } = await service.trees.tree(params.snapshot);
    const document = tree.text(path);
    if (!document) throw new ServiceError('not-found', `The snapshot has no text file ${path}.`);
    const first = Math.max(1, line - around);
    const last = Math.min(document.lines.lineCount, line + around);
    const lines: string[] = [];
    for (let at = first; at <= last; at++)
      lines.push(document.text.slice(document.lines.lineStart(at), document.lines.lineEnd(at)).slice(0, 500));
    return { path, first, lines };
  },
} satisfies Partial<Handlers>;
