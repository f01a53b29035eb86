import * as z from 'zod';
import { languageNames } from '../languages/index.js';
import { Format, Why } from '../words/words.js';

const Name = z
  .string()
  .min(1)
  .max(120)
  .regex(/^[A-Za-z_$][\w$.:]*$/, 'A name as written in code, its parts joined by dots.');

/** Where an argument stands: counted from 0, or under its label. */
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
          'Where the call itself takes no unit ID: the property, the method of a builder or the other call that does.',
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
      description: 'The callback that says that starting is done; nothing may be loaded before it.',
    }),
    completes: z.enum(['closure', 'await']).optional().meta({
      description:
        'How starting reports that it is done, where that is no callback: in a closure that the call is given, or when the call is awaited.',
    }),
    in: z
      .enum(['application', 'first-screen', 'app-builder', 'before-run', 'root-effect'])
      .meta({ description: 'Where the network wants it to be called.' }),
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
    completed: Name.optional().meta({ description: 'The callback that says that it is answered.' }),
    completes: z.enum(['closure', 'await']).optional().meta({
      description: 'How the answer is reported, where that is no callback.',
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
      description: 'The widget, component or view that shows it; given a unit ID, it loads by itself.',
    }),
    ready: Name.optional().meta({
      description: 'The property or call that says whether an ad is loaded.',
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
        description: 'The call that asks the user for consent; nothing may be loaded before it is answered.',
      }),
      formats: z.partialRecord(Format, FormatCalls).default({}),
      listeners: z
        .strictObject({
          add: Name.meta({ description: 'The call that hands over a listener.' }),
          remove: Name.meta({ description: 'The call that takes it back.' }),
        })
        .optional(),
      'test-devices': z.strictObject({ call: Name, example: z.string().max(300), why: Why }).optional(),
    })
    .meta({ description: 'How the network’s code looks in one language.' }),
);
export type LanguageCalls = z.infer<typeof LanguageCalls>;

export const CodeNeeds = z.lazy(() =>
  z
    .partialRecord(z.enum(languageNames), LanguageCalls)
    .meta({ description: 'How the network’s code looks, per language.' }),
);
export type CodeNeeds = z.infer<typeof CodeNeeds>;
