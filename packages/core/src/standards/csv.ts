/** A spreadsheet runs what begins with = + @; text that people wrote never does, where cells that match this are escaped. */
export const FORMULA = /^[=+@]/;
