/** What Lingui's macro says in English, for modules of the front end that a test reads without building them. */
export const t = (text: TemplateStringsArray, ...values: unknown[]) =>
  String.raw({ raw: text.map((s) => s) }, ...values);

export const plural = (n: number, { one, other }: { one: string; other: string }) =>
  (n === 1 ? one : other).replace('#', String(n));
