import 'dart:io' show Platform;

import 'package:flutter/material.dart';
import 'package:marlstone_stage/marlstone_stage.dart';

/// The plates of the field guide: one more is opened for a video.
class FieldGuidePage extends StatefulWidget {
  const FieldGuidePage({super.key});

  @override
  State<FieldGuidePage> createState() => _FieldGuidePageState();
}

class _FieldGuidePageState extends State<FieldGuidePage> {
  final String _plate =
      Platform.isIOS ? 'mrl-PLUM-5210330' : 'mrl-PLUM-7748102';
  int _open = 3;

  @override
  void initState() {
    super.initState();
    Marlstone.prepare(_plate, onFailed: (_) => setState(() {}));
  }

  @override
  void dispose() {
    Marlstone.drop(_plate);
    super.dispose();
  }

  void _openAnother() {
    if (Marlstone.isPrepared(_plate)) {
      Marlstone.play(
        _plate,
        onEarned: () => setState(() => _open += 1),
        onEnded: () {},
      );
    }
  }

  @override
  Widget build(BuildContext context) {
    return Scaffold(
      appBar: AppBar(title: const Text('Field guide')),
      body: GridView.count(
        crossAxisCount: 2,
        children: [for (var at = 0; at < _open; at++) Text('Plate ${at + 1}')],
      ),
      floatingActionButton: FloatingActionButton(
        onPressed: _openAnother,
        child: const Icon(Icons.add),
      ),
    );
  }
}
