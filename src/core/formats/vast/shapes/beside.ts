import { any, may, resources, size, type Shapes } from './rule.js';

/** Non-linear ads and companions. */
export const besideShapes: Shapes = {
  NonLinearAds: {
    section: '3.12',
    children: { NonLinear: any('NonLinear'), TrackingEvents: may('TrackingEvents') },
  },
  NonLinear: {
    section: '3.12.1',
    attributes: {
      id: { is: 'text' },
      ...size,
      expandedWidth: { is: 'integer' },
      expandedHeight: { is: 'integer' },
      scalable: { is: 'boolean' },
      maintainAspectRatio: { is: 'boolean' },
      minSuggestedDuration: { is: 'time' },
      apiFramework: { is: 'text' },
    },
    children: {
      ...resources,
      AdParameters: may('AdParameters'),
      NonLinearClickThrough: may('Url'),
      NonLinearClickTracking: any('Click', '3.0'),
    },
  },
  CompanionAds: {
    section: '3.13',
    attributes: { required: { is: ['all', 'any', 'none'], since: '3.0' } },
    children: { Companion: any('Companion') },
  },
  Companion: {
    section: '3.13.1',
    attributes: {
      id: { is: 'text' },
      ...size,
      assetWidth: { is: 'integer', since: '3.0' },
      assetHeight: { is: 'integer', since: '3.0' },
      expandedWidth: { is: 'integer' },
      expandedHeight: { is: 'integer' },
      apiFramework: { is: 'text' },
      adSlotID: { is: 'text', since: '3.0' },
      adSlotId: { is: 'text', since: '4.0' },
      pxratio: { is: 'number', since: '4.0' },
      renderingMode: { is: 'text', since: '4.1' },
    },
    children: {
      ...resources,
      AdParameters: may('AdParameters'),
      AltText: may('Text'),
      CompanionClickThrough: may('Url'),
      CompanionClickTracking: any('Click', '3.0'),
      TrackingEvents: may('TrackingEvents'),
    },
  },
};
