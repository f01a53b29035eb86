import { escapeXml } from '../text/escape-xml.js';

/** What a VAST document is written from. */
export interface VastAdText {
  id: string;
  system: string;
  title: string;
  servingId: string;
  /** The universal ad ID of the creative. */
  universalId: { registry: string; value: string };
  impressions: readonly string[];
  errors: readonly string[];
  /** In whole seconds. */
  seconds: number;
  /** From which second on it can be skipped; never where it is left out. */
  skip?: number | undefined;
  trackers: readonly { event: string; url: string }[];
  clickThrough: string;
  clickTracking: readonly string[];
  media: readonly { url: string; width: number; height: number; bitrate: number }[];
}

/** Writes a VAST 4.2 document; without an ad where there is none. */
export function writeVast(ad: VastAdText | null, errors: readonly string[] = []): string {
  const inside = ad === null ? errors.map((url) => element('Error', url, 1)) : adLines(ad);
  return ['<?xml version="1.0" encoding="UTF-8"?>', '<VAST version="4.2">', ...inside, '</VAST>', ''].join(
    '\n',
  );
}

function adLines(ad: VastAdText): string[] {
  const skip = ad.skip === undefined ? '' : ` skipoffset="${clock(ad.skip)}"`;
  return [
    `  <Ad id="${escapeXml(ad.id)}">`,
    '    <InLine>',
    element('AdSystem', ad.system, 3),
    element('AdTitle', ad.title, 3),
    element('AdServingId', ad.servingId, 3),
    ...ad.impressions.map((url) => element('Impression', url, 3)),
    ...ad.errors.map((url) => element('Error', url, 3)),
    '      <Creatives>',
    `        <Creative id="${escapeXml(ad.id)}">`,
    `          <UniversalAdId idRegistry="${escapeXml(ad.universalId.registry)}">${escapeXml(ad.universalId.value)}</UniversalAdId>`,
    `          <Linear${skip}>`,
    element('Duration', clock(ad.seconds), 6),
    '            <TrackingEvents>',
    ...ad.trackers.map(
      ({ event, url }) => `              <Tracking event="${escapeXml(event)}">${escapeXml(url)}</Tracking>`,
    ),
    '            </TrackingEvents>',
    '            <VideoClicks>',
    element('ClickThrough', ad.clickThrough, 7),
    ...ad.clickTracking.map((url) => element('ClickTracking', url, 7)),
    '            </VideoClicks>',
    '            <MediaFiles>',
    ...ad.media.map(
      ({ url, width, height, bitrate }) =>
        `              <MediaFile delivery="progressive" type="video/mp4" width="${width}" height="${height}" bitrate="${bitrate}">${escapeXml(url)}</MediaFile>`,
    ),
    '            </MediaFiles>',
    '          </Linear>',
    '        </Creative>',
    '      </Creatives>',
    '    </InLine>',
    '  </Ad>',
  ];
}

function element(name: string, text: string, depth: number): string {
  return `${'  '.repeat(depth)}<${name}>${escapeXml(text)}</${name}>`;
}

/** Whole seconds as `HH:MM:SS` (VAST 4.2, section 3.8.1). */
function clock(seconds: number): string {
  const parts = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return parts.map((part) => String(part).padStart(2, '0')).join(':');
}
