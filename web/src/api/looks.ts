/** What is read off photos, by the server or the core in this browser. Nothing of a photo is kept. */
import { useMutation } from '@tanstack/react-query';
import client, { ProblemError, unwrap } from './client';
import { recalled } from './fallback';
import type { Spot, Units } from './types';

const flat = (places: Spot[] | undefined) => places?.flatMap((p) => [p.x, p.y]);

/** How a photo goes out: as the file that it is, with places as one list. */
const asFile = {
  querySerializer: { array: { style: 'form', explode: false } },
  bodySerializer: (f: unknown) => f as BodyInit,
  headers: { 'Content-Type': 'application/octet-stream' },
} as const;

/** The server reads one photo of a person at a time: the next one waits its turn, a few seconds and no more. */
const inTurn = {
  retry: (failures: number, e: Error) => e instanceof ProblemError && e.status === 429 && failures < 5,
  retryDelay: 2000,
};

/** Reads a blade: by three taps on its rim, where somebody has shown them. */
export const useLook = () =>
  useMutation({
    ...inTurn,
    mutationFn: ({ file, places }: { file: Blob; places: Spot[] | undefined }) =>
      recalled(
        async () =>
          unwrap(
            await client.POST('/blade-looks', {
              ...asFile,
              params: { query: { taps: flat(places) } },
              body: file as never, // the contract says bytes, and a file is those
            }),
          ),
        '/blade-looks',
        {},
        () => pixels(file, places),
      ),
  });

/** Of what cut a wall is; without saw, blade and feed its marks are held against nothing. */
export interface WallOf {
  thickness_mm: number;
  saw_id?: string;
  blade_id?: string;
  feed_m_min?: number;
  units: Units;
}

/** Reads the wall of a cut: by its four corners, where somebody has shown them. */
export const useWallLook = (of: WallOf) =>
  useMutation({
    ...inTurn,
    mutationFn: ({ file, places }: { file: Blob; places: Spot[] | undefined }) =>
      recalled(
        async () =>
          unwrap(
            await client.POST('/wall-looks', {
              ...asFile,
              params: { query: { ...of, corners: flat(places) } },
              body: file as never,
            }),
          ),
        '/wall-looks',
        of,
        () => pixels(file, places),
      ),
  });

interface EdgeAsked {
  file: Blob;
  places: Spot[] | undefined;
  size?: number;
  below?: boolean;
}

/** Reads the splinters along an edge of so many mm: by its two ends, where somebody has shown them. */
export const useEdgeLook = (units: Units) =>
  useMutation({
    ...inTurn,
    mutationFn: ({ file, places, size = 0, below = false }: EdgeAsked) => {
      const of = { length_mm: size, face: below ? 'below' : 'above', units } as const;
      return recalled(
        async () =>
          unwrap(
            await client.POST('/edge-looks', {
              ...asFile,
              params: { query: { ...of, ends: flat(places) } },
              body: file as never,
            }),
          ),
        '/edge-looks',
        of,
        () => pixels(file, places),
      );
    },
  });

const SIDE = 3000; // pixels that the core here is given, either way

/** A photo's pixels, upright, for the core here. */
async function pixels(file: Blob, places: Spot[] | undefined) {
  const photo = await createImageBitmap(file);
  const scale = Math.min(1, SIDE / Math.max(photo.width, photo.height));
  const [wide, high] = [Math.round(photo.width * scale), Math.round(photo.height * scale)];
  const on = new OffscreenCanvas(wide, high).getContext('2d')!;
  on.drawImage(photo, 0, 0, wide, high);
  photo.close();
  const { data } = on.getImageData(0, 0, wide, high);
  return { wide, high, pix: new Uint8Array(data.buffer), places: flat(places) ?? [] };
}
