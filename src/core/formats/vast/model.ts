import type { Offset } from './times.js';
import type { VastVersion } from './versions.js';

/** Where something is in a document; line and column count from 1. */
export interface VastPlace {
  line: number;
  column: number;
}

/** An address that is called, or shown; with where it is written. */
export interface VastUrl extends VastPlace {
  url: string;
}

export interface VastTracker extends VastUrl {
  event: string;
  /** When a `progress` event is due. */
  offset?: Offset;
}

/** A media file. The bit rate is in kilobits per second. */
export interface MediaFile extends VastUrl {
  type: string;
  delivery: string;
  width: number;
  height: number;
  bitrate?: number;
  /** A framework that has to run for the file to play. */
  framework?: string;
}

export interface Companion extends VastPlace {
  width: number;
  height: number;
  /** What kind of thing is shown, and its address, or its text for HTML. */
  resource: { kind: 'static' | 'frame' | 'html'; value: string } | null;
  clickThrough?: string;
}

/** A script that measures whether an ad is seen. */
export interface Verification extends VastPlace {
  vendor: string;
  scripts: string[];
}

/** A linear ad, or what a wrapper adds to one. */
export interface Linear extends VastPlace {
  /** In milliseconds; absent in wrappers, and where it cannot be read. */
  duration?: number;
  skip?: Offset;
  media: MediaFile[];
  trackers: VastTracker[];
  clickThrough?: VastUrl;
  clickTracking: VastUrl[];
  icons: number;
  /** Interactive creative files, which need more than a video player. */
  interactive: VastUrl[];
}

export interface VastAd extends VastPlace {
  kind: 'inline' | 'wrapper';
  id: string | null;
  /** Its place in a pod. */
  sequence: number | null;
  system: string;
  title: string;
  servingId?: string;
  universalId?: string;
  impressions: VastUrl[];
  errors: VastUrl[];
  viewable: VastUrl[];
  linear: Linear | null;
  companions: Companion[];
  nonLinears: number;
  verifications: Verification[];
  /** What a wrapper leads to, and whether it lets what follows lead on, and hold several ads. */
  next?: VastUrl;
  followsOn?: boolean;
  allowsMany?: boolean;
}

export interface VastProblem extends VastPlace {
  /** An error breaks the standard; a warning is what players forgive, or do without. */
  severity: 'error' | 'warning';
  message: string;
  fix: string;
  /** The section of VAST 4.2 that says so. */
  section?: string | undefined;
}

export interface VastDocument {
  version: VastVersion | null;
  ads: VastAd[];
  /** What is called when there is no ad. */
  errors: VastUrl[];
  problems: VastProblem[];
  /** The error code that the document deserves as a whole. */
  error: 100 | 101 | 102 | null;
}
