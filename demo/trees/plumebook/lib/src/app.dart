import 'package:flutter/material.dart';

import 'pages/bird_list_page.dart';
import 'store/sightings.dart';

class PlumebookApp extends StatelessWidget {
  const PlumebookApp({super.key, required this.sightings});

  final Sightings sightings;

  @override
  Widget build(BuildContext context) {
    return MaterialApp(
      title: 'Plumebook',
      theme: ThemeData(colorSchemeSeed: const Color(0xFF35605A)),
      home: BirdListPage(sightings: sightings),
    );
  }
}
