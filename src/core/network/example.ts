/**
 * A profile of a network that asks for almost everything a profile can say. Nobody uses it: faults are explained with
 * its fields, and readers are tried on it.
 */
export const exampleProfile = `profile: 1
id: brackwater
name: Brackwater
about: A network whose SDK asks a lot of the build.
site: https://pages.brackwater.example
terms: The terms are accepted per app; until then nothing serves.
ids:
  app:
    label: site number
    scope: edition
    pattern: 'bw-(?<platform>[ai])[0-9]{5}'
    platforms: { a: android, i: ios }
    needles: [bw-a, bw-i]
    samples: { android: bw-a10001, ios: bw-i10002 }
  unit:
    label: slot number
    scope: placement
    pattern: '[0-9]{7}'
    samples:
      android: { banner: '1000101', rewarded: '1000102' }
      ios: { banner: '1000201', rewarded: '1000202' }
credentials:
  list: { label: list key, scope: account, why: The list of slots is read with it. }
formats:
  banner: { refresh: { min: 30s, max: 120s }, content: [image], sizes: [standard], anchors: [bottom] }
  rewarded: { reward: true, skippable: false, timeout: { min: 1s, max: 30s }, cap: { max: 20, per: 1d } }
audiences: { allowed: [general, mixed], why: The network serves no children. }
serving-delay: 1h
app-ads:
  - { domain: brackwater.example, relationship: DIRECT, account: 'bw-{account}', why: Buyers look for it. }
serving:
  by: openrtb
  address: https://bids.brackwater.example/rtb
  keeps: 1h
  why: A bid is for one hour.
android:
  app-id:
    place: manifest
    key: example.brackwater.SITE
    resource: brackwater_site
    why: The SDK reads the site number before any code runs.
  min-sdk: { value: 23, why: The SDK is compiled against it. }
  compile-sdk: { value: 34, why: The SDK refers to resources of it. }
  kotlin: { min: 1.8.0, why: An older compiler cannot read it. }
  permissions:
    - { name: android.permission.INTERNET, why: Ads are fetched over the network. }
  repositories:
    - { url: 'https://maven.brackwater.example/release', why: The SDK is published there. }
  java: { min: 11, why: Functions of the SDK are taken into the app’s code and are compiled for level 11. }
  desugaring: { version: 2.0.3, why: The SDK calls parts of the library that older devices lack. }
  shrinker:
    - { rule: '-keep class example.brackwater.bridge.** { *; }', why: The SDK looks these classes up by name. }
  components:
    - kind: activity
      name: example.brackwater.FullScreen
      attributes: { 'android:exported': 'false', 'android:theme': '@style/Brackwater' }
      why: Full screens run in it.
  meta-data:
    - { key: example.brackwater.MEASURE, value: false, why: Measuring begins only after consent. }
    - { key: example.brackwater.SERVICES, resource: '@xml/brackwater_services', why: The SDK reads its services there. }
  merge:
    - { element: application, replace: ['android:allowBackup'], why: The SDK’s manifest says otherwise. }
    - { element: activity, name: example.brackwater.FullScreen, replace: ['android:theme'], why: The SDK has a theme of its own. }
    - { element: uses-permission, name: example.brackwater.permission.PHONE, node: remove, why: The store refuses it. }
  dependencies:
    - { coordinate: 'example.brackwater:core', version: 3.1.0, together: sdk, why: The SDK itself. }
    - { coordinate: 'example.brackwater:reward', version: 3.1.0, together: sdk, formats: [rewarded], why: Rewarded ads. }
ios:
  deployment-target: { value: '13.0', why: The SDK is built for it. }
  app-id:
    place: plist
    key: BrackwaterSite
    setting: BRACKWATER_SITE
    why: The SDK reads the site number before any code runs.
  pods:
    - { name: BrackwaterCore, version: '3.1', together: sdk, why: The SDK itself. }
    - { name: BrackwaterReward, version: '3.1', together: sdk, formats: [rewarded], why: Rewarded ads. }
  packages:
    - { url: 'https://packages.brackwater.example/sdk', product: BrackwaterCore, version: 3.1.0, why: The SDK itself. }
    - { url: 'https://packages.brackwater.example/sdk', product: BrackwaterReward, version: 3.1.0, formats: [rewarded], why: Rewarded ads. }
  linker-flags:
    - { flag: -ObjC, why: Without it parts of the SDK are left out. }
  attribution: { ids: [br4ckw8ter.skadnetwork], why: Installs are attributed through it. }
  keys:
    - { key: BrackwaterLimit, type: integer, value: 3, why: The SDK keeps three ads at most. }
    - { key: BrackwaterRate, type: real, value: 0.5, why: Half of the requests are measured. }
    - { key: LSApplicationQueriesSchemes, type: array, value: [brackwater, brackwater-store], why: Ads open these apps. }
    - key: NSAppTransportSecurity
      type: dict
      value: { NSExceptionDomains: { ads.brackwater.example: { NSIncludesSubdomains: true } } }
      why: Images come from hosts without encryption.
stacks:
  flutter: { package: brackwater_ads, version: 1.2.0, why: The SDK with its Dart interface. }
code:
  kotlin:
    imports: [example.brackwater.Brackwater]
    start: { call: Brackwater.start, completes: closure, in: application, example: 'Brackwater.start(this) { }', why: Nothing loads before it. }
    consent: { call: BrackwaterConsent.ask, completes: await, example: 'BrackwaterConsent.ask(activity)', why: The law asks for it. }
    formats:
      banner:
        load: { call: AdSlot.load, taken-by: { call: AdSlot.unitId } }
        example: 'AdSlot(context).apply { unitId = UNIT_ID }.load()'
      rewarded:
        load: { call: RewardLoader.load, taken-by: { call: RewardLoader.Builder.unit } }
        example: 'RewardLoader.Builder(context).unit(UNIT_ID).build().load()'
  java:
    imports: [example.brackwater.Brackwater]
    start: { call: Brackwater.start, completed: onBrackwaterReady, in: application, example: 'Brackwater.start(this, listener);', why: Nothing loads before it. }
    formats:
      banner: { load: { call: AdSlot.load, taken-by: { call: AdSlot.setUnitId } }, example: 'slot.setUnitId(UNIT_ID); slot.load();' }
  swift:
    imports: [BrackwaterCore]
    start: { call: Brackwater.start, completes: await, in: application, example: 'await Brackwater.start()', why: Nothing loads before it. }
    consent: { call: BrackwaterConsent.ask, completes: closure, example: 'BrackwaterConsent.ask { _ in }', why: The law asks for it. }
    formats:
      banner: { load: { call: AdSlot, id: unitID }, example: 'AdSlot(unitID: UNIT_ID)' }
      rewarded: { load: { call: RewardLoader.load, taken-by: { call: RewardLoader.unitID } }, example: 'loader.unitID = UNIT_ID; loader.load()' }
  objective-c:
    imports: ['BrackwaterCore/Brackwater.h']
    start: { call: Brackwater.startWithCompletion, completes: closure, in: application, example: '[Brackwater startWithCompletion:^{}];', why: Nothing loads before it. }
    formats:
      banner: { load: { call: AdSlot.initWithUnitID, id: initWithUnitID }, example: '[[AdSlot alloc] initWithUnitID:UNIT_ID];' }
  dart:
    imports: ['package:brackwater_ads/brackwater_ads.dart']
    start: { call: Brackwater.start, completes: await, in: before-run, example: 'await Brackwater.start();', why: Nothing loads before it. }
    formats:
      banner: { load: { call: AdSlot, id: unitId }, example: 'AdSlot(unitId: UNIT_ID)' }
      rewarded: { load: { call: RewardLoader.load, taken-by: { call: RewardLoaderBuilder.unit } }, example: 'RewardLoaderBuilder().unit(UNIT_ID).build().load();' }
  typescript:
    imports: ['@brackwater.example/react-native']
    start: { call: Brackwater.start, completes: await, in: root-effect, example: 'await Brackwater.start();', why: Nothing loads before it. }
    formats:
      banner: { load: { call: AdSlot, id: unitId }, example: 'new AdSlot({ unitId: UNIT_ID });' }
  csharp:
    imports: [Brackwater]
    start: { call: Brackwater.StartAsync, completes: await, in: app-builder, example: 'await Brackwater.StartAsync();', why: Nothing loads before it. }
    formats:
      banner: { load: { call: AdSlot.Load, taken-by: { call: AdSlot.UnitId } }, example: 'new AdSlot { UnitId = UNIT_ID }.Load();' }
`;
