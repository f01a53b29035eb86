/** An element as tests write it: its name, attributes, and children or text. */
export interface Node {
  name: string;
  attributes: Record<string, string>;
  children: Node[];
  text: string;
}

export const node = (
  name: string,
  attributes: Record<string, string> = {},
  inside: Node[] | string = [],
): Node => ({
  name,
  attributes,
  children: typeof inside === 'string' ? [] : inside,
  text: typeof inside === 'string' ? inside : '',
});

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

export function xml({ name, attributes, children, text }: Node, indent = ''): string {
  const open = `${indent}<${name}${Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escaped(value)}"`)
    .join('')}>`;
  if (children.length === 0) return `${open}${escaped(text)}</${name}>\n`;
  return `${open}\n${children.map((child) => xml(child, `${indent}  `)).join('')}${indent}</${name}>\n`;
}

const host = 'https://ads.tallowfield.example';

export interface AdParts {
  id?: string;
  sequence?: number;
  seconds?: number;
  skip?: string;
  /** What its addresses begin with, so that ads can be told apart. */
  at?: string;
  media?: Node[];
  version?: string;
}

export const mediaFile = (name: string, more: Record<string, string> = {}): Node =>
  node(
    'MediaFile',
    { delivery: 'progressive', type: 'video/mp4', width: '1280', height: '720', bitrate: '1500', ...more },
    `${host}/${name}.mp4`,
  );

const twoDigits = (number: number) => String(number).padStart(2, '0');
export const time = (seconds: number) =>
  `${twoDigits(Math.floor(seconds / 3600))}:${twoDigits(Math.floor(seconds / 60) % 60)}:${twoDigits(seconds % 60)}`;

const events = [
  'start',
  'firstQuartile',
  'midpoint',
  'thirdQuartile',
  'complete',
  'pause',
  'resume',
  'mute',
  'unmute',
  'skip',
  'closeLinear',
  'playerExpand',
  'playerCollapse',
];

const trackers = (at: string) => [
  ...events.map((event) => node('Tracking', { event }, `${host}/${at}/${event}`)),
  node('Tracking', { event: 'progress', offset: '00:00:02' }, `${host}/${at}/progress`),
];

/** An ad of its own, with all that VAST 4.2 asks for. */
export function inline({
  id = 'ad',
  sequence,
  seconds = 15,
  skip,
  at = 'in',
  media = [mediaFile('film')],
}: AdParts = {}): Node {
  return node('Ad', { id, ...(sequence === undefined ? {} : { sequence: String(sequence) }) }, [
    node('InLine', {}, [
      node('AdSystem', { version: '1' }, 'Tallowfield'),
      node('AdTitle', {}, 'Evening tide'),
      node('AdServingId', {}, 'tf-1'),
      node('Impression', { id: 'i' }, `${host}/${at}/impression?n=[CACHEBUSTING]`),
      node('Category', { authority: `${host}/categories` }, 'sea'),
      node('Description', {}, 'Tides'),
      node('Advertiser', { id: 'a' }, 'Saltmarsh'),
      node('Pricing', { model: 'CPM', currency: 'EUR' }, '2.5'),
      node('Expires', {}, '3600'),
      node('Error', {}, `${host}/${at}/error?c=[ERRORCODE]`),
      node('ViewableImpression', { id: 'v' }, [node('Viewable', {}, `${host}/${at}/viewable`)]),
      node('AdVerifications', {}, [
        node('Verification', { vendor: 'gauge.example' }, [
          node('JavaScriptResource', { apiFramework: 'omid', browserOptional: 'true' }, `${host}/gauge.js`),
        ]),
      ]),
      node('Creatives', {}, [
        node('Creative', { id: 'c', sequence: '1' }, [
          node('UniversalAdId', { idRegistry: 'registry.tallowfield.example' }, 'TF1'),
          node('Linear', skip === undefined ? {} : { skipoffset: skip }, [
            node('Duration', {}, time(seconds)),
            node('TrackingEvents', {}, trackers(at)),
            node('VideoClicks', {}, [
              node('ClickThrough', {}, `${host}/${at}/shop`),
              node('ClickTracking', {}, `${host}/${at}/click`),
            ]),
            node('MediaFiles', {}, media),
          ]),
          node('CompanionAds', { required: 'any' }, [
            node('Companion', { width: '300', height: '250' }, [
              node('StaticResource', { creativeType: 'image/png' }, `${host}/card.png`),
              node('CompanionClickThrough', {}, `${host}/card`),
            ]),
          ]),
        ]),
      ]),
    ]),
  ]);
}

/** A wrapper that leads to another document. */
export function wrapper(next: string, more: Record<string, string> = {}, at = 'wrap'): Node {
  return node('Ad', { id: 'wrapper' }, [
    node('Wrapper', more, [
      node('AdSystem', {}, 'Marsh Exchange'),
      node('VASTAdTagURI', {}, next),
      node('Impression', {}, `${host}/${at}/impression`),
      node('Error', {}, `${host}/${at}/error?c=[ERRORCODE]`),
      node('Creatives', {}, [
        node('Creative', {}, [node('Linear', {}, [node('TrackingEvents', {}, trackers(at))])]),
      ]),
    ]),
  ]);
}

export const vast = (ads: Node[], version = '4.2'): Node => node('VAST', { version }, ads);
export const tag = (...ads: Node[]): string => xml(vast(ads));
