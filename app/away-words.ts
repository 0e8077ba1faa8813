/** What is said where the database was not reached in time: on a page, and where a file or data was asked for. */
export const AWAY_WORDS =
  'The database does not answer. Nothing was changed. Were you saving? Go back in your browser: your text is still there. Try again in a moment.'
