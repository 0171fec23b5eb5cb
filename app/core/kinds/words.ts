/**
 * Words that a person wrote, as they may go into any file or drawing. A control character in them is another line of a
 * calendar, another entity of a drawing, or the end of the file that is written.
 */

/** C0, DEL, C1, and the separators of lines and paragraphs (Unicode, categories Cc, Zl and Zp), as a class of a regular expression. */
export const UNPRINTABLE = "\\u0000-\\u001f\\u007f-\\u009f\\u2028\\u2029";
/** The same without the tab and the end of a line, which prose has. */
export const UNPRINTABLE_IN_PROSE = "\\u0000-\\u0008\\u000b-\\u001f\\u007f-\\u009f\\u2028\\u2029";

const notInLine = new RegExp(`[${UNPRINTABLE}]`, "g");
const notInProse = new RegExp(`[${UNPRINTABLE_IN_PROSE}]`, "g");

/** A text as one line that can be printed; as long as it was. */
export const oneLine = (text: string): string => text.replace(notInLine, " ");

/** A text of several lines that can be printed. */
export const prose = (text: string): string => text.replace(/\r\n?/g, "\n").replace(notInProse, " ");
