import type { FactOf } from '../../../src/core/facts/model.js';
import { describe, expect, it } from 'vitest';
import { madeWhileBuilding } from '../../../src/core/checks/rules/code-made-while-building.js';
import { wrongFormat } from '../../../src/core/checks/rules/code-wrong-format.js';
import { settingDiffers } from '../../../src/core/checks/rules/platform-setting-differs.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { flutterFiles, kelpWithBanner } from '../../support/flutter.js';
import { mauiFiles } from '../../support/maui.js';
import { reactNativeFiles } from '../../support/react-native.js';
import { ruleCases } from '../../support/rules.js';
import { kelp, placement, profiles, treeOf } from '../../support/trees.js';

// Where a banner is held that code or markup of a framework places: over the navigation, or in what scrolls.

const ids = { android: 'CH-U-310772-BBBB1111', ios: 'CH-U-310772-CCCC2222' };
const footer = placement('banner', ids.android, ids.ios);
const title = kelpWithBanner();
const atBottom = kelp({ placements: { footer: { ...footer, settings: { anchor: 'bottom' } } } });
const atTop = kelp({ placements: { footer: { ...footer, settings: { anchor: 'top' } } } });
const inline = kelp({ placements: { footer: { ...footer, settings: { anchor: 'inline' } } } });
const asPage = kelp({ placements: { footer: placement('interstitial', ids.android, ids.ios) } });

const widget = "HeronBannerView(unitId: Platform.isIOS ? 'CH-U-310772-CCCC2222' : 'CH-U-310772-BBBB1111')";
const flutter = (body: string) =>
  flutterFiles({
    'lib/reef.dart': `import 'dart:io';
import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';
import 'package:flutter/material.dart';

class Reef extends StatelessWidget {
  const Reef({super.key});

  @override
  Widget build(BuildContext context) => ${body};
}
`,
  });

const element =
  "<HeronBannerView unitId={Platform.select({ android: 'CH-U-310772-BBBB1111', default: 'CH-U-310772-CCCC2222' })} />";
const native = (body: string) =>
  reactNativeFiles({
    'Reef.tsx': `import React from 'react';
import { FlatList, Platform, ScrollView, Text, View } from 'react-native';
import { HeronBannerView } from '@cobaltheron.example/react-native';

export function Reef({ rows }: { rows: string[] }) {
  return (
    ${body}
  );
}
`,
  });

const unit = 'Unit="{OnPlatform Android=CH-U-310772-BBBB1111, iOS=CH-U-310772-CCCC2222}"';
const maui = (body: string) =>
  mauiFiles({
    'Pages/Reef.xaml': `<?xml version="1.0" encoding="utf-8"?>
<ContentPage xmlns="http://schemas.microsoft.com/dotnet/2021/maui"
             xmlns:ads="clr-namespace:CobaltHeronAds;assembly=CobaltHeron.Ads.Maui">
${body}
</ContentPage>
`,
  });
const xaml = (more = '') => `<ads:HeronBannerView ${unit} ${more}/>`;

const views = (files: Record<string, string>) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey.facts.filter(
    (fact): fact is FactOf<'call'> =>
      fact.kind === 'call' && fact.action === 'view' && fact.format === 'banner',
  );

describe.each<[string, Record<string, string>, string]>([
  ['over the navigation', flutter(`Scaffold(bottomNavigationBar: ${widget})`), 'bottom-edge'],
  [
    'above the bar, in one column with it',
    flutter(`Scaffold(bottomNavigationBar: Column(children: [${widget}, const BottomAppBar()]))`),
    'bottom-edge',
  ],
  ['as the bar of the page', flutter(`Scaffold(appBar: ${widget}, body: const Text('reef'))`), 'top-edge'],
  [
    'below what takes the room that is left',
    flutter(`Scaffold(body: Column(children: [Expanded(child: ListView()), ${widget}]))`),
    'bottom-edge',
  ],
  [
    'above a constant that takes it',
    flutter(`Scaffold(body: Column(children: [${widget}, const Expanded(child: Text('reef'))]))`),
    'top-edge',
  ],
  [
    'aligned',
    flutter(`Scaffold(body: Align(alignment: Alignment.bottomCenter, child: ${widget}))`),
    'bottom-edge',
  ],
  [
    'at a position',
    flutter(`Scaffold(body: Stack(children: [Positioned(top: 0, left: 0, child: ${widget})]))`),
    'top-edge',
  ],
  ['in the middle', flutter(`Scaffold(body: Center(child: ${widget}))`), 'no-edge'],
  ['in a list', flutter(`Scaffold(body: ListView(children: [${widget}]))`), 'scrolling-view'],
  [
    'in a column that scrolls',
    flutter(`Scaffold(body: SingleChildScrollView(child: Column(children: [const Spacer(), ${widget}])))`),
    'scrolling-view',
  ],
  ['for each row', flutter(`ListView.builder(itemBuilder: (context, index) => ${widget})`), 'scrolling-view'],
  ['as a widget of its own', flutter(`SafeArea(child: ${widget})`), 'own-component'],
  [
    'below a list',
    native(`<View><FlatList data={rows} renderItem={() => <Text />} />${element}</View>`),
    'bottom-edge',
  ],
  ['above what is flexible', native(`<View>${element}<View style={{ flex: 1 }} /></View>`), 'top-edge'],
  [
    'beside it in a row',
    native(`<View style={{ flexDirection: 'row' }}>${element}<View style={{ flex: 1 }} /></View>`),
    'own-component',
  ],
  [
    'at a position of its container',
    native(`<View style={{ position: 'absolute', bottom: 0 }}>${element}</View>`),
    'bottom-edge',
  ],
  ['in what scrolls', native(`<ScrollView><View>${element}</View></ScrollView>`), 'scrolling-view'],
  [
    'as the head of a list',
    native(`<FlatList data={rows} renderItem={() => <Text />} ListHeaderComponent={${element}} />`),
    'scrolling-view',
  ],
  ['as a component of its own', native(element), 'own-component'],
  ['in the last row', maui(`<Grid RowDefinitions="*,Auto">${xaml('Grid.Row="1" ')}</Grid>`), 'bottom-edge'],
  ['in the first row', maui(`<Grid RowDefinitions="Auto,*">${xaml()}</Grid>`), 'top-edge'],
  ['between rows', maui(`<Grid RowDefinitions="*,Auto,*">${xaml('Grid.Row="1" ')}</Grid>`), 'no-edge'],
  ['by its own options', maui(xaml('VerticalOptions="End" ')), 'bottom-edge'],
  ['in markup that scrolls', maui(`<ScrollView>${xaml()}</ScrollView>`), 'scrolling-view'],
  ['alone', maui(xaml()), 'own-component'],
])('a banner %s', (_, files, held) => {
  it(`is held at ${held}, on both platforms, and answers for its placement`, () => {
    const found = views(files);
    expect(found.map(({ platform }) => platform).sort()).toEqual(['android', 'ios']);
    for (const { anchor, network, value, platform, code } of found)
      expect({
        anchor,
        network,
        value,
        hasId: code?.argument?.ids.includes(ids[platform]),
      }).toEqual({
        anchor: held,
        network: 'cobalt-heron',
        value: 'HeronBannerView',
        hasId: true,
      });
  });
});

const inList = flutter(`Scaffold(body: ListView(children: [${widget}]))`);
const overNavigation = flutter(`Scaffold(bottomNavigationBar: ${widget})`);
const perRow = flutter(`ListView.builder(itemBuilder: (context, index) => ${widget})`);
const inTemplate = (body: string) =>
  maui(
    `<CollectionView><CollectionView.ItemTemplate><DataTemplate>${body}</DataTemplate></CollectionView.ItemTemplate></CollectionView>`,
  );

ruleCases(settingDiffers, {
  clean: [
    { name: 'fixed over the navigation, where the roster has it', files: overNavigation, title: atBottom },
    { name: 'in a list, and the roster names no edge', files: inList, title },
    { name: 'in a list, where the roster has it', files: inList, title: inline },
    { name: 'a widget whose place is not told here', files: flutter(widget), title: atBottom },
  ],
  faulty: [
    {
      name: 'scrolls away',
      files: inList,
      title: atBottom,
      findings: [{ placement: 'footer', message: expect.stringContaining('scrolls away') }],
    },
    {
      name: 'over the navigation, and the roster has it among the content',
      files: overNavigation,
      title: inline,
      findings: [{ placement: 'footer', message: expect.stringContaining('is inline, among the content') }],
    },
    {
      name: 'at the other edge, in markup',
      byHand: { edits: [['Pages/Reef.xaml', 'VerticalOptions="End"', 'VerticalOptions="Start"']] },
      files: maui(xaml('VerticalOptions="End" ')),
      title: atTop,
      findings: [{ placement: 'footer', message: expect.stringContaining('but at the bottom edge here') }],
    },
  ],
});

ruleCases(madeWhileBuilding, {
  clean: [
    { name: 'a view that is drawn once', files: overNavigation, title },
    { name: 'a component that is drawn once', files: native(`<View>${element}</View>`), title },
    { name: 'a view of the page, in markup', files: maui(xaml()), title },
  ],
  faulty: [
    {
      name: 'a view for each row',
      byHand: {
        edits: [['lib/reef.dart', `ListView.builder(itemBuilder: (context, index) => ${widget})`, widget]],
      },
      files: perRow,
      title,
      findings: [{ message: expect.stringContaining('for each row of Reef') }],
    },
    {
      name: 'a component for each row',
      files: native(`<FlatList data={rows} renderItem={() => ${element}} />`),
      title,
      findings: [{ message: expect.stringContaining('for each row of Reef') }],
    },
    {
      name: 'a view in the template of rows',
      files: inTemplate(xaml()),
      title,
      findings: [{ message: expect.stringContaining('for each row of ContentPage') }],
    },
  ],
});

ruleCases(wrongFormat, {
  clean: [{ name: 'a unit for banners in a view for them', files: overNavigation, title }],
  faulty: [
    {
      name: 'a unit of another format',
      byHand: { title },
      files: overNavigation,
      title: asPage,
      findings: [
        { message: expect.stringContaining('BBBB1111 is interstitial') },
        { message: expect.stringContaining('CCCC2222 is interstitial') },
      ],
    },
  ],
});
