import { documentFiles } from '../common/documents.js';
import type { Stack } from '../stack.js';
import { flutter as description } from './description.js';
import { declaredInPubspec } from './survey/declared.js';
import { surveyFlutter } from './survey/index.js';
import { unwireFlutter } from './unwire/index.js';
import { wireFlutter } from './wire/index.js';
import { recogniseFlutter } from './recognise.js';

/** Flutter: a pubspec that depends on the Flutter SDK, with native trees beside it. */
export const flutter: Stack = {
  ...description,
  collect: [
    { name: 'pubspec.yaml' },
    { name: 'pubspec_overrides.yaml' },
    { name: 'pubspec.lock' },
    { name: 'placebook.dart' },
    { suffix: '.dart', needle: true },
    ...documentFiles,
  ],
  writes: ['dart', 'kotlin', 'java', 'swift', 'objective-c'],
  // Where the application begins, which networks are started in.
  needles: ['runApp('],
  folders: [],
  skips: ['.dart_tool', '.pub-cache', '.symlinks', 'ephemeral'],
  recognise: recogniseFlutter,
  survey: surveyFlutter,
  wire: wireFlutter,
  unwire: unwireFlutter,
  declared: declaredInPubspec,
};
