import * as z from 'zod';

const title = z.string();

/** A change that the service reports to open pages and other listeners. */
export const ServiceEvent = z.discriminatedUnion('kind', [
  z
    .object({ kind: z.literal('title'), title })
    .meta({ description: 'A title was changed, added or removed.' }),
  z.object({ kind: z.literal('reading'), title }).meta({ description: 'A tree of a title was read again.' }),
  z
    .object({ kind: z.literal('roster') })
    .meta({ description: 'Several titles, or shared data, were changed.' }),
]);
export type ServiceEvent = z.infer<typeof ServiceEvent>;

/** The events of `/events`, by name. */
export const eventShapes = {
  hello: z.object({ version: z.string() }).meta({ description: 'The stream is open.' }),
  reload: z
    .object({})
    .meta({ description: 'Some missed events cannot be replayed: reload everything you show.' }),
  title: ServiceEvent.options[0],
  reading: ServiceEvent.options[1],
  roster: ServiceEvent.options[2],
} as const;
