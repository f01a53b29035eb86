import * as z from 'zod';
import { BidRequest } from '../core/standards/openrtb.js';
import { controlBodies } from './control-bodies.js';
import { refusals } from './errors.js';
import { DeliveryRequest } from './serving/delivery.js';
import { adEventNames } from './store/ledger.js';

type Json = Record<string, unknown>;

interface Described {
  summary: string;
  query?: Record<string, string>;
  body?: z.ZodType;
  /** What is answered, by status; `json` for a document without a shape of its own. */
  answers: Record<string, { says: string; type?: string }>;
}

const json = 'application/json';
const fine = (says: string, type = json): Described['answers'] => ({ 200: { says, type } });

/** Everything but the control calls, by path and method. */
const open: Record<string, Record<string, Described>> = {
  '/healthz': {
    get: { summary: 'Which networks there are, and what time it is.', answers: fine('It answers.') },
  },
  '/openapi.json': { get: { summary: 'This document.', answers: fine('The document.') } },
  '/store/{platform}/{identifier}': {
    get: { summary: 'Whether a store lists an application.', answers: fine('The listing.') },
  },
  '/{network}': {
    get: { summary: 'The page of a network, for a person.', answers: fine('The page.', 'text/html') },
  },
  '/{network}/terms/{app}': {
    post: { summary: 'Accepts the terms, from that page.', answers: { 303: { says: 'Back to the page.' } } },
  },
  '/{network}/crawl': {
    post: {
      summary: 'What the crawler finds in app-ads.txt.',
      answers: fine('A state for each application.'),
    },
  },
  '/{network}/serve/openrtb': {
    post: {
      summary: 'Asks for ads: OpenRTB 2.6, with Native 1.2.',
      body: BidRequest,
      answers: {
        ...fine('A bid response, or the reasons why there is no bid (nbr, ext.reasons).'),
        204: { says: 'No ad this time.' },
      },
    },
  },
  '/{network}/serve/tag': {
    get: {
      summary: 'Requests a video ad as VAST 4.2.',
      query: {
        unit: 'The unit, which is the address of a tag.',
        device: 'The device ID, which identifies registered test devices.',
        development: '1 for a development build.',
        child: '1 if the user is a child.',
      },
      answers: {
        ...fine('A document; without an ad where Ad-Refused says why.', 'application/xml'),
        204: { says: 'No ad this time.' },
      },
    },
  },
  '/at/{host}/{path}': {
    post: {
      summary:
        'Asks for ads where a profile says that its SDK asks: /at/HOST/PATH stands for https://HOST/PATH.',
      body: BidRequest,
      answers: {
        ...fine('A bid response, or the reasons why there is no bid (nbr, ext.reasons).'),
        204: { says: 'No ad this time.' },
      },
    },
    get: {
      summary: 'A tag as it is on record: /at/HOST/PATH stands for https://HOST/PATH.',
      answers: {
        ...fine('A document; without an ad where Ad-Refused says why.', 'application/xml'),
        204: { says: 'No ad this time.' },
      },
    },
  },
  '/{network}/serve/track/{ad}/{event}': {
    get: {
      summary: `Records an event of an ad, once each: ${adEventNames.join(', ')}.`,
      answers: { ...fine('Whether it counted.'), 409: { says: 'It was already recorded.', type: json } },
    },
  },
  '/{network}/serve/notification': {
    post: {
      summary: 'Delivers a notification to a device; the header Push-Credential has the credential.',
      body: DeliveryRequest,
      answers: { ...fine('What was delivered.'), 204: { says: 'Nothing to deliver this time.' } },
    },
  },
  '/{network}/serve/video/{name}': {
    get: { summary: 'A media file.', answers: fine('Its bytes.', 'video/mp4') },
  },
  '/{network}/serve/picture': {
    get: { summary: 'A picture.', answers: fine('Its bytes.', 'image/png') },
  },
  '/{network}/{path}': {
    get: {
      summary: 'A list of the network, in the words of its profile.',
      answers: fine('A page of the list.'),
    },
    post: {
      summary: 'Creates an application or a unit, in the words of its profile.',
      answers: { 201: { says: 'What was made.', type: json } },
    },
    patch: { summary: 'Changes a unit, in the words of its profile.', answers: fine('The unit.') },
  },
};

const Refused = z.object({
  error: z.looseObject({ code: z.enum(Object.keys(refusals) as [string, ...string[]]), message: z.string() }),
});

/** The OpenAPI 3.1 document of the partner, from the table of its control calls and that of all else. */
export function partnerDocument(): Json {
  const others = Object.entries(open).map(([path, methods]): [string, Json] => [
    path,
    Object.fromEntries(
      Object.entries(methods).map(([method, described]) => [method, operation(path, described)]),
    ),
  ]);
  const controls = Object.entries(controlBodies).map(([name, { body, summary }]): [string, Json] => {
    const path = `/control/${name}`;
    const post = operation(path, { summary, body, answers: fine('Done.') });
    return [path, { post: { ...post, security: [{ control: [] }] } }];
  });
  const paths = Object.fromEntries([...others, ...controls]);
  return {
    openapi: '3.1.0',
    info: { title: 'The simulated partner', version: '1' },
    paths,
    components: {
      securitySchemes: { control: { type: 'apiKey', in: 'header', name: 'Control-Token' } },
      schemas: { Refused: schemaOf(Refused) },
    },
  };
}

function operation(path: string, { summary, query = {}, body, answers }: Described): Json {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const inQuery = Object.entries(query).map(([name, description]) => ({
    name,
    in: 'query',
    required: name === 'unit',
    description,
    schema: { type: 'string' },
  }));
  const responses = Object.fromEntries(
    Object.entries(answers).map(([status, { says, type }]) => [
      status,
      { description: says, ...(type ? { content: { [type]: {} } } : {}) },
    ]),
  );
  return {
    summary,
    ...(inPath.length + inQuery.length > 0 ? { parameters: [...inPath, ...inQuery] } : {}),
    ...(body ? { requestBody: { required: true, content: { [json]: { schema: schemaOf(body) } } } } : {}),
    responses: {
      ...responses,
      default: {
        description: 'It is refused, and why.',
        content: { [json]: { schema: { $ref: '#/components/schemas/Refused' } } },
      },
    },
  };
}

function schemaOf(type: z.ZodType): Json {
  const { $schema: _, ...schema } = z.toJSONSchema(type, { io: 'input', unrepresentable: 'any' }) as Json;
  return schema;
}
