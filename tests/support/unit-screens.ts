import { flutterFiles, screen as dartScreen } from './flutter.js';
import { mauiFiles, reefPage } from './maui.js';
import { reactNativeFiles, screen as scriptScreen } from './react-native.js';
import { androidFiles, iosFiles } from './trees.js';
import { reef, unityFiles } from './unity.js';

/*
 * Small projects in which a screen asks for a banner: `unit` is the expression that it gives, `more` stands in the class of
 * the screen (in Dart and TypeScript above it), and `other` behind it or in files of its own.
 */

export const kotlin = (unit: string, more: string, other = '') =>
  androidFiles({
    'app/src/main/java/example/brine/kelp/Screen.kt': `class Screen(private val ids: AdIds) : Activity() {\n${more}\nfun go() { BannerView(this, ${unit}) }\n}\n${other}`,
  });

export const java = (unit: string, more: string, other = '') =>
  androidFiles({
    'app/src/main/java/example/brine/kelp/Screen.java': `class Screen extends Activity {\n  private final AdIds ids;\n${more}\nvoid go() { HeronBanner.load(this, ${unit}, null); }\n}\n${other}`,
  });

export const swift = (unit: string, more: string, other = '') =>
  iosFiles({
    'Kelp/App.swift': `class Screen: UIViewController {\n  let ids: AdIds\n${more}\nfunc go() { BannerView(unit: ${unit}) }\n}\n${other}`,
  });

export const dart = (unit: string, more: string, other: Record<string, string> = {}) =>
  flutterFiles({
    'lib/reef.dart': dartScreen(unit, `import 'package:flutter/foundation.dart';\n${more}`),
    ...other,
  });

export const script = (unit: string, more: string, other: Record<string, string> = {}) =>
  reactNativeFiles({ 'src/Reef.tsx': scriptScreen(unit, more), ...other });

export const maui = (unit: string, more: string, other: Record<string, string> = {}) =>
  mauiFiles({ 'Pages/ReefPage.cs': reefPage(unit, more), ...other });

export const unity = (unit: string, more: string, other: Record<string, string> = {}) =>
  unityFiles({ 'Assets/Scripts/Reef.cs': reef(unit, more), ...other });
