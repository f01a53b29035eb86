import { folderOf } from '../../text/paths.js';
import type { Stack } from '../stack.js';
import { declaredOnIos } from './declared.js';
import { projectPaths, readProject } from './project.js';
import { surveyIos } from './survey.js';
import { unwireIos } from './unwire.js';
import { wireIos } from './wire.js';

/** Native iOS: Xcode projects with an application target. */
export const nativeIos: Stack = {
  id: 'native-ios',
  name: 'native iOS',
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
  ],
  writes: ['swift', 'objective-c'],
  needles: [],
  folders: [],
  recognise(tree) {
    const projects = projectPaths(tree).flatMap((path) => readProject(tree, path) ?? []);
    const withApps = projects.filter(({ targets }) => targets.length > 0);
    return [...new Set(withApps.map(({ folder }) => folder))].map((root) => ({
      root,
      evidence: withApps.flatMap(({ folder, path, targets }) => {
        if (folder !== root) return [];
        return [`${folderOf(path)} has the application target ${targets.map(({ name }) => name).join(', ')}`];
      }),
    }));
  },
  survey: surveyIos,
  wire: wireIos,
  unwire: unwireIos,
  declared: declaredOnIos,
};
