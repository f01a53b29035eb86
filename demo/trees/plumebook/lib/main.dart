import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';
import 'package:flutter/material.dart';
import 'package:marlstone_stage/marlstone_stage.dart';

import 'src/app.dart';
import 'src/store/sightings.dart';

Future<void> main() async {
  await CobaltHeron.start();
  WidgetsFlutterBinding.ensureInitialized();
  await Marlstone.begin('mrl1-7c20e4b96d1853fa02b7c981');
  final sightings = await Sightings.open();
  runApp(PlumebookApp(sightings: sightings));
}
