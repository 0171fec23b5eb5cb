/** The version of the format that this application writes, in files and in the browser's store. */
export const VERSION = 5;

/** Of the box: its file, and each of its rows. 2 knows hole saws and kept parts; in 3 every word can be printed. */
export const BOX_VERSION = 3;
