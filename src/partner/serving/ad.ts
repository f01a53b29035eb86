import type { Format, Platform } from '../../core/words/words.js';

/** What a device asks for. */
export interface AdAsk {
  unit: string;
  /** The application that asks; a tag does not say. */
  identifier?: string | undefined;
  platform?: Platform | undefined;
  /** The formats that it can show. */
  formats?: readonly Format[] | undefined;
  /** What names the device, for those that are registered for testing. */
  device?: string | undefined;
  /** Whether it asks for an ad that nobody pays for. */
  isTest?: boolean | undefined;
  /** Whether it is a build of developers. */
  isDevelopment?: boolean | undefined;
  /** Whether whoever looks at it is a child (COPPA). */
  isChild?: boolean | undefined;
  /** The least that is taken for a thousand impressions. */
  floor?: number | undefined;
}

/** An ad that is given. */
export interface GivenAd {
  unit: string;
  /** Whose unit it is; null for a sample. */
  account: number | null;
  format: Format;
  isTest: boolean;
  isDevelopment: boolean;
  /** For a thousand impressions; 0 for a test ad. */
  price: number;
}
