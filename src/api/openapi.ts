import { entryAt, putAt } from '../core/text/own-values.js';
import * as z from 'zod';
import { faults, Problem } from './problem.js';
import { routes, type RouteSpec } from './routes.js';

type Json = Record<string, unknown>;

function schema(type: z.ZodType, io: 'input' | 'output'): Json {
  const { $schema: _, ...rest } = z.toJSONSchema(type, { io, unrepresentable: 'any' });
  return rest;
}

/** The OpenAPI 3.1 document of the HTTP interface, made from the route table. */
export function openApiDocument(version: string): Json {
  const paths: Record<string, Json> = {};
  for (const [name, route] of Object.entries<RouteSpec>(routes)) {
    const operations = entryAt(paths, `/api/v1${route.path}`, (): Json => ({}));
    putAt<unknown>(operations, route.method, operation(name, route));
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Syndexa', version, license: { name: 'Apache-2.0', identifier: 'Apache-2.0' } },
    paths,
    components: { schemas: { Problem: schema(Problem, 'output') } },
  };
}

function operation(
  name: string,
  { path, summary, query, body, answer, versioned, progress }: RouteSpec,
): Json {
  const parameters: Json[] = [...path.matchAll(/\{(\w+)\}/g)].map(([, parameter]) => ({
    name: parameter,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  for (const [key, type] of Object.entries(query?.shape ?? {})) {
    parameters.push({
      name: key,
      in: 'query',
      required: !(type as z.ZodType).safeParse(undefined).success,
      schema: schema(type as z.ZodType, 'input'),
    });
  }
  if (versioned)
    parameters.push({
      name: 'If-Match',
      in: 'header',
      required: false,
      description: 'The ETag of what is changed.',
      schema: { type: 'string' },
    });
  const content: Json = { 'application/json': { schema: schema(answer, 'output') } };
  if (progress) content['text/event-stream'] = { schema: { type: 'string' } };
  return {
    operationId: name,
    summary,
    parameters,
    ...(body
      ? {
          requestBody: { required: true, content: { 'application/json': { schema: schema(body, 'input') } } },
        }
      : {}),
    responses: {
      200: { description: 'Done.', content },
      default: {
        description: `A problem: ${Object.keys(faults).join(', ')}.`,
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}
