import type { Format, Platform } from '../../core/words/words.js';

/** An ad request of a device. */
export interface AdAsk {
  unit: string;
  /** The application identifier; a tag does not carry it. */
  identifier?: string | undefined;
  platform?: Platform | undefined;
  /** The app ID, where the network gives one out. */
  app?: string | undefined;
  /** The formats that the request accepts. */
  formats?: readonly Format[] | undefined;
  /** The device ID, which identifies registered test devices. */
  device?: string | undefined;
  /** Whether the request is in test mode. */
  isTest?: boolean | undefined;
  /** Whether it comes from a development build. */
  isDevelopment?: boolean | undefined;
  /** Whether the user is a child (COPPA). */
  isChild?: boolean | undefined;
  /** The floor price per thousand impressions (CPM). */
  floor?: number | undefined;
}

/** An ad that was served. */
export interface GivenAd {
  unit: string;
  /** Whose unit it is; null for a sample. */
  account: number | null;
  format: Format;
  isTest: boolean;
  isDevelopment: boolean;
  /** Price per thousand impressions (CPM); 0 for a test ad. */
  price: number;
}
