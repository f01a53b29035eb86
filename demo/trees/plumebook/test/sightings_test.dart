import 'package:flutter_test/flutter_test.dart';
import 'package:plumebook/src/store/sightings.dart';

void main() {
  test('the latest sighting comes first', () async {
    final sightings = await Sightings.open();
    sightings.add(Sighting('Wren', 'hedge', DateTime(2026, 4, 1)));
    sightings.add(Sighting('Rook', 'field', DateTime(2026, 4, 2)));
    expect(sightings.all.first.species, 'Rook');
  });
}
