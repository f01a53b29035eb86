// The Debian packages that the tests need. Run by itself, it installs those that are missing, where it may.
import { fileURLToPath } from 'node:url';
import { chromiumPath, ensurePackages } from './browser.mjs';

/** Programs of others that judge what the tests make, by their package: a file of each, what for, and its commands. */
export const judges = {
  chromium: { file: chromiumPath, why: 'the console is tried in it', commands: ['chromium'] },
  'libplist-utils': { file: '/usr/bin/plistutil', why: 'reads property lists', commands: ['plistutil'] },
  'gnustep-base-runtime': {
    file: '/usr/bin/plparse',
    why: 'reads Xcode project files',
    commands: ['plparse'],
  },
  'libxml2-utils': { file: '/usr/bin/xmllint', why: 'reads XML', commands: ['xmllint'] },
  aapt: { file: '/usr/bin/aapt', why: 'compiles Android resources', commands: ['aapt'] },
  'android-framework-res': {
    file: '/usr/share/android-framework-res/framework-res.apk',
    why: 'what Android resources are compiled against',
    commands: ['aapt'],
  },
  git: { file: '/usr/bin/git', why: 'applies patches', commands: ['git'] },
  openssl: { file: '/usr/bin/openssl', why: 'makes a certificate for a proxy', commands: ['openssl'] },
  'default-jdk-headless': { file: '/usr/bin/javac', why: 'compiles Java', commands: ['javac'] },
  kotlin: { file: '/usr/bin/kotlinc', why: 'compiles Kotlin', commands: ['kotlinc'] },
  clang: { file: '/usr/bin/clang', why: 'compiles Objective-C', commands: ['clang'] },
  'mono-mcs': { file: '/usr/bin/mcs', why: 'compiles C#', commands: ['mcs'] },
  zsh: { file: '/usr/bin/zsh', why: 'completes commands', commands: ['zsh'] },
  fish: { file: '/usr/bin/fish', why: 'completes commands', commands: ['fish'] },
  'mono-runtime': { file: '/usr/bin/mono', why: 'runs C#', commands: ['mono'] },
};

if (process.argv[1] === fileURLToPath(import.meta.url)) process.exit(ensurePackages(judges) ? 0 : 1);
