/** The addresses of the console's pages. Parameters have a colon before them. */
export const pages = {
  home: '/',
  newTitle: '/titles/new',
  adopt: '/titles/adopt',
  board: '/titles/:title',
  record: '/titles/:title/record',
  steps: '/titles/:title/steps',
  rehearsal: '/titles/:title/rehearsal',
  tally: '/titles/:title/tally',
  allTallies: '/tally',
  edition: '/titles/:title/:platform',
  trace: '/ids/:id',
  documents: '/documents',
  rules: '/rules',
  rule: '/rules/:group/:name',
  networks: '/networks',
  network: '/networks/:network',
} as const;
