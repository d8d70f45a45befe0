/** Acts once no typed length is still being read: a button may be pressed right after the last key. */
import { useIsMutating } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { readingLength } from '../api/queries';

export function useAfterReading(act: () => void) {
  const reading = useIsMutating({ mutationKey: readingLength }) > 0;
  const [asked, setAsked] = useState(0);
  const done = useRef(0);
  useEffect(() => {
    if (asked === done.current || reading) return;
    done.current = asked;
    act();
  }, [asked, reading, act]);
  return () => setAsked((n) => n + 1);
}
