import { Agent, request as httpRequest, type IncomingMessage } from 'node:http';
import type { OnProgress } from '../core/text/progress.js';
import type { Readable } from 'node:stream';
import { exitOf } from '../api/faults.js';
import type { FieldFault, Problem } from '../api/problem.js';
import { nextPageOf, problemOf, requestOf, type CallOptions } from '../api/call.js';
import type { AnswerOf, PagedRoute, RouteName } from '../api/routes.js';
import { valueText } from '../core/roster/field-changes.js';
import { CommandError, exit } from './io.js';

/** The service said no. */
export class ProblemError extends CommandError {
  constructor(readonly problem: Problem) {
    super(...saidOf(problem));
    this.name = 'ProblemError';
  }
}

/**
 * A single invalid field becomes the message. Several are listed below it, and advice that fits them all is given once;
 * so are the fields that differ where a document is stale.
 */
function saidOf({
  detail,
  code,
  fix,
  errors = [],
  changes = [],
}: Problem): ConstructorParameters<typeof CommandError> {
  const [first] = errors;
  if (first && errors.length === 1) return [faultText(first), exitOf(code), first.fix ?? fix];
  const lines = errors.map((one) =>
    one.fix && one.fix !== fix ? `${faultText(one)} ${one.fix}` : faultText(one),
  );
  return [detail, exitOf(code), fix, [...lines, ...changes.map(changeText)]];
}

/** A field that the record or the document changed, with what it was. */
function changeText({
  path,
  base,
  record,
  document,
  conflict,
}: NonNullable<Problem['changes']>[number]): string {
  const [was, there, here] = [base, record, document].map(valueText);
  return `${conflict ? '✕ ' : '  '}${path}: was ${was}, record ${there}, document ${here}${conflict ? ' (both changed it)' : ''}`;
}

/** A field, its place where it has one, and what is wrong with it. */
function faultText({ field, message, place }: FieldFault): string {
  return `${field || 'document'}${place ? ` (line ${place.line}, column ${place.column})` : ''}: ${message}`;
}

interface RawAnswer {
  status: number;
  headers: IncomingMessage['headers'];
  text: string;
}

export interface ClientOptions extends Partial<Pick<Client, 'roots' | 'own'>> {
  /** For services that ask for one. */
  token?: string | undefined;
  /** Keeps connections; one of the client's own when it is left out. */
  agent?: Agent;
}

/** A connection that was idle for longer (ms) is not used again; servers and proxies close them after 5 seconds or more. */
const maxIdle = 2_000;

/** What keeps connections to a service open from one call to the next. TLS is loaded only where it is spoken. */
export async function keepingAgent(url: string): Promise<Agent> {
  const Kind = url.startsWith('https:') ? (await import('node:https')).Agent : Agent;
  return new Kind({ keepAlive: true, maxSockets: 4 });
}

/** What sends a request to an address. */
async function senderOf(url: string): Promise<typeof httpRequest> {
  return url.startsWith('https:') ? (await import('node:https')).request : httpRequest;
}

/** Speaks to the service, by HTTP only. */
export class Client {
  #agent: Agent | undefined;
  readonly #token: string | undefined;
  #busy = 0;
  /** When the last answer was complete (ms). */
  #lastUse = performance.now();
  /** Folders below which the service reads trees by itself. */
  readonly roots: readonly string[];
  /** Whether the service runs in this process, for this one command. */
  readonly own: boolean;

  /** @param who the name under which changes are taken down */
  constructor(
    readonly url: string,
    private readonly who: string,
    { roots = [], own = false, token, agent }: ClientOptions = {},
  ) {
    this.roots = roots;
    this.own = own;
    this.#agent = agent;
    this.#token = token;
  }

  /** Makes one call of the table; a problem becomes a {@link ProblemError}. */
  async call<Name extends RouteName>(name: Name, options: CallOptions<Name> = {}): Promise<AnswerOf<Name>> {
    return (await this.callWithVersion(name, options)).answer;
  }

  /** All entries of a list that is answered in pages. */
  async all<Name extends PagedRoute>(name: Name, options: CallOptions<Name> = {}): Promise<AnswerOf<Name>> {
    const found: unknown[] = [];
    let after: number | undefined;
    do {
      const query = { limit: 1000, ...(options.query as object), ...(after === undefined ? {} : { after }) };
      const { answer, link } = await this.callWithVersion(name, { ...options, query } as CallOptions<Name>);
      found.push(...answer);
      after = nextPageOf(link);
    } while (after !== undefined);
    return found as AnswerOf<Name>;
  }

  /** As `call`, with the ETag of the answer and its links. */
  async callWithVersion<Name extends RouteName>(
    name: Name,
    options: CallOptions<Name> = {},
  ): Promise<{ answer: AnswerOf<Name>; etag: string; link: string }> {
    const { status, headers, text } = await this.raw(name, options);
    const parsed = parseJson(text);
    if (status >= 400) throw new ProblemError(problemOf(parsed, status, text));
    return { answer: parsed as AnswerOf<Name>, etag: headers.etag ?? '', link: String(headers.link ?? '') };
  }

  /** The bare text of an answer, for those that are no JSON of the table. */
  async text<Name extends RouteName>(name: Name, options: CallOptions<Name> = {}): Promise<string> {
    const { status, text } = await this.raw(name, options);
    if (status >= 400) throw new ProblemError(problemOf(parseJson(text), status, text));
    return text;
  }

  /** A call answered as server-sent events; the last event that is not progress is the answer. */
  async follow<Name extends RouteName>(
    name: Name,
    options: CallOptions<Name>,
    progress: OnProgress,
  ): Promise<AnswerOf<Name>> {
    const { AnswerEvents } = await import('../api/answer-events.js');
    const events = new AnswerEvents(progress);
    const { status, text } = await this.raw(
      name,
      { ...options, headers: { ...options.headers, Accept: 'text/event-stream' } },
      { onChunk: (chunk) => events.feed(chunk) },
    );
    if (events.problem) throw new ProblemError(events.problem);
    if (status >= 400) throw new ProblemError(problemOf(parseJson(text), status, text));
    if (events.answer === undefined)
      throw new CommandError(
        'The service stopped in the middle of its answer.',
        exit.unreachable,
        'Run the command again.',
      );
    return events.answer as AnswerOf<Name>;
  }

  /** A call whose body is a stream, such as a table of any length. */
  async send<Name extends RouteName>(
    name: Name,
    options: CallOptions<Name>,
    { stream, type }: { stream: Readable; type: string },
  ): Promise<AnswerOf<Name>> {
    const headers = { ...options.headers, 'Content-Type': type };
    const { status, text } = await this.raw(name, { ...options, headers }, { stream });
    const parsed = parseJson(text);
    if (status >= 400) throw new ProblemError(problemOf(parsed, status, text));
    return parsed as AnswerOf<Name>;
  }

  close(): void {
    this.#agent?.destroy();
  }

  private async raw<Name extends RouteName>(
    name: Name,
    options: CallOptions<Name>,
    { onChunk, stream }: { onChunk?: (chunk: string) => void; stream?: Readable } = {},
  ): Promise<RawAnswer> {
    const { method, path, headers, body } = requestOf(name, this.who, options);
    const send = await senderOf(this.url);
    const agent = (this.#agent ??= await keepingAgent(this.url));
    this.dropIdleConnections();
    this.#busy++;
    return new Promise<RawAnswer>((resolve, reject) => {
      const call = send(
        `${this.url}${path}`,
        {
          method,
          agent,
          timeout: 120_000,
          headers: {
            ...headers,
            ...(this.#token === undefined ? {} : { Authorization: `Bearer ${this.#token}` }),
            ...(body === undefined ? {} : { 'Content-Length': String(Buffer.byteLength(body)) }),
          },
        },
        (response) => {
          const chunks: Buffer[] = [];
          response.on('data', (chunk: Buffer) => {
            chunks.push(chunk);
            if (onChunk && response.statusCode === 200) onChunk(chunk.toString('utf8'));
          });
          response.on('error', (error) => reject(unreachable(this.url, error)));
          response.on('end', () => {
            // A problem may be answered before everything was sent.
            if (stream && !stream.readableEnded) {
              stream.destroy();
              call.destroy();
            }
            resolve({
              status: response.statusCode ?? 0,
              headers: response.headers,
              text: Buffer.concat(chunks).toString('utf8'),
            });
          });
        },
      );
      call.on('timeout', () => call.destroy(new Error('no answer within two minutes')));
      call.on('error', (error) => reject(unreachable(this.url, error)));
      if (stream) {
        stream.on('error', (error) => call.destroy(error));
        stream.pipe(call);
      } else call.end(body);
    }).finally(() => {
      this.#busy--;
      this.#lastUse = performance.now();
    });
  }

  /**
   * A connection that was idle for long may be closed on the other side while this side was reading a tree and did not
   * hear of it: the next call opens a new one.
   */
  private dropIdleConnections(): void {
    if (this.#busy === 0 && performance.now() - this.#lastUse > maxIdle) this.#agent?.destroy();
  }
}

function unreachable(url: string, error: Error): CommandError {
  return new CommandError(
    `The service at ${url} cannot be reached: ${error.message}.`,
    exit.unreachable,
    'Start it with syndexa serve, or leave SYNDEXA_URL unset.',
  );
}

function parseJson(text: string): unknown {
  try {
    return text === '' ? undefined : JSON.parse(text);
  } catch {
    return undefined;
  }
}
