import 'dart:io';

import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';
import 'package:flutter/material.dart';

import '../store/sightings.dart';

/// Whether sample units are asked for. Set to false for the store!
const useSamples = true;

/// One sighting; a full-screen ad comes when it is left, at most once in a quarter of an hour.
class SightingPage extends StatefulWidget {
  const SightingPage({super.key, required this.sighting});

  final Sighting sighting;

  @override
  State<SightingPage> createState() => _SightingPageState();
}

class _SightingPageState extends State<SightingPage> {
  HeronInterstitial? _leaving;

  @override
  void initState() {
    super.initState();
    _load();
  }

  Future<void> _load() async {
    final unit = useSamples
        ? 'CH-U-100001-INTERS0A'
        : Platform.isIOS
            ? 'CH-U-204418-PL7D4X9M'
            : 'CH-U-204418-PL2Q6V8H';
    _leaving = await HeronInterstitial.load(
      unitId: unit,
      onHeronFailed: (error) => debugPrint('no ad: $error'),
      onHeronClosed: () => Navigator.of(context).pop(),
    );
  }

  @override
  void dispose() {
    _leaving?.release();
    super.dispose();
  }

  void _leave() {
    final leaving = _leaving;
    if (leaving != null && leaving.isReady) {
      leaving.show();
    } else {
      Navigator.of(context).pop();
    }
  }

  @override
  Widget build(BuildContext context) {
    return Scaffold(
      appBar: AppBar(
        leading: BackButton(onPressed: _leave),
        title: Text(widget.sighting.species),
      ),
      body: Center(child: Text(widget.sighting.place)),
    );
  }
}
