import * as z from 'zod';
import type { FaultCode } from '../faults.js';
import type { Role } from '../roles.js';

/** One call of the HTTP interface. Service, client and OpenAPI document are all made from this table. */
export interface RouteSpec {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Below `/api/v1`; parameters in braces. */
  path: string;
  /** What the caller has to be; null for calls that find out who is calling. */
  role: Role | null;
  summary: string;
  query?: z.ZodObject;
  body?: z.ZodType;
  /** The body is a stream of this media type, which the handler reads from the request. */
  sent?: { type: string; description: string };
  answer: z.ZodType;
  /** Writes that must name the version they change, in If-Match. */
  versioned?: boolean;
  /** Its answer carries an ETag. */
  tagged?: boolean;
  /** It makes something, and answers 201 with its Location: always, or when the thing was not there. */
  created?: 'always' | 'if-new';
  /** Progress may be asked for as server-sent events. */
  progress?: boolean;
  /** Other formats that Accept may request: media type and description. */
  forms?: Readonly<Record<string, string>>;
  /**
   * A long list, answered in pages: the `Link` header says where the next one is. Its query is that of {@link pageOf}.
   */
  paged?: boolean;
  /** Ways to fail beyond those that follow from the rest of the specification. */
  faults?: readonly FaultCode[];
}

/**
 * The query parameters of a paged list.
 * @param usual the page size when the request names none
 */
export const pageOf = (usual: number) =>
  z.object({
    limit: z.coerce.number().int().min(1).max(1000).default(usual).meta({ description: 'The most entries.' }),
    after: z.coerce
      .number()
      .int()
      .min(0)
      .optional()
      .meta({ description: 'Where the previous page ended, from its Link header.' }),
  });

/** Ways to fail of calls that ask a network, or a store. */
export const partnerFaults = [
  'invalid',
  'secret-missing',
  'host-not-approved',
  'partner-unreachable',
  'partner-refused',
  'partner-odd',
] as const;

/** The answer of calls that have nothing to say. */
export const nothing = z.object({});
