/** The few places of the shop, and the rooms of each. One list: the bar and the menu are drawn from it. */
import { t } from '@lingui/core/macro';

export interface Room {
  to: string;
  name: string;
}

export interface Place extends Room {
  rooms: Room[]; // besides itself
  under: string[]; // where its other pages stand
}

export const places: Place[] = [
  {
    to: '/',
    name: t`Cut`,
    rooms: [
      { to: '/groove', name: t`Groove` },
      { to: '/groove/joints', name: t`Joint` },
      { to: '/special', name: t`Special` },
      { to: '/run', name: t`Run` },
    ],
    under: ['/card', '/groove', '/special', '/run', '/trial'],
  },
  { to: '/jobs', name: t`Jobs`, rooms: [], under: ['/jobs'] },
  {
    to: '/saws',
    name: t`Saws`,
    rooms: [{ to: '/align', name: t`Align` }],
    under: ['/saws', '/align', '/mount'],
  },
  {
    to: '/blades',
    name: t`Blades`,
    rooms: [
      { to: '/care', name: t`Care` },
      { to: '/buy', name: t`Buy` },
    ],
    under: ['/blades', '/care', '/buy'],
  },
  {
    to: '/diagnose',
    name: t`Diagnose`,
    rooms: [],
    under: ['/diagnose'],
  },
];

/** What stands under the shop's name. */
export const rest: Room[] = [
  { to: '/practice', name: t`Practice` },
  { to: '/log', name: t`Log` },
  { to: '/glossary', name: t`Glossary` },
  { to: '/people', name: t`People` },
  { to: '/settings', name: t`Settings` },
];

const within = (path: string, of: string) => path === of || path.startsWith(of + '/');

/** The place that a page belongs to: the one whose own address is the longest part of the page's. */
export function placeOf(path: string): Place | undefined {
  let best: { place: Place; long: number } | undefined;
  for (const place of places)
    for (const u of path === '/' ? [place.to] : place.under)
      if (within(path, u) && u.length > (best?.long ?? 0)) best = { place, long: u.length };
  return best?.place;
}

/** The room of a place that a page stands in, if it is not the place itself. */
export const roomOf = (place: Place, path: string): Room | undefined =>
  place.rooms.filter((r) => within(path, r.to)).sort((a, b) => b.to.length - a.to.length)[0];

/** First words of addresses that pages had once, and what they are now: bookmarks and printed labels have them. */
export const moved: readonly (readonly [from: string, to: string])[] = [
  ['rack/saws', 'saws'],
  ['rack', 'blades'],
  ['bench', 'saws'],
  ['true', 'align'],
  ['own', 'buy'],
  ['trace', 'diagnose'],
  ['learn', 'practice'],
  ['words', 'glossary'],
  ['shop', 'settings'],
  ['licences', 'licenses'],
];
