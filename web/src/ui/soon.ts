/**
 * Parts of a page that are fetched beside the data that they show. React's own
 * lazy() holds a page back for 300 ms each time it has shown that it waits;
 * these stand as soon as they are there.
 */
import { useEffect, useState } from 'react';

export interface Soon<M> {
  fetch: () => Promise<unknown>;
  /** The parts, or nothing while they are on their way. A failure is the page's. */
  use: (wanted: boolean) => M | undefined;
}

export function soon<M>(load: () => Promise<M>): Soon<M> {
  let here: M | undefined;
  const fetch = () => load().then((m) => (here = m));
  return {
    fetch,
    use: function useSoon(wanted) {
      const [, stands] = useState(false);
      const [failed, fail] = useState<Error>();
      useEffect(() => {
        if (wanted && !here)
          void fetch().then(
            () => stands(true),
            (e: unknown) => fail(e instanceof Error ? e : new Error(String(e))),
          );
      }, [wanted]);
      if (failed) throw failed;
      return here;
    },
  };
}
