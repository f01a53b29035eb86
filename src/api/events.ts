import * as z from 'zod';

const title = z.string();

/** A change that the service reports to open pages and other listeners. */
export const ServiceEvent = z.discriminatedUnion('kind', [
  z
    .object({ kind: z.literal('title'), title })
    .meta({ description: 'A title was changed, added or taken out.' }),
  z.object({ kind: z.literal('reading'), title }).meta({ description: 'A tree of a title was read again.' }),
  z
    .object({ kind: z.literal('roster') })
    .meta({ description: 'More than one title, or what all share, was changed.' }),
]);
export type ServiceEvent = z.infer<typeof ServiceEvent>;

/** The events of `/events`, by name. */
export const eventShapes = {
  hello: z.object({ version: z.string() }).meta({ description: 'The stream is open.' }),
  reload: z
    .object({})
    .meta({ description: 'Events were missed that cannot be replayed: reload everything that you show.' }),
  title: ServiceEvent.options[0],
  reading: ServiceEvent.options[1],
  roster: ServiceEvent.options[2],
} as const;
