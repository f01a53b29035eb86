import type { PbxDict, PbxEntry, PbxValue } from '../../../formats/pbxproj/read.js';

/** A build configuration: its settings dictionary and the file it is based on. */
export interface Configuration {
  id: string;
  name: string;
  settings: PbxDict | null;
  /** Path of the base configuration file in the tree; null when it has none. */
  base: string | null;
  /** The configuration as it is in the project file. */
  value: PbxValue | undefined;
}

/** An application target with its configurations and, beside each, the project's of the same name. */
export interface AppTarget {
  id: string;
  name: string;
  entry: PbxEntry;
  configurations: { own: Configuration; project: Configuration | null }[];
}

/** A project file, read. */
export interface XcodeProject {
  /** Path of `project.pbxproj`. */
  path: string;
  /** What build settings call SRCROOT: the folder that holds the `.xcodeproj`, unless the project names another one. */
  folder: string;
  objects: PbxDict;
  targets: AppTarget[];
  /** Application targets of other platforms of Apple, each with the platforms that it is built for. */
  elsewhere: { name: string; platforms: string[] }[];
  /** Targets that are built into an application: extensions, watch applications. */
  extensions: { name: string; type: string; entry: PbxEntry }[];
}
