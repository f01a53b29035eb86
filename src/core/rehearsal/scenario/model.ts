import * as z from 'zod';

const Time = z
  .string()
  .regex(/^(0|[1-9]\d{0,5}(ms|s|m|h))$/, '0, or a whole number with its unit: 400ms, 5s, 2m or 1h.')
  .meta({ description: 'A time: 0, or a whole number with ms, s, m or h.' });

const After = Time.default('0').meta({ description: 'How long after the previous step.' });
const For = Time.default('20s').meta({ description: 'How long the user is away.' });

/** What a user does on a screen, and what befalls the device meanwhile. */
const ScreenAction = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('tap').meta({ description: 'Does what shows an ad.' }), after: After }),
  z.strictObject({
    do: z.literal('scroll').meta({ description: 'Scrolls a list.' }),
    after: After,
    rows: z.number().int().min(1).max(10_000).default(10),
  }),
  z.strictObject({
    do: z.literal('leave').meta({ description: 'Leaves the app, and comes back.' }),
    after: After,
    for: For,
  }),
  z.strictObject({ do: z.literal('rotate').meta({ description: 'Turns the device.' }), after: After }),
  z.strictObject({ do: z.literal('wait').meta({ description: 'Does nothing.' }), after: After }),
  z.strictObject({ do: z.literal('offline').meta({ description: 'The connection is lost.' }), after: After }),
  z.strictObject({ do: z.literal('online').meta({ description: 'The connection is back.' }), after: After }),
]);
export type ScreenAction = z.output<typeof ScreenAction>;

const Names = z.array(z.string().min(1).max(200)).min(1).max(500);

const Step = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('launch').meta({ description: 'The app is started.' }), after: After }),
  z.strictObject({
    do: z
      .literal('answer')
      .meta({ description: 'The user answers the prompts of the app: consent, tracking.' }),
    after: After,
  }),
  z.strictObject({
    do: z.literal('visit').meta({ description: 'The user opens screens with ads, one after another.' }),
    after: After,
    placements: Names.optional().meta({ description: 'Only the screens of these placements.' }),
    each: z.array(ScreenAction).max(100).default([]),
    repeat: z.number().int().min(1).max(1_000).default(1),
  }),
  z.strictObject({
    do: z.literal('kill').meta({ description: 'The system terminates the app, and its ads are lost.' }),
    after: After,
  }),
  ...ScreenAction.options,
]);
export type Step = z.output<typeof Step>;

export const Scenario = z
  .strictObject({
    scenario: z
      .literal(1, 'This service reads scenarios of version 1.')
      .meta({ description: 'Version of this format.' }),
    name: z.string().min(2).max(60),
    about: z.string().min(8).max(300),
    device: z
      .strictObject({
        width: z.number().int().min(200).max(4_000).default(360),
        height: z.number().int().min(200).max(4_000).default(740),
      })
      .prefault({})
      .meta({ description: 'The screen, in density-independent pixels.' }),
    user: z
      .strictObject({
        consent: z.enum(['granted', 'refused', 'ignored']).default('granted'),
        tracking: z.enum(['allowed', 'denied']).default('allowed'),
        child: z.boolean().default(false),
        ads: z
          .enum(['watch', 'skip', 'click'])
          .default('watch')
          .meta({ description: 'What the user does with an ad that covers the screen.' }),
      })
      .prefault({}),
    network: z
      .strictObject({
        latency: Time.default('400ms').meta({
          description: 'The approximate time that an ad takes to arrive.',
        }),
        lost: z
          .number()
          .int()
          .min(0)
          .max(100)
          .default(0)
          .meta({ description: 'The percentage of requests without an answer.' }),
        fill: z.enum(['as-answered', 'none']).default('as-answered'),
      })
      .prefault({}),
    steps: z.array(Step).min(1).max(200),
  })
  .meta({
    title: 'Scenario',
    description: 'What a user does in a rehearsal, and what happens to the device.',
  });
export type Scenario = z.output<typeof Scenario>;
