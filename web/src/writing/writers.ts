const dates = new Map<string, Intl.DateTimeFormat>();
const numbers = new Map<string, Intl.NumberFormat>();

function kept<T>(all: Map<string, T>, language: string, parts: object, make: () => T): T {
  const name = `${language} ${JSON.stringify(parts)}`;
  const known = all.get(name);
  if (known !== undefined) return known;
  const made = make();
  all.set(name, made);
  return made;
}

/** Who writes hours and days so. A new one costs a phone milliseconds, and a clock asks every second. */
export const dateWriter = (language: string, parts: Intl.DateTimeFormatOptions) =>
  kept(dates, language, parts, () => new Intl.DateTimeFormat(language, parts));

/** Who writes numbers with at most so many digits behind the point. */
export const numberWriter = (language: string, maximumFractionDigits: number) =>
  kept(
    numbers,
    language,
    { maximumFractionDigits },
    () => new Intl.NumberFormat(language, { maximumFractionDigits }),
  );
