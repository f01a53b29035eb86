import type { XmlElement } from '../xml/model.js';
import { attribute, elements, textOf } from '../xml/query.js';
import { readXml } from '../xml/read.js';
import { lineMap, type Position } from '../../text/line-map.js';
import type {
  Companion,
  Linear,
  MediaFile,
  VastAd,
  VastDocument,
  VastProblem,
  VastTracker,
  VastUrl,
  Verification,
} from './model.js';
import { millisecondsOf, offsetOf } from './times.js';
import { validate } from './validate.js';
import { vastVersions, versionOf } from './versions.js';

/** Ads of one document beyond this number are not read. */
export const maxAds = 100;

/**
 * Reads a VAST document, tolerantly: what is wrong is a problem with its place, and whatever a player could still make of
 * the rest is read. Versions 2.0 to 4.3 are known.
 */
export function readVast(text: string): VastDocument {
  const lines = lineMap(text);
  const at = (offset: number) => lines.at(offset);
  const xml = readXml(text);
  const broken = xml.problems.map(({ message, start }): VastProblem => ({
    severity: 'error',
    message,
    fix: 'Fix the XML first: players reject the whole document.',
    ...at(start),
  }));
  const { root } = xml;
  const none = (error: 100 | 101 | 102, problem?: VastProblem): VastDocument => ({
    version: null,
    ads: [],
    errors: [],
    problems: problem ? [...broken, problem] : broken,
    error,
  });
  if (!root || broken.length > 0) return none(100);
  if (root.name !== 'VAST') return none(root.name === 'VideoAdServingTemplate' ? 102 : 101, noVast(root, at));
  const version = versionOf(attribute(root, 'version')?.value ?? '');
  if (!version) return none(102, noVersion(root, at));
  const problems = validate(root, version, at);
  const ads = elements(root, 'Ad');
  if (ads.length > maxAds)
    problems.push({
      severity: 'warning',
      message: `There are ${ads.length} ads; only the first ${maxAds} are read.`,
      fix: 'Serve fewer: no player shows so many in a row.',
      ...at(ads[maxAds]?.start ?? root.start),
    });
  const reader = new AdReader(at);
  return {
    version,
    ads: ads.slice(0, maxAds).flatMap((ad) => reader.ad(ad) ?? []),
    errors: reader.urls(elements(root, 'Error')),
    problems: problems.sort((a, b) => a.line - b.line || a.column - b.column),
    error: problems.some(({ severity }) => severity === 'error') ? 101 : null,
  };
}

function noVast(root: XmlElement, at: (offset: number) => Position): VastProblem {
  return {
    severity: 'error',
    message:
      root.name === 'VideoAdServingTemplate'
        ? 'This is VAST 1, which players no longer support.'
        : `The root is <${root.name}>, not <VAST>: this is not a VAST document.`,
    fix:
      root.name === 'html' || root.name === 'HTML'
        ? 'The address returns a web page: check the address, and what the page says.'
        : 'Check the address of the tag.',
    ...at(root.start),
  };
}

function noVersion(root: XmlElement, at: (offset: number) => Position): VastProblem {
  const found = attribute(root, 'version');
  return {
    severity: 'error',
    section: '3.2',
    message: found
      ? `Version ${JSON.stringify(found.value.slice(0, 20))} is not supported. Supported versions: ${vastVersions.join(', ')}.`
      : 'The document does not say which version of VAST it is.',
    fix: 'Write version="4.2", or the version that the document follows.',
    ...at(found?.valueSpan.start ?? root.start),
  };
}

/** Reads the ads of one document. */
class AdReader {
  constructor(private readonly at: (offset: number) => Position) {}

  ad(element: XmlElement): VastAd | undefined {
    const inline = elements(element, 'InLine')[0];
    const body = inline ?? elements(element, 'Wrapper')[0];
    if (!body) return undefined;
    const creatives = elements(body, 'Creatives').flatMap((one) => elements(one, 'Creative'));
    const linear = creatives.flatMap((one) => elements(one, 'Linear'))[0];
    const next = this.urls(elements(body, 'VASTAdTagURI'))[0];
    const sequence = Number(attribute(element, 'sequence')?.value ?? Number.NaN);
    const servingId = this.text(body, 'AdServingId');
    const universalId = creatives.flatMap((one) => elements(one, 'UniversalAdId')).map(idOf)[0];
    return {
      kind: inline ? 'inline' : 'wrapper',
      id: attribute(element, 'id')?.value ?? null,
      sequence: Number.isInteger(sequence) ? sequence : null,
      system: this.text(body, 'AdSystem') ?? '',
      title: this.text(body, 'AdTitle') ?? '',
      ...(servingId ? { servingId } : {}),
      ...(universalId ? { universalId } : {}),
      impressions: this.urls(elements(body, 'Impression')),
      errors: this.urls(elements(body, 'Error')),
      viewable: this.urls(elements(body, 'ViewableImpression').flatMap((one) => elements(one, 'Viewable'))),
      linear: linear ? this.linear(linear) : null,
      companions: creatives
        .flatMap((one) => elements(one, 'CompanionAds'))
        .flatMap((one) => elements(one, 'Companion'))
        .map((one) => this.companion(one)),
      nonLinears: creatives
        .flatMap((one) => elements(one, 'NonLinearAds'))
        .flatMap((one) => elements(one, 'NonLinear')).length,
      verifications: elements(body, 'AdVerifications')
        .flatMap((one) => elements(one, 'Verification'))
        .map((one) => this.verification(one)),
      ...(next ? { next } : {}),
      ...(inline
        ? {}
        : {
            followsOn: this.flag(body, 'followAdditionalWrappers', true),
            allowsMany: this.flag(body, 'allowMultipleAds', false),
          }),
      ...this.at(element.start),
    };
  }

  /** The addresses that elements hold; those that hold none are left out. */
  urls(found: readonly XmlElement[]): VastUrl[] {
    return found.flatMap((element) => {
      const url = textOf(element).trim();
      return url === '' ? [] : [{ url, ...this.at(element.start) }];
    });
  }

  private linear(element: XmlElement): Linear {
    const clicks = elements(element, 'VideoClicks');
    const media = elements(element, 'MediaFiles');
    const duration = millisecondsOf(this.text(element, 'Duration') ?? '');
    const skip = offsetOf(attribute(element, 'skipoffset')?.value ?? '');
    const clickThrough = this.urls(clicks.flatMap((one) => elements(one, 'ClickThrough')))[0];
    return {
      ...(duration === undefined ? {} : { duration }),
      ...(skip ? { skip } : {}),
      media: media.flatMap((one) => elements(one, 'MediaFile')).flatMap((one) => this.media(one) ?? []),
      trackers: elements(element, 'TrackingEvents')
        .flatMap((one) => elements(one, 'Tracking'))
        .flatMap((one) => this.tracker(one) ?? []),
      ...(clickThrough ? { clickThrough } : {}),
      clickTracking: this.urls(clicks.flatMap((one) => elements(one, 'ClickTracking'))),
      icons: elements(element, 'Icons').flatMap((one) => elements(one, 'Icon')).length,
      interactive: this.urls(media.flatMap((one) => elements(one, 'InteractiveCreativeFile'))),
      ...this.at(element.start),
    };
  }

  private media(element: XmlElement): MediaFile | undefined {
    const url = this.urls([element])[0];
    const of = (name: string) => attribute(element, name)?.value ?? '';
    const number = (name: string) => (/^\d{1,9}$/.test(of(name)) ? Number(of(name)) : undefined);
    const bitrate = number('bitrate') ?? number('maxBitrate');
    const framework = of('apiFramework').trim();
    return (
      url && {
        ...url,
        type: of('type').trim().toLowerCase(),
        delivery: of('delivery').trim().toLowerCase(),
        width: number('width') ?? 0,
        height: number('height') ?? 0,
        ...(bitrate === undefined ? {} : { bitrate }),
        ...(framework === '' ? {} : { framework }),
      }
    );
  }

  private tracker(element: XmlElement): VastTracker | undefined {
    const url = this.urls([element])[0];
    const event = attribute(element, 'event')?.value;
    const offset = offsetOf(attribute(element, 'offset')?.value ?? '');
    return url && event !== undefined ? { ...url, event, ...(offset ? { offset } : {}) } : undefined;
  }

  private companion(element: XmlElement): Companion {
    const size = (name: string) => Number(attribute(element, name)?.value) || 0;
    const kinds = { StaticResource: 'static', IFrameResource: 'frame', HTMLResource: 'html' } as const;
    const resources = Object.entries(kinds).flatMap(([name, kind]) =>
      elements(element, name).map((one) => ({ kind, value: textOf(one).trim() })),
    );
    const clickThrough = this.text(element, 'CompanionClickThrough');
    return {
      width: size('width'),
      height: size('height'),
      resource: resources[0] ?? null,
      ...(clickThrough ? { clickThrough } : {}),
      ...this.at(element.start),
    };
  }

  private verification(element: XmlElement): Verification {
    const scripts = ['JavaScriptResource', 'ExecutableResource'].flatMap((name) => elements(element, name));
    return {
      vendor: attribute(element, 'vendor')?.value ?? '',
      scripts: this.urls(scripts).map(({ url }) => url),
      ...this.at(element.start),
    };
  }

  private text(element: XmlElement, name: string): string | undefined {
    const found = elements(element, name)[0];
    return found && textOf(found).trim();
  }

  private flag(element: XmlElement, name: string, usual: boolean): boolean {
    const value = attribute(element, name)?.value.trim().toLowerCase();
    return value === undefined ? usual : value === 'true' || value === '1';
  }
}

/** The universal ad ID: the text of the element, or its attribute in VAST 4.0. */
const idOf = (element: XmlElement): string =>
  textOf(element).trim() || (attribute(element, 'idValue')?.value ?? '');
