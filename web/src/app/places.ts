/** The few places of the shop, and the rooms of each. One list: the bar and the menu are drawn from it. */
import { t } from '@lingui/core/macro';

export interface Room {
  to: string;
  name: string;
}

export interface Place extends Room {
  rooms: Room[]; // itself first
  under: string[]; // where its other pages stand
}

export const places: Place[] = [
  {
    to: '/',
    name: t`Cut`,
    rooms: [
      { to: '/', name: t`Through` },
      { to: '/groove', name: t`Groove` },
      { to: '/groove/joints', name: t`Joint` },
      { to: '/special', name: t`Special` },
      { to: '/run', name: t`Run` },
    ],
    under: ['/card', '/groove', '/special', '/run', '/trial'],
  },
  { to: '/jobs', name: t`Jobs`, rooms: [{ to: '/jobs', name: t`Jobs` }], under: ['/jobs'] },
  {
    to: '/bench',
    name: t`Bench`,
    rooms: [
      { to: '/bench', name: t`Saws` },
      { to: '/true', name: t`True` },
    ],
    under: ['/bench', '/true', '/mount', '/rack/saws'],
  },
  {
    to: '/rack',
    name: t`Blades`,
    rooms: [
      { to: '/rack', name: t`Rack` },
      { to: '/care', name: t`Care` },
      { to: '/own', name: t`Own` },
    ],
    under: ['/rack', '/care', '/own'],
  },
  { to: '/trace', name: t`Trace`, rooms: [{ to: '/trace', name: t`Trace` }], under: ['/trace'] },
];

/** What stands under the shop's name. */
export const rest: Room[] = [
  { to: '/learn', name: t`Learn` },
  { to: '/log', name: t`Log` },
  { to: '/words', name: t`Words` },
  { to: '/people', name: t`People` },
  { to: '/shop', name: t`Shop` },
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

/** The room of a place that a page stands in. */
export function roomOf(place: Place, path: string): Room {
  const at = place.rooms.filter((r) => (r.to === '/' ? path === '/' : within(path, r.to)));
  return at.sort((a, b) => b.to.length - a.to.length)[0] ?? place.rooms[0]!;
}
