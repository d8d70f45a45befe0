/**
 * Lengths as they are shown. Parsing is the server's (GET /length); printing is
 * done here as well, because a dragged height changes sixty times a second.
 * Both sides are held to core/measure/testdata/format.json.
 */
import { i18n } from '@lingui/core';
import type { Units } from '../api/types';

/** The browser's own form of the language that pages are in, such as en-GB; without one, the language. */
export const locale = () =>
  globalThis.navigator?.languages?.find((tag) => tag.split('-')[0] === i18n.locale) ?? i18n.locale;

/** A figure with the decimal sign of the language that pages are in. */
export function fixed(x: number, decimals: number): string {
  const s = x.toFixed(decimals);
  // Without a language, as in a test of a module, figures are English.
  return !i18n.locale || i18n.locale === 'en'
    ? s
    : s.replace('.', (1.5).toLocaleString(i18n.locale).charAt(1));
}

const MM_PER_INCH = 25.4;
const FINEST = 64;
/** A remainder is said where it is this large (inches) and the length this small. */
const REST_SHOWN = 0.004;
const REST_UP_TO = 2;

/** The steps on which a dragged height moves: 0.5 mm, or 1/64 in. */
export const heightStep: Record<Units, number> = { mm: 0.5, in: MM_PER_INCH / FINEST };

/** A length in millimetres, written in a unit: `31.25 mm`, `1 7/32"`, `45/64" +0.006`. */
export function formatLength(mm: number, units: Units): string {
  if (units === 'mm') return `${trim(mm, 2)} mm`;
  const inches = Math.abs(mm) / MM_PER_INCH;
  const n = Math.round(inches * FINEST);
  const rest = inches - n / FINEST;
  const whole = Math.floor(n / FINEST);
  let top = n % FINEST;
  let den = FINEST;
  while (top > 0 && top % 2 === 0) [top, den] = [top / 2, den / 2];
  const sign = mm < 0 && n > 0 ? '-' : '';
  const parts = [whole > 0 || top === 0 ? String(whole) : '', top > 0 ? `${top}/${den}` : ''];
  // A sign in front is for all that follows; nought has none in front.
  const said =
    Math.abs(rest) >= REST_SHOWN && inches < REST_UP_TO
      ? ` ${rest < 0 || (mm < 0 && n === 0) ? '-' : '+'}${fixed(Math.abs(rest), 3)}`
      : '';
  return `${sign}${parts.filter(Boolean).join(' ')}"${said}`;
}

/** A length that somebody sets by a rule or a scale: to the nearest 1/64 in, or half a tenth of a millimetre. */
export const formatSetting = (mm: number, units: Units): string =>
  units === 'mm' ? `${trim(mm, 1)} mm` : formatLength(mm, units).replace(/" .*$/, '"');

/** A number with at most so many decimals and no trailing zeros. */
export function trim(x: number, decimals: number): string {
  const s = fixed(x, decimals);
  const short = decimals > 0 ? s.replace(/\D?0+$/, '') : s;
  return short === '-0' ? '0' : short;
}

/** Thicknesses of metal are read in thousandths, not in fractions. */
export function formatThin(mm: number, units: Units): string {
  return units === 'mm' ? `${trim(mm, 2)} mm` : `${fixed(mm / MM_PER_INCH, 3)}"`;
}

/** A dial's reading: thousandths of a millimetre, or ten-thousandths of an inch. */
export const formatDial = (mm: number, units: Units): string =>
  units === 'mm' ? `${trim(mm, 3)} mm` : `${trim(mm / MM_PER_INCH, 4)}"`;

/** What a truing came to, in its own unit. */
export const formatFigure = (figure: number, unit: 'mm' | 'deg', units: Units): string =>
  unit === 'deg' ? `${trim(figure, 3)}°` : formatDial(figure, units);

/** A share, in whole hundredths. */
export const percent = (x: number) => `${trim(100 * x, 0)} %`;

/** Metres of cut, or feet. */
export function formatRun(metres: number, units: Units): string {
  return units === 'mm' ? `${trim(metres, metres < 10 ? 1 : 0)} m` : `${trim(metres / 0.3048, 0)} ft`;
}

/** Litres and millilitres, or US quarts and fluid ounces. */
export function formatVolume(litres: number, units: Units): string {
  if (units === 'mm') return litres < 1 ? `${trim(litres * 1000, 0)} ml` : `${trim(litres, 2)} l`;
  const oz = litres * 33.814;
  return oz < 32 ? `${trim(oz, 1)} fl oz` : `${trim(oz / 32, 1)} qt`;
}

/** A number as a person types it; NaN where it is none, or where its comma may part thousands: 7,000. */
export function typedNumber(text: string): number {
  const t = text.trim().replace('−', '-');
  return /^-?[1-9]\d{0,2},\d{3}$/.test(t) ? NaN : Number(t.replace(',', '.'));
}

/** Several words as one phrase of the reader's language: "a, b and c", or "a, b or c". */
export const listOf = (all: string[], type: 'conjunction' | 'disjunction' = 'conjunction') =>
  new Intl.ListFormat(i18n.locale, { type }).format(all);
