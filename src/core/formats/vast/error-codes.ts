/** The error codes that a player puts into `[ERRORCODE]` (VAST 4.2, section 2.3.6.3), each with what it means. */
export const errorCodes = {
  100: 'The document is not XML.',
  101: 'The document breaks the rules of VAST.',
  102: 'This version of VAST is not supported.',
  201: 'The player expected a linear ad and got something else.',
  300: 'A wrapper could not be used.',
  301: 'The document behind a wrapper timed out or cannot be reached.',
  302: 'The wrapper limit was reached.',
  303: 'There was no ad after one or more wrappers.',
  400: 'The linear ad cannot be displayed.',
  401: 'The media file was not found.',
  402: 'The media file did not load in time.',
  403: 'This player supports none of the media files.',
  405: 'The player failed while playing the media file.',
  900: 'Another error.',
} as const;
export type ErrorCode = keyof typeof errorCodes;
