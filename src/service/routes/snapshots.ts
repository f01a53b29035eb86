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
  survey: ({ params, body, form, response, signal }, service) =>
    withProgress(service, { form, response, name: 'survey' }, (progress) =>
      service.treeWork.survey({ ...params, ...body, signal, progress }),
    ),
  check: async ({ params, body, form, response, signal }, service) => {
    const report = await withProgress(service, { form, response, name: 'check' }, (progress) =>
      service.treeWork.check({ ...params, title: body.title, signal, progress }, body.against),
    );
    if (report === undefined) return undefined;
    if (form === 'application/junit+xml') {
      const text = junitXml(
        report,
        rules.map(({ meta }) => meta.id),
        body.failOn,
      );
      response.type('application/junit+xml').send(text);
      return undefined;
    }
    if (form !== 'application/sarif+json') return report;
    response.type('application/sarif+json').send(
      JSON.stringify(
        sarifLog(report, {
          version: service.version,
          rules: rules.map(({ meta }) => meta),
          lengthOf: (path) => service.trees.text(params.snapshot, path)?.text.length,
        }),
      ),
    );
    return undefined;
  },
  wire: ({ params, body, form, response, signal }, service) =>
    withProgress(service, { form, response, name: 'wiring' }, async (progress) => {
      const { title: named, choice, extras } = body;
      const asked = { ...params, title: named, signal, progress };
      const { title, wiring } = await service.treeWork.wire(asked, { choice, extras });
      return service.trees.addWiring(title, params.snapshot, wiring);
    }),
  unwire: ({ params, body, form, response, signal }, service) =>
    withProgress(service, { form, response, name: 'wiring' }, async (progress) => {
      const { title: named, network } = body;
      // What this service wrote into a linked tree, it knows itself.
      const linked = service.trees.linkedTrees().filter(({ snapshot }) => snapshot === params.snapshot);
      const written = await Promise.all(linked.map(({ path }) => service.writes.added(path)));
      const added = [...new Set([...body.added, ...written.flat()])];
      const asked = { ...params, title: named, signal, progress };
      const { title, wiring } = await service.treeWork.unwire(asked, network, added);
      return service.trees.addWiring(title, params.snapshot, wiring, network);
    }),
  source: ({ params, query }, service) => {
    const { path, line, around } = query;
    const document = service.trees.text(params.snapshot, path);
    if (!document) throw new ServiceError('not-found', `The snapshot has no text file ${path}.`);
    const first = Math.max(1, line - around);
    const last = Math.min(document.lines.lineCount, line + around);
    const lines: string[] = [];
    for (let at = first; at <= last; at++)
      lines.push(document.text.slice(document.lines.lineStart(at), document.lines.lineEnd(at)).slice(0, 500));
    return { path, first, lines };
  },
} satisfies Partial<Handlers>;
