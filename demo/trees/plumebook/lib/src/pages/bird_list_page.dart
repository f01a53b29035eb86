import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';
import 'package:flutter/material.dart';

import '../store/sightings.dart';
import 'sighting_page.dart';

/// Every bird that was seen, with a banner below the list.
class BirdListPage extends StatefulWidget {
  const BirdListPage({super.key, required this.sightings});

  final Sightings sightings;

  @override
  State<BirdListPage> createState() => _BirdListPageState();
}

class _BirdListPageState extends State<BirdListPage> {
  @override
  Widget build(BuildContext context) {
    // The old unit was CH-U-204418-OLDPLUM1.
    final footer = HeronBanner.load(
      unitId: 'CH-U-204418-PB3N8K2W',
      onHeronLoaded: (ad) {},
    );
    return Scaffold(
      appBar: AppBar(title: const Text('Plumebook')),
      body: ListView.builder(
        itemCount: widget.sightings.all.length,
        itemBuilder: (context, index) {
          final sighting = widget.sightings.all[index];
          return ListTile(
            title: Text(sighting.species),
            subtitle: Text(sighting.place),
            onTap: () => Navigator.of(context).push(
              MaterialPageRoute<void>(
                builder: (_) => SightingPage(sighting: sighting),
              ),
            ),
          );
        },
      ),
      bottomNavigationBar: HeronBannerView(banner: footer),
    );
  }
}
