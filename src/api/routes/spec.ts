import * as z from 'zod';
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
  answer: z.ZodType;
  /** Writes that must name the version they change, in If-Match. */
  versioned?: boolean;
  /** Progress may be asked for as server-sent events. */
  progress?: boolean;
}

/** The answer of calls that have nothing to say. */
export const nothing = z.object({});
