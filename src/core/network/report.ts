import * as z from 'zod';
import { accessFields, FieldName, PageQuery } from './exchange.js';
import { Why } from '../words/words.js';

/** The column, or the field of a row, for each value. */
export const ReportFields = z
  .strictObject({
    day: FieldName,
    unit: FieldName.meta({ description: 'The unit ID; empty in rows with the total of an app.' }),
    app: FieldName.optional(),
    country: FieldName.optional().meta({ description: 'ISO 3166-1, two letters.' }),
    requests: FieldName.optional(),
    matched: FieldName.optional().meta({ description: 'Requests that were answered with an ad.' }),
    impressions: FieldName,
    clicks: FieldName.optional(),
    rewards: FieldName.optional(),
    revenue: FieldName,
    currency: FieldName.optional().meta({ description: 'ISO 4217, three letters.' }),
  })
  .meta({ description: 'The column, or the field of a row, for each value.' });
export type ReportFields = z.output<typeof ReportFields>;
export type ReportField = keyof ReportFields;
export const reportFieldNames = Object.keys(ReportFields.shape) as ReportField[];

/** How days are written: with `yyyy`, `mm` and `dd`, or as an instant that is cut into days. */
const DayForm = z
  .string()
  .regex(
    /^(?:timestamp|(?=.*yyyy)(?=.*mm)(?=.*dd)[ymd./ -]{8,14})$/,
    'timestamp, or a form with yyyy, mm and dd, such as dd.mm.yyyy.',
  );

/** How the daily numbers of a network come in. */
export const Report = z.lazy(() =>
  z
    .strictObject({
      zone: z
        .string()
        .max(60)
        .refine(isTimeZone, 'A time zone by its IANA name, such as Europe/Lisbon.')
        .default('UTC')
        .meta({
          description: 'The time zone of the network’s days, by its IANA name.',
        }),
      currency: z
        .string()
        .regex(/^[A-Z]{3}$/, 'Three capital letters (ISO 4217).')
        .optional()
        .meta({ description: 'The currency of rows that do not name one.' }),
      day: DayForm.default('yyyy-mm-dd').meta({
        description: 'How days are written: a form such as dd.mm.yyyy, or timestamp for ISO 8601 instants.',
      }),
      decimal: z.enum(['.', ',']).default('.').meta({ description: 'The decimal mark.' }),
      group: z.enum(['.', ',', ' ', "'"]).optional().meta({
        description: 'The separator of groups of three digits. Without it, such numbers are refused.',
      }),
      revenue: z.enum(['units', 'thousandths', 'micros']).default('units').meta({
        description: 'The unit of revenue: units of the currency, thousandths, or millionths.',
      }),
      splits: z.array(FieldName).max(4).default([]).meta({
        description: 'Further columns that split the numbers of one unit and day: their rows are added up.',
      }),
      settles: z.number().int().min(0).max(60).default(3).meta({
        description: 'For how many days the numbers of a day may still change.',
      }),
      http: z
        .strictObject({
          ...accessFields,
          path: z.string().regex(/^\/[\w/-]*$/, 'A path below the address.'),
          from: FieldName.meta({ description: 'The query parameter of the first day.' }),
          to: FieldName.meta({ description: 'The query parameter of the last day.' }),
          page: PageQuery,
          rows: FieldName.meta({ description: 'The field of the response with the rows.' }),
          fields: ReportFields,
          why: Why,
        })
        .optional(),
      csv: z
        .strictObject({ columns: ReportFields })
        .optional()
        .meta({ description: 'The column names of an exported table.' }),
    })
    .refine(({ http, csv }) => http !== undefined || csv !== undefined, 'Describe http, csv, or both.')
    .meta({ description: 'How the network’s daily numbers are imported.' }),
);
export type Report = z.output<typeof Report>;
export type ReportHttp = NonNullable<Report['http']>;

function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}
