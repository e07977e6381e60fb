const FORMAT = new Intl.NumberFormat(undefined, { maximumFractionDigits: 1, minimumFractionDigits: 1 });

/** Millions of bytes, with one decimal place. */
export const showMegabytes = (bytes: number): string => FORMAT.format(bytes / 1e6);
