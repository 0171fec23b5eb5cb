/** The version of the format that this application writes, in files and in the browser's store. */
export const VERSION = 3;
