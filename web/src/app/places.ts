/** The few places of the shop, and the rooms of each. One list: the bar and the menu are drawn from it. */

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
    name: 'Cut',
    rooms: [
      { to: '/', name: 'Through' },
      { to: '/groove', name: 'Groove' },
      { to: '/groove/joints', name: 'Joint' },
      { to: '/run', name: 'Run' },
    ],
    under: ['/card', '/groove', '/run', '/trial'],
  },
  {
    to: '/bench',
    name: 'Bench',
    rooms: [
      { to: '/bench', name: 'Saws' },
      { to: '/true', name: 'True' },
    ],
    under: ['/bench', '/true', '/mount', '/rack/saws'],
  },
  {
    to: '/rack',
    name: 'Blades',
    rooms: [
      { to: '/rack', name: 'Rack' },
      { to: '/care', name: 'Care' },
    ],
    under: ['/rack', '/care'],
  },
  { to: '/trace', name: 'Trace', rooms: [{ to: '/trace', name: 'Trace' }], under: ['/trace'] },
];

/** What stands under the shop's name. */
export const rest: Room[] = [
  { to: '/log', name: 'Log' },
  { to: '/words', name: 'Words' },
  { to: '/shop', name: 'Shop' },
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
