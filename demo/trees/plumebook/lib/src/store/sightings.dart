/// The birds that were seen, the latest first.
class Sightings {
  Sightings._(this._all);

  final List<Sighting> _all;

  static Future<Sightings> open() async => Sightings._([]);

  List<Sighting> get all => List.unmodifiable(_all);

  void add(Sighting sighting) => _all.insert(0, sighting);
}

class Sighting {
  const Sighting(this.species, this.place, this.at);

  final String species;
  final String place;
  final DateTime at;
}
