/** How a currency is written: its own number of digits, none for some, three for others. */
const written = (currency: string) => new Intl.NumberFormat("en-GB", { style: "currency", currency });

/** How many minor units make one of the currency: 100 for most. */
export function minorPerMajor(currency: string): number {
  return 10 ** (written(currency).resolvedOptions().maximumFractionDigits ?? 2);
}

/** Money from its minor unit. */
export function moneyText(minor: number, currency: string): string {
  return written(currency).format(minor / minorPerMajor(currency));
}

/** An amount as it is typed, from what is stored. */
export function majorAmount(minor: number, currency: string): number {
  return minor / minorPerMajor(currency);
}

/** What is stored of an amount that was typed, to the nearest minor unit. */
export function minorAmount(major: number, currency: string): number {
  return Math.round(major * minorPerMajor(currency));
}

/** The same as plain digits, as an empty field shows what is usual. */
export function amountText(minor: number, currency: string): string {
  const { maximumFractionDigits } = written(currency).resolvedOptions();
  return majorAmount(minor, currency).toFixed(maximumFractionDigits);
}
