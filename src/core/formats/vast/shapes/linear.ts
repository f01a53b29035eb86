import { any, may, must, resources, size, some, url, type Shapes } from './rule.js';

/** Attributes that media files and mezzanine files share. */
const fileAttributes = {
  id: { is: 'text' },
  delivery: { is: ['streaming', 'progressive'], required: true },
  type: { is: 'text', required: true },
  ...size,
  codec: { is: 'text', since: '3.0' },
  fileSize: { is: 'integer', since: '4.1' },
  mediaType: { is: 'text', since: '4.1' },
} as const;

/** What a wrapper may add to a linear ad. */
const besideFilm = {
  TrackingEvents: may('TrackingEvents'),
  VideoClicks: may('VideoClicks'),
  Icons: may('Icons', '3.0'),
} as const;

/** Linear ads, with their media files, clicks and icons. */
export const linearShapes: Shapes = {
  Linear: {
    section: '3.8',
    attributes: { skipoffset: { is: 'offset', since: '3.0' } },
    children: {
      ...besideFilm,
      Duration: must('Duration'),
      MediaFiles: must('MediaFiles'),
      AdParameters: may('AdParameters'),
    },
  },
  WrapperLinear: { section: '3.8', children: besideFilm },
  Duration: { section: '3.8.1', content: 'time' },
  AdParameters: {
    section: '3.8.2',
    content: 'text',
    attributes: { xmlEncoded: { is: 'boolean', since: '3.0' } },
  },
  MediaFiles: {
    section: '3.9',
    children: {
      MediaFile: some('MediaFile'),
      Mezzanine: any('Mezzanine', '4.0'),
      InteractiveCreativeFile: any('InteractiveCreativeFile', '4.0'),
      ClosedCaptionFiles: may('ClosedCaptionFiles', '4.1'),
    },
  },
  MediaFile: {
    section: '3.9.1',
    content: 'url',
    attributes: {
      ...fileAttributes,
      bitrate: { is: 'integer' },
      minBitrate: { is: 'integer', since: '3.0' },
      maxBitrate: { is: 'integer', since: '3.0' },
      scalable: { is: 'boolean' },
      maintainAspectRatio: { is: 'boolean' },
      apiFramework: { is: 'text' },
    },
  },
  Mezzanine: { section: '3.9.2', content: 'url', attributes: fileAttributes },
  InteractiveCreativeFile: {
    section: '3.9.3',
    content: 'url',
    attributes: {
      type: { is: 'text' },
      apiFramework: { is: 'text' },
      variableDuration: { is: 'boolean', since: '4.1' },
    },
  },
  ClosedCaptionFiles: { section: '3.9.4', children: { ClosedCaptionFile: any('ClosedCaptionFile') } },
  ClosedCaptionFile: {
    section: '3.9.5',
    content: 'url',
    attributes: { type: { is: 'text' }, language: { is: 'text' } },
  },
  VideoClicks: {
    section: '3.10',
    children: { ClickThrough: may('Click'), ClickTracking: any('Click'), CustomClick: any('Click') },
  },
  Click: url('3.10'),
  Icons: { section: '3.11', children: { Icon: some('Icon') } },
  Icon: {
    section: '3.11.1',
    attributes: {
      program: { is: 'text' },
      width: { is: 'integer' },
      height: { is: 'integer' },
      xPosition: { is: 'text' },
      yPosition: { is: 'text' },
      duration: { is: 'time' },
      offset: { is: 'time' },
      apiFramework: { is: 'text' },
      pxratio: { is: 'number', since: '4.1' },
      altText: { is: 'text', since: '4.3' },
      hoverText: { is: 'text', since: '4.3' },
    },
    children: { ...resources, IconClicks: may('IconClicks'), IconViewTracking: any('Url') },
  },
  IconClicks: {
    section: '3.11.3',
    children: {
      IconClickThrough: may('Url'),
      IconClickTracking: any('Click'),
      IconClickFallbackImages: may('Free', '4.2'),
    },
  },
};
