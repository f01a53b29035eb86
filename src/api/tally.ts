import * as z from 'zod';
import { Finding } from '../core/checks/model.js';
import { DayText } from '../core/tally/days.js';
import { DaySpan, ImportSummary } from '../core/tally/imported.js';
import { Platform } from '../core/words/words.js';

export { ImportSummary };

const Micros = z.number().int().meta({ description: 'Millionths of the currency.' });
const Currency = z
  .string()
  .regex(/^[A-Z]{3}$/, 'Three capital letters (ISO 4217).')
  .meta({ description: 'A currency by its three letters (ISO 4217).' });
const Count = z.number().int().nullable().meta({ description: 'Null if it is not reported.' });
const Ratio = z.number().nullable().meta({ description: 'Null if it is not reported, or its base is zero.' });

export const ImportQuery = z.object({
  network: z.string().max(64),
  name: z
    .string()
    .max(200)
    .default('')
    .meta({ description: 'The name of the file, for the list of imports.' }),
  encoding: z.string().max(40).default('utf-8'),
  separator: z.string().length(1).optional(),
  columns: z.string().max(2_000).optional().meta({
    description: 'Column names that replace those of the profile: a JSON object of field and column.',
  }),
});
export type ImportQuery = z.infer<typeof ImportQuery>;

export const FetchRequest = z.object({
  networks: z.array(z.string().max(64)).max(50).optional().meta({
    description: 'The networks to ask; default: all with a report by HTTP and a known key.',
  }),
  from: DayText.optional().meta({
    description:
      'The first day; default: where the last fetch ended, minus the days that may still have changed.',
  }),
  to: DayText.optional().meta({
    description: 'The last day; default: yesterday in the time zone of the network.',
  }),
});
export type FetchRequest = z.infer<typeof FetchRequest>;

export const FetchAnswer = z
  .object({
    fetched: z.array(ImportSummary.extend({ asked: DaySpan })),
    skipped: z.array(z.object({ network: z.string(), why: z.string(), fix: z.string() })),
  })
  .meta({ title: 'Fetch', description: 'What the networks reported.' });
export type FetchAnswer = z.infer<typeof FetchAnswer>;

export const ImportList = z
  .array(
    z.object({
      network: z.string(),
      source: z.enum(['csv', 'http']),
      name: z.string(),
      at: z.string(),
      who: z.string(),
      days: DaySpan.nullable(),
      rows: z.number().int(),
      complete: z.boolean().meta({ description: 'Whether it was read completely.' }),
    }),
  )
  .meta({ title: 'Imports', description: 'The last 200 imports, newest first.' });

export const Release = z
  .object({
    title: z.string().max(64),
    platform: Platform,
    version: z.string().regex(/^[\w.+-]{1,40}$/, 'A version such as 3.2.0.'),
    day: DayText,
  })
  .meta({ description: 'A released version.' });
export type Release = z.infer<typeof Release>;

export const RatesRequest = z.object({
  table: z.string().max(16_000_000).meta({ description: 'A CSV table: day, currency, base, rate.' }),
});
export const RatesAnswer = z
  .object({
    rates: z.number().int(),
    changed: z.number().int().meta({ description: 'Rates that are new or have changed.' }),
    odd: z.array(z.object({ row: z.number().int(), id: z.string().nullable(), message: z.string() })),
    oddCount: z.number().int(),
  })
  .meta({ title: 'Rates', description: 'The result of importing a table of daily rates.' });
export type RatesAnswer = z.infer<typeof RatesAnswer>;

export const groupNames = [
  'placement',
  'network',
  'platform',
  'format',
  'country',
  'day',
  'week',
  'release',
  'title',
] as const;
export type GroupName = (typeof groupNames)[number];

export const FiguresQuery = z.object({
  title: z.string().max(64).optional().meta({ description: 'Default: all titles.' }),
  by: z.enum(groupNames).default('placement'),
  from: DayText.optional(),
  to: DayText.optional(),
  days: z.string().max(40).optional().meta({
    description: 'Instead of from and to: 28d for the last 28 days on record, or 2026-10-01..2026-10-07.',
  }),
  in: Currency.optional().meta({ description: 'The currency to convert to, at the imported rates.' }),
});
export type FiguresQuery = z.infer<typeof FiguresQuery>;

export const Figures = z
  .object({
    currency: Currency,
    requests: Count,
    matched: Count,
    fillRate: Ratio.meta({ description: 'Matched requests for each request.' }),
    impressions: z.number().int(),
    showRate: Ratio.meta({ description: 'Impressions for each matched request.' }),
    clicks: Count,
    clickRate: Ratio.meta({ description: 'Clicks for each impression.' }),
    rewards: Count,
    revenue: Micros,
    ecpm: Micros.nullable().meta({ description: 'Revenue for a thousand impressions, in micros.' }),
    share: Ratio.meta({ description: 'Its share of the revenue in its currency.' }),
  })
  .meta({ description: 'What something earned, and how.' });
export type Figures = z.infer<typeof Figures>;

const Zones = z
  .array(z.object({ network: z.string(), zone: z.string() }))
  .meta({ description: 'The time zones of the networks’ days.' });

const TallyHead = z.object({
  title: z.string().nullable(),
  in: Currency.nullable().meta({ description: 'The currency that amounts were converted to.' }),
  unconverted: z.array(z.object({ currency: Currency, days: z.number().int() })).meta({
    description: 'Currencies without a rate for some days; their amounts are listed separately.',
  }),
  zones: Zones,
});

export const FiguresAnswer = TallyHead.extend({
  by: z.enum(groupNames),
  days: DaySpan.nullable().meta({ description: 'Null if nothing is on record.' }),
  rows: z.array(
    Figures.extend({
      key: z.string().meta({ description: 'What the row stands for: a placement, a day, …' }),
      unit: z.string().nullable().meta({ description: 'The unit ID, if no title uses it.' }),
    }),
  ),
  totals: z.array(Figures).meta({ description: 'One for each currency; the rows add up to it.' }),
  daily: z
    .array(z.object({ day: DayText, currency: Currency, revenue: Micros }))
    .meta({ description: 'Revenue day by day, for a sparkline.' }),
}).meta({ title: 'Figures', description: 'What placements earned.' });
export type FiguresAnswer = z.infer<typeof FiguresAnswer>;

export const SilentQuery = z.object({
  title: z.string().max(64).optional().meta({ description: 'Default: all titles, and units of no title.' }),
});

export const SilentAnswer = z
  .object({
    title: z.string().nullable(),
    last: z
      .array(z.object({ network: z.string(), day: DayText }))
      .meta({ description: 'The last day that each network has reported.' }),
    findings: z.array(
      Finding.extend({
        title: z.string().nullable(),
        stake: z.object({ micros: Micros, currency: z.string() }).nullable().meta({
          description:
            'What thirty days of it would earn and do not: what the placement earned in its best four weeks of the last half year, or what it earns on the other platform, less what it earned in the last week.',
        }),
      }),
    ),
  })
  .meta({ title: 'Silence', description: 'What contradicts the daily numbers, most money first.' });
export type SilentAnswer = z.infer<typeof SilentAnswer>;

export const WeekAnswer = z
  .object({
    days: DaySpan.nullable(),
    units: z.array(
      z.object({
        title: z.string().nullable(),
        placement: z.string().nullable(),
        platform: Platform.nullable(),
        network: z.string(),
        currency: Currency,
        revenue: z.array(Micros).meta({ description: 'Day by day, in order.' }),
      }),
    ),
  })
  .meta({ title: 'Week', description: 'What each unit earned in the last seven days.' });
export type WeekAnswer = z.infer<typeof WeekAnswer>;

export const CompareQuery = z.object({
  title: z.string().max(64).optional(),
  this: z.string().max(40).default('7d').meta({
    description: 'Days: 7d for the last seven days on record, or 2026-10-01..2026-10-07.',
  }),
  against: z.string().max(40).default('previous').meta({
    description: 'Days to compare with; previous for the same number of days before.',
  }),
  in: Currency.optional(),
});
export type CompareQuery = z.infer<typeof CompareQuery>;

const Change = z.object({
  currency: Currency,
  before: Micros,
  after: Micros,
  revenue: Micros.meta({ description: 'The change: volume, fill and price add up to it.' }),
  volume: Micros.meta({ description: 'The part due to more or fewer requests.' }),
  fill: Micros.meta({ description: 'The part due to more or fewer requests with an impression.' }),
  price: Micros.meta({ description: 'The part due to a higher or lower price of impressions.' }),
});

export const CompareAnswer = TallyHead.extend({
  days: DaySpan.nullable(),
  against: DaySpan.nullable(),
  rows: z.array(
    Change.extend({
      title: z.string().nullable(),
      placement: z.string().nullable().meta({ description: 'Null if no title uses the unit.' }),
      platform: Platform.nullable(),
      network: z.string(),
      unit: z.string(),
    }),
  ),
  totals: z.array(Change),
}).meta({ title: 'Comparison', description: 'Why revenue changed, the largest change first.' });
export type CompareAnswer = z.infer<typeof CompareAnswer>;
