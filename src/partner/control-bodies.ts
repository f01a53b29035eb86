import * as z from 'zod';
import { UnitSettings, UnitStatus } from '../core/inventory/model.js';
import { DayText } from '../core/tally/days.js';
import { Format, Platform } from '../core/words/words.js';
import { FaultPlan } from './faults.js';
import { adEventNames } from './store/ledger.js';

const AccountRequest = z.strictObject({
  network: z.string(),
  name: z.string().min(1).max(100),
  key: z.string().min(8).max(200).optional(),
  number: z.string().max(40).optional(),
});
const AppRequest = z.strictObject({
  network: z.string(),
  key: z.string(),
  platform: Platform,
  identifier: z.string(),
  name: z.string(),
  audience: z.string().default('general'),
  id: z.string().optional(),
  terms: z.boolean().default(false),
});
const UnitRequest = z.strictObject({
  network: z.string(),
  key: z.string(),
  app: z.string().nullable().default(null),
  platform: Platform,
  format: Format,
  name: z.string(),
  settings: UnitSettings.default({}),
  id: z.string().optional(),
  serves: z.boolean().default(false),
  'serves-from': z.iso.datetime().optional(),
});
const ManyRequest = z.strictObject({
  network: z.string(),
  key: z.string(),
  app: z.string().nullable().default(null),
  count: z.number().int().min(1).max(200_000),
});
const UnitChange = z.strictObject({
  network: z.string(),
  unit: z.string(),
  name: z.string().optional(),
  status: UnitStatus.optional(),
  format: Format.optional(),
  settings: UnitSettings.optional(),
  gone: z.boolean().default(false),
});
const ClockRequest = z.strictObject({
  now: z.iso.datetime().optional(),
  stands: z.boolean().default(false),
  advance: z.number().optional().meta({ description: 'Seconds.' }),
});
const ListingRequest = z.strictObject({
  platform: Platform,
  identifier: z.string(),
  name: z.string(),
  site: z.string().optional(),
});
const SiteRequest = z.strictObject({
  domain: z.string().max(200),
  address: z.url({ protocol: /^http$/, hostname: /^(127\.0\.0\.1|localhost)$/ }),
});

const DeviceRequest = z.strictObject({
  network: z.string(),
  key: z.string().optional().meta({ description: 'Of one account; else of all of the network.' }),
  device: z.string().min(1).max(200),
});
const MarketRequest = z.strictObject({
  network: z.string(),
  fill: z.number().min(0).max(1).optional(),
  latency: z.number().int().min(0).max(60_000).optional().meta({ description: 'Milliseconds.' }),
});
const CountRequest = z.strictObject({ network: z.string(), unit: z.string(), event: z.enum(adEventNames) });
const PushRequest = z.strictObject({
  network: z.string(),
  key: z.string(),
  credential: z.string().min(8).max(4_000),
});
const RewardsRequest = z.strictObject({
  network: z.string(),
  key: z.string(),
  address: z.url({ protocol: /^http$/, hostname: /^(127\.0\.0\.1|localhost)$/ }),
});
const IncidentRequest = z.strictObject({
  network: z.string(),
  unit: z.string().optional(),
  app: z.string().optional().meta({ description: 'All units of an app, where no unit is named.' }),
  from: DayText,
  to: DayText.optional(),
  what: z.enum(['silent', 'unfilled', 'unshown', 'fewer', 'cheaper']),
  left: z.number().min(0).max(1).optional().meta({ description: 'For fewer and cheaper: what is left.' }),
});
const ReportRequest = z.strictObject({ network: z.string(), from: DayText, to: DayText });
const TermsRequest = z.strictObject({ network: z.string(), app: z.string() });
const NetworkRequest = z.strictObject({ network: z.string() });
const Nothing = z.strictObject({});

/** What the control calls take, by name. */
export const controlBodies = {
  accounts: {
    body: AccountRequest,
    summary: 'Opens an account at a network; the key is returned only once.',
  },
  apps: { body: AppRequest, summary: 'Adds an application to an account.' },
  units: { body: UnitRequest, summary: 'Adds a unit to an account.' },
  many: { body: ManyRequest, summary: 'Adds many units at once.' },
  unit: { body: UnitChange, summary: 'Changes a unit, or takes it away.' },
  terms: { body: TermsRequest, summary: 'Accepts the terms of a network for an application.' },
  clock: { body: ClockRequest, summary: 'Sets the time, or moves it on.' },
  faults: { body: FaultPlan, summary: 'Lets faults befall the answers of a network.' },
  devices: { body: DeviceRequest, summary: 'Registers a device for testing.' },
  push: { body: PushRequest, summary: 'Deposits the credential that notifications are sent with.' },
  rewards: {
    body: RewardsRequest,
    summary: 'Sets where rewards are reported; the key that signs the reports is returned.',
  },
  market: { body: MarketRequest, summary: 'Sets the fill rate and latency.' },
  incident: { body: IncidentRequest, summary: 'Lets something befall the numbers of units from a day on.' },
  report: { body: ReportRequest, summary: 'The daily numbers of all accounts of a network, as a CSV table.' },
  lift: { body: NetworkRequest, summary: 'Lifts suspensions.' },
  counted: { body: CountRequest, summary: 'How often an event was recorded for the ads of a unit.' },
  listings: { body: ListingRequest, summary: 'Puts an application into the simulated store.' },
  sites: { body: SiteRequest, summary: 'Says where a developer site is reached.' },
  reset: { body: Nothing, summary: 'Forgets everything.' },
} as const;
export type ControlName = keyof typeof controlBodies;
