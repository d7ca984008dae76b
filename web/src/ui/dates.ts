// Dates as the browser's own language writes them.

const days = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" });
const moments = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** day is a date without its time. */
export const day = (d: Date | string): string => days.format(new Date(d));

/** moment is a date with its time. */
export const moment = (d: Date | string): string => moments.format(new Date(d));
