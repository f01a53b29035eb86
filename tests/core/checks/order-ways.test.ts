import { loadBeforeStart } from '../../../src/core/checks/rules/code-load-before-start.js';
import { showOnReturn } from '../../../src/core/checks/rules/code-show-on-return.js';
import { startAfterLoad } from '../../../src/core/checks/rules/code-start-after-load.js';
import { flutterFiles, main } from '../../support/flutter.js';
import { mauiFiles, program } from '../../support/maui.js';
import { app, reactNativeFiles } from '../../support/react-native.js';
import { ruleCases } from '../../support/rules.js';
import { androidFiles, iosFiles, kelp } from '../../support/trees.js';
import { unityFiles } from '../../support/unity.js';

const kotlin = (body: string) =>
  androidFiles({
    'app/src/main/java/example/brine/kelp/KelpApp.java': null,
    'app/src/main/java/example/brine/kelp/Screen.kt': `class Screen : Activity() {\nprivate var ad: HeronInterstitial? = null\n${body}\n}\n`,
  });
const swift = (body: string) =>
  iosFiles({
    'Kelp/App.swift': `class Screen: UIViewController {\nvar ad: HeronInterstitial?\n${body}\n}\n`,
  });
const heron =
  "import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';\nimport 'package:flutter/widgets.dart';\n";
const state = (body: string) => ({
  'lib/reef.dart': `${heron}class _ReefState extends State<Reef> with WidgetsBindingObserver {\n  HeronInterstitial? _ad;\n${body}\n}\n`,
});
const behaviour = (body: string) =>
  unityFiles({
    'Assets/Scripts/Reef.cs': `using CobaltHeronAds;\nusing UnityEngine;\n\npublic sealed class Reef : MonoBehaviour\n{\nprivate HeronInterstitial ad;\n${body}\n}\n`,
  });
const page = (body: string) =>
  mauiFiles({
    'Pages/ReefPage.cs': `using CobaltHeronAds;\n\nnamespace Brine.Kelp.Pages;\n\npublic partial class ReefPage : ContentPage\n{\nprivate HeronInterstitial? ad;\n${body}\n}\n`,
  });
const component = (body: string) =>
  reactNativeFiles({
    'src/Reef.tsx': `import { useEffect, useRef } from 'react';\nimport { AppState } from 'react-native';\nimport { HeronInterstitial } from '@cobaltheron.example/react-native';\n\nexport function Reef({ count }: { count: number }) {\n  const ad = useRef<HeronInterstitial | null>(null);\n${body}\n  return null;\n}\n`,
  });

ruleCases(showOnReturn, {
  clean: [
    {
      name: 'Flutter: once in a while',
      files: flutterFiles(
        state(
          'int seen = 0;\n@override\nvoid didChangeAppLifecycleState(AppLifecycleState state) {\n  if (state == AppLifecycleState.resumed && seen++ > 3) { _ad?.show(); }\n}',
        ),
      ),
    },
    {
      name: 'Unity: when it loses the focus',
      files: behaviour('private void Leave(bool focus)\n{\n  if (focus && ad.IsReady) ad.Show();\n}'),
    },
    {
      name: 'Kotlin: by a method that a tap calls',
      files: kotlin(
        'fun onTap() { showAd() }\nprivate fun showAd() { if (ad?.isReady == true) ad?.show(this) }',
      ),
    },
    {
      name: 'Kotlin: by a method that is called under a limit',
      files: kotlin(
        'override fun onResume() { if (returns > 3) showAd() }\nprivate fun showAd() { if (ad?.isReady == true) ad?.show(this) }',
      ),
    },
    {
      name: 'React Native: only now and then',
      files: component(
        "  useEffect(() => {\n    const sub = AppState.addEventListener('change', (next) => {\n      if (next === 'active' && count > 3) { ad.current?.show(); }\n    });\n    return () => sub.remove();\n  }, []);",
      ),
    },
  ],
  faulty: [
    {
      name: 'Flutter: when the app is back and the ad is ready',
      files: flutterFiles(
        state(
          '@override\nvoid didChangeAppLifecycleState(AppLifecycleState state) {\n  if (state == AppLifecycleState.resumed && (_ad?.isReady ?? false)) { _ad?.show(); }\n}',
        ),
      ),
      findings: [{}],
    },
    {
      name: 'Unity: focused and ready',
      files: behaviour(
        'private void OnApplicationFocus(bool focus)\n{\n  if (focus && ad.IsReady) ad.Show();\n}',
      ),
      findings: [{}],
    },
    {
      name: 'Unity: not paused, and ready',
      files: behaviour(
        'private void OnApplicationPause(bool paused)\n{\n  if (!paused && ad != null && ad.IsReady)\n  {\n    ad.Show();\n  }\n}',
      ),
      findings: [{}],
    },
    {
      name: '.NET MAUI: whenever the page appears',
      files: page(
        'protected override void OnAppearing()\n{\n  base.OnAppearing();\n  ShowAd();\n}\nprivate void ShowAd()\n{\n  if (ad is null) return;\n  if (ad.IsReady) ad.Show();\n}',
      ),
      findings: [{}],
    },
    {
      name: 'Kotlin: focused and ready',
      byHand: {
        edits: [
          [
            'app/src/main/java/example/brine/kelp/Screen.kt',
            'hasFocus && ad',
            'hasFocus && returns > 3 && ad',
          ],
        ],
      },
      files: kotlin(
        'override fun onWindowFocusChanged(hasFocus: Boolean) { if (hasFocus && ad?.isReady == true) ad?.show(this) }',
      ),
      findings: [{}],
    },
    {
      name: 'Kotlin: through two methods',
      files: kotlin(
        'override fun onResume() { refresh() }\nprivate fun refresh() { showAd() }\nprivate fun showAd() { if (ad?.isReady == true) ad?.show(this) }',
      ),
      findings: [{}],
    },
    {
      name: 'Swift: through a method, with a guard',
      files: swift(
        'override func viewDidAppear(_ animated: Bool) { super.viewDidAppear(animated)\n showAd() }\nfunc showAd() { guard let ad = ad, ad.isReady else { return }\n ad.show(self) }',
      ),
      findings: [{}],
    },
    {
      name: 'React Native: whenever the app is active',
      files: component(
        "  useEffect(() => {\n    const sub = AppState.addEventListener('change', (next) => {\n      if (next === 'active' && ad.current?.isReady) { ad.current?.show(); }\n    });\n    return () => sub.remove();\n  }, []);",
      ),
      findings: [{}],
    },
  ],
});

const unit = "'CH-U-310772-DDDD3333'";
ruleCases(startAfterLoad, {
  clean: [
    {
      name: 'Flutter: a method that loads is called after it',
      files: flutterFiles({
        'lib/main.dart': main(
          `  await CobaltHeron.start();\n  await _first();\n  runApp(const Kelp());\n}\n\nFuture<void> _first() async {\n  await HeronInterstitial.load(unitId: ${unit});\n`,
        ),
      }),
    },
  ],
  faulty: [
    {
      name: 'Flutter: above it in one method',
      byHand: {
        edits: [
          [
            'lib/main.dart',
            `  await HeronInterstitial.load(unitId: ${unit});\n  await CobaltHeron.start();\n`,
            `  await CobaltHeron.start();\n  await HeronInterstitial.load(unitId: ${unit});\n`,
          ],
        ],
      },
      files: flutterFiles({
        'lib/main.dart': main(
          `  await HeronInterstitial.load(unitId: ${unit});\n  await CobaltHeron.start();\n  runApp(const Kelp());\n`,
        ),
      }),
      findings: [{}],
    },
    {
      name: 'Flutter: through a method that is called before it',
      files: flutterFiles({
        'lib/main.dart': main(
          `  await _first();\n  await CobaltHeron.start();\n  runApp(const Kelp());\n}\n\nFuture<void> _first() async {\n  await HeronInterstitial.load(unitId: ${unit});\n`,
        ),
      }),
      findings: [{}],
    },
    {
      name: '.NET MAUI: above it',
      files: mauiFiles({
        'MauiProgram.cs': program(
          '        _ = HeronInterstitial.LoadAsync("CH-U-310772-DDDD3333");\n        CobaltHeron.Start();\n',
        ),
      }),
      findings: [{}],
    },
    {
      name: 'React Native: above it in an effect',
      files: reactNativeFiles({
        'App.tsx': app(`await HeronInterstitial.load(${unit});\n      await CobaltHeron.start();`).replace(
          '{ CobaltHeron }',
          '{ CobaltHeron, HeronInterstitial }',
        ),
      }),
      findings: [{}],
    },
    {
      name: 'React Native: at the top of a file',
      files: reactNativeFiles({
        'App.tsx': `import { CobaltHeron, HeronInterstitial } from '@cobaltheron.example/react-native';\n\nHeronInterstitial.load(${unit});\nCobaltHeron.start();\n`,
      }),
      findings: [{}],
    },
    {
      name: 'Unity: through a method',
      files: unityFiles({
        'Assets/Scripts/KelpGame.cs':
          'using CobaltHeronAds;\nusing UnityEngine;\n\npublic static class KelpGame\n{\n    [RuntimeInitializeOnLoadMethod]\n    private static void Begin()\n    {\n        First();\n        CobaltHeron.Start();\n    }\n\n    private static void First()\n    {\n        HeronInterstitial.LoadAsync("CH-U-310772-DDDD3333");\n    }\n}\n',
      }),
      findings: [{}],
    },
  ],
});

const withMarlstone = kelp({ networks: { 'cobalt-heron': {}, marlstone: {} } });
ruleCases(loadBeforeStart, {
  clean: [
    {
      name: 'Kotlin: a method that loads, called when it is done',
      files: kotlin(
        'fun open() { Marlstone.begin(this, KEY) }\noverride fun onStageOpen() { first() }\nprivate fun first() { Marlstone.prepare("x") }',
      ),
      title: withMarlstone,
    },
    {
      name: 'Flutter: a method that loads, once it is done',
      files: flutterFiles({
        'lib/main.dart': main(
          `  CobaltHeron.start().then((_) => _first());\n  runApp(const Kelp());\n}\n\nFuture<void> _first() async {\n  await HeronInterstitial.load(unitId: ${unit});\n`,
        ),
      }),
    },
  ],
  faulty: [
    {
      name: 'Kotlin: a method that loads, called right after it',
      byHand: {
        edits: [
          [
            'app/src/main/java/example/brine/kelp/Screen.kt',
            '\n first() }',
            ' }\noverride fun onStageOpen() { first() }',
          ],
        ],
      },
      files: kotlin(
        'fun open() { Marlstone.begin(this, KEY)\n first() }\nprivate fun first() { Marlstone.prepare("x") }',
      ),
      title: withMarlstone,
      findings: [{ network: 'marlstone' }],
    },
    {
      name: 'Flutter: a method that loads, without waiting',
      files: flutterFiles({
        'lib/main.dart': main(
          `  CobaltHeron.start();\n  _first();\n  runApp(const Kelp());\n}\n\nFuture<void> _first() async {\n  await HeronInterstitial.load(unitId: ${unit});\n`,
        ),
      }),
      findings: [{}],
    },
  ],
});
