/** The error codes that a player puts into `[ERRORCODE]` (VAST 4.2, section 2.3.6.3), each with what it means. */
export const errorCodes = {
  100: 'The document is not XML.',
  101: 'The document breaks the rules of VAST.',
  102: 'This version of VAST is not supported.',
  201: 'The player expected a film, and got something else.',
  300: 'A wrapper could not be used.',
  301: 'The next document of a wrapper did not come in time, or cannot be reached.',
  302: 'More wrappers followed one another than the player follows.',
  303: 'There was no ad after one or more wrappers.',
  400: 'The film cannot be shown.',
  401: 'The file of the film was not found.',
  402: 'The file of the film did not come in time.',
  403: 'No file of the film is of a kind that this player plays.',
  405: 'The player failed while the film was shown.',
  900: 'Another error.',
} as const;
export type ErrorCode = keyof typeof errorCodes;
