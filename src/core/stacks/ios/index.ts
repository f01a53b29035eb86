import { delegateNeedles } from './survey/app-delegate.js';
import { documentFiles } from '../common/documents.js';
import type { Stack } from '../stack.js';
import { nativeIos as description } from './description.js';
import { declaredOnIos } from './survey/declared.js';
import { surveyIos } from './survey/index.js';
import { unwireIos } from './unwire/index.js';
import { recogniseIos } from './recognise.js';
import { wireIos } from './wire/index.js';

/** Native iOS: Xcode projects with an application target. */
export const nativeIos: Stack = {
  ...description,
  collect: [
    { name: 'project.pbxproj' },
    { suffix: '.plist' },
    { suffix: '.xcconfig' },
    { name: 'Podfile' },
    { name: 'Podfile.lock' },
    { name: 'Package.resolved' },
    { name: 'contents.xcworkspacedata' },
    { suffix: '.storyboard', needle: true },
    { suffix: '.xib', needle: true },
    { suffix: '.xcprivacy' },
    { name: 'Placebook.swift' },
    { name: 'Placebook.h' },
    { name: 'Placebook.m' },
    { suffix: '.swift', needle: true },
    { suffix: '.m', needle: true },
    { suffix: '.mm', needle: true },
    ...documentFiles,
  ],
  writes: ['swift', 'objective-c'],
  // Which class the app is given as its delegate.
  needles: [...delegateNeedles],
  folders: [],
  skips: ['Pods', 'Carthage', 'DerivedData', 'xcuserdata', '.build'],
  recognise: recogniseIos,
  survey: surveyIos,
  wire: wireIos,
  unwire: unwireIos,
  declared: declaredOnIos,
};
