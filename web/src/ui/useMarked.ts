/** A photo that is read, and the marks on it that can be moved to have it read again. */
import type { UseMutationResult } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { Spot } from '../api/types';

interface Asked {
  file: Blob;
  places: Spot[] | undefined;
  size?: number;
  below?: boolean;
}

/**
 * Keeps a photo and its marks, the size of what is on it where that is said, and whether
 * it lies the other way round. Begin says where the marks stand until something is seen,
 * found where they stand then.
 */
export function useMarked<T>(
  asking: UseMutationResult<T, Error, Asked>,
  begin: (photo: ImageBitmap) => Spot[],
  found: (look: T) => Spot[],
  known?: number,
) {
  const [photo, setPhoto] = useState<{ file: File; drawn: ImageBitmap }>();
  const [marks, setMarks] = useState<Spot[]>([]);
  const [unreadable, setUnreadable] = useState(false);
  const [size, setSize] = useState(known);
  const [below, setBelow] = useState(false);
  // What is said while a photo is still being opened holds for it as well.
  const said = useRef({ size: known, below: false });
  const ask = (file: File, places?: Spot[]) =>
    asking.mutate(
      { file, places, ...said.current },
      { onSuccess: (look) => setMarks(places ?? found(look)) },
    );
  const choose = async (file: File) => {
    setUnreadable(false);
    asking.reset();
    try {
      const drawn = await createImageBitmap(file);
      setPhoto({ file, drawn });
      setMarks(said.current.below ? begin(drawn).toReversed() : begin(drawn));
      ask(file);
    } catch {
      setPhoto(undefined);
      setUnreadable(true);
    }
  };
  const busy = asking.isPending;
  return {
    photo: photo?.drawn,
    /** For PhotoChoice. */
    choice: { has: photo !== undefined, busy, unreadable, onFile: (file: File) => void choose(file) },
    /** For a view with marks over it. */
    view: {
      marks,
      busy,
      onMark: (which: number, to: Spot) => setMarks((now) => now.map((m, i) => (i === which ? to : m))),
      onMarked: () => photo && ask(photo.file, marks),
    },
    moved: asking.variables?.places !== undefined,
    afresh: () => photo && ask(photo.file),
    size,
    onSize: (to: number) => {
      setSize(to);
      said.current.size = to;
      if (photo) ask(photo.file, asking.variables?.places);
    },
    below,
    onBelow: (to: boolean) => {
      setBelow(to);
      said.current.below = to;
      // Marks stay where they are; the way from the first to the last turns.
      setMarks((now) => now.toReversed());
      if (photo) ask(photo.file, asking.variables?.places?.toReversed());
    },
  };
}
