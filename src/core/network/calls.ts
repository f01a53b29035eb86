import * as z from 'zod';
import { languageNames } from '../languages/index.js';
import { Format, Why } from '../words/words.js';

const Name = z
  .string()
  .min(1)
  .max(120)
  .regex(/^[A-Za-z_$][\w$.:]*$/, 'A name as written in code, with its parts joined by dots.');

/** The position of an argument: counted from 0, or its label. */
const Position = z.union([z.number().int().min(0).max(20), z.string().min(1).max(60)]);

const AdCall = z.lazy(() =>
  z.strictObject({
    call: Name,
    id: Position.optional().meta({
      description: 'The argument that takes the unit ID: counted from 0, or its label.',
    }),
    'taken-by': z
      .strictObject({ call: Name, id: Position.default(0) })
      .optional()
      .meta({
        description:
          'If the call itself does not take a unit ID: the property, builder method or other call that does.',
      }),
    why: Why.optional(),
  }),
);

const StartCall = z.lazy(() =>
  z.strictObject({
    call: Name,
    id: Position.optional().meta({
      description: 'The argument that takes the app ID: counted from 0, or its label.',
    }),
    credential: z
      .record(z.string(), Position)
      .optional()
      .meta({ description: 'The arguments that take credentials.' }),
    completed: Name.optional().meta({
      description: 'The callback that reports the end of the start-up; nothing may be loaded before it.',
    }),
    completes: z.enum(['closure', 'await']).optional().meta({
      description:
        'How the start-up reports its end, if not by a callback: in a closure passed to the call, or when the call is awaited.',
    }),
    in: z
      .enum(['application', 'first-screen', 'app-builder', 'before-run', 'root-effect'])
      .meta({ description: 'Where the network requires the call.' }),
    example: z
      .string()
      .min(3)
      .max(600)
      .meta({ description: 'Sample code. APP_ID is a placeholder for the app ID.' }),
    why: Why,
  }),
);

/** A question to the user that must be answered before anything is requested. */
const ConsentCall = z.lazy(() =>
  z.strictObject({
    call: Name,
    completed: Name.optional().meta({ description: 'The callback that reports the answer.' }),
    completes: z.enum(['closure', 'await']).optional().meta({
      description: 'How the answer is reported, if not by a callback.',
    }),
    example: z.string().min(3).max(600),
    why: Why,
  }),
);

const FormatCalls = z.lazy(() =>
  z.strictObject({
    load: AdCall,
    show: AdCall.optional(),
    view: AdCall.optional().meta({
      description: 'The widget, component or view that shows it; with a unit ID, it loads by itself.',
    }),
    ready: Name.optional().meta({
      description: 'The property or call that tells whether an ad is loaded.',
    }),
    release: AdCall.optional(),
    callbacks: z
      .strictObject({
        loaded: Name.optional(),
        failed: Name.optional(),
        shown: Name.optional(),
        closed: Name.optional(),
        rewarded: Name.optional(),
      })
      .default({}),
    example: z
      .string()
      .min(3)
      .max(900)
      .meta({ description: 'Sample code. UNIT_ID is a placeholder for the unit ID.' }),
    list: z.string().min(3).max(2_400).optional().meta({
      description:
        'Sample code for a list: what loads one ad after another, and releases them. UNIT_ID is a placeholder for the unit ID.',
    }),
  }),
);

export const LanguageCalls = z.lazy(() =>
  z
    .strictObject({
      imports: z.array(z.string().min(1).max(160)).default([]),
      start: StartCall,
      consent: ConsentCall.optional().meta({
        description: 'The call that asks the user for consent; nothing may be loaded before the answer.',
      }),
      formats: z.partialRecord(Format, FormatCalls).default({}),
      listeners: z
        .strictObject({
          add: Name.meta({ description: 'The call that adds a listener.' }),
          remove: Name.meta({ description: 'The call that removes it.' }),
        })
        .optional(),
      'test-devices': z.strictObject({ call: Name, example: z.string().max(300), why: Why }).optional(),
    })
    .meta({ description: 'The network’s code in one language.' }),
);
export type LanguageCalls = z.infer<typeof LanguageCalls>;

export const CodeNeeds = z.lazy(() =>
  z
    .partialRecord(z.enum(languageNames), LanguageCalls)
    .meta({ description: 'The network’s code, by language.' }),
);
export type CodeNeeds = z.infer<typeof CodeNeeds>;
