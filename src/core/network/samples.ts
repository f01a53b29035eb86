import { type IdKind } from './model.js';
import { platforms, type Format, type Platform } from '../words/words.js';

/** An ID that a network publishes for testing. */
export interface Sample {
  id: string;
  platform: Platform;
  format?: Format;
  /** The field below `samples` in which it is. */
  path: string[];
}

/** Every sample of an ID kind, with the platform and format that it is for. */
export function samplesOf(kind: IdKind): Sample[] {
  return platforms.flatMap((platform): Sample[] => {
    const samples = kind.samples[platform];
    if (samples === undefined) return [];
    if (typeof samples === 'string') return [{ id: samples, platform, path: [platform] }];
    return (Object.entries(samples) as [Format, string][]).map(([format, id]) => ({
      id,
      platform,
      format,
      path: [platform, format],
    }));
  });
}
