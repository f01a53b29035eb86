import * as z from 'zod';

/** What a token may do, each role including those before it. */
export const roleNames = ['viewer', 'editor', 'admin'] as const;
export const Role = z.enum(roleNames).meta({
  description:
    'A viewer reads; an editor changes titles and works on trees; an admin also changes networks, the publisher and linked trees.',
});
export type Role = z.infer<typeof Role>;

/** Whether a role includes another one. */
export function includesRole(role: Role, needed: Role): boolean {
  return roleNames.indexOf(role) >= roleNames.indexOf(needed);
}

/** A token as listed, without its value. */
export const TokenEntry = z
  .object({
    name: z.string(),
    role: Role,
    createdAt: z.string(),
    lastUsedAt: z
      .string()
      .nullable()
      .meta({ description: 'Precise to the minute; null if it was never used.' }),
    revokedAt: z.string().nullable(),
  })
  .meta({ title: 'Token', description: 'Who may use a service that requires tokens.' });
export type TokenEntry = z.infer<typeof TokenEntry>;

/** Who is signed in. */
export const Session = z
  .object({
    who: z.string(),
    role: Role,
    required: z.boolean().meta({ description: 'Whether the service requires tokens.' }),
  })
  .meta({
    title: 'Session',
    description: 'How the service identifies the caller, and what the caller may do.',
  });
export type Session = z.infer<typeof Session>;
