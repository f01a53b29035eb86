/** An example for each command, to be run on the demo. Their order is the order of the commands. */
export const examples: Record<string, readonly string[]> = {
  survey: ['syndexa survey demo/trees/tidewick'],
  check: [
    'syndexa check demo/trees/tidewick --title tidewick',
    'syndexa check demo/trees/tidewick --title tidewick --format sarif > findings.sarif',
  ],
  wire: [
    'syndexa wire demo/trees/tidewick --title tidewick',
    'syndexa wire demo/trees/tidewick --title tidewick --write',
  ],
  board: ['syndexa board tidewick'],
  'title add': [
    'syndexa title add tidewick --name Tidewick --android example.saltmarsh.tidewick --test debug staging --production release',
  ],
  'placement add': [
    'syndexa placement add tidewick moon-page-banner --format banner --refresh 60s --network cobalt-heron',
  ],
  'id set': [
    'syndexa id set tidewick CH-U-204418-P4N7C2VJ --network cobalt-heron --platform android --placement tide-list-footer',
  ],
  'roster export': ['syndexa roster export roster.yaml'],
  'roster import': ['syndexa roster import demo/roster.yaml --yes'],
  'network new': [
    'syndexa network new --id brightwell --name Brightwell --format banner --unit-id android=bw-u-10000001 ios=bw-u-10000002',
    'syndexa network new --from-tree demo/trees/tidewick',
  ],
  'network test': ['syndexa network test cobalt-heron --tree demo/trees/tidewick'],
  'network add': ['syndexa network add brightwell.yaml'],
  'network lint': ['syndexa network lint profiles/*.yaml'],
  'title list': ['syndexa title list'],
  'title show': ['syndexa title show tidewick'],
  'title set': ['syndexa title set tidewick --test debug staging --production release'],
  'title remove': ['syndexa title remove tidewick --yes'],
  'title history': ['syndexa title history tidewick'],
  'title link': ['syndexa title link tidewick demo/trees/tidewick'],
  'placement list': ['syndexa placement list tidewick'],
  'placement set': ['syndexa placement set tidewick tide-list-footer --refresh 90s'],
  'placement remove': ['syndexa placement remove tidewick tide-list-footer'],
  'id list': ['syndexa id list tidewick'],
  'id unset': [
    'syndexa id unset tidewick --network cobalt-heron --platform android --placement tide-list-footer',
  ],
  'roster schema': ['syndexa roster schema > roster.schema.json'],
  'network list': ['syndexa network list'],
  'network show': ['syndexa network show cobalt-heron'],
  'network schema': ['syndexa network schema > profile.schema.json'],
  'appads show': ['syndexa appads show > app-ads.txt'],
  'appads lint': ['syndexa appads lint app-ads.txt'],
  'appads merge': ['syndexa appads merge app-ads.txt --write'],
  'appads verify': ['syndexa appads verify --url http://127.0.0.1:8080/app-ads.txt'],
  serve: ['syndexa serve --root ~/work'],
  demo: ['syndexa demo', 'syndexa demo --walk'],
};
