/**
 * Acts once no typed length is still being read: a button may be pressed right after the last key. Where a
 * field holds what nobody can read, nothing is done, and the hand is led back to it.
 */
import { useIsMutating } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { readingLength } from '../api/shop';

export function useAfterReading(act: () => void) {
  const reading = useIsMutating({ mutationKey: readingLength }) > 0;
  const [asked, setAsked] = useState(0);
  const done = useRef(0);
  useEffect(() => {
    if (asked === done.current || reading) return;
    done.current = asked;
    const unread = document.querySelector<HTMLElement>('[data-unread]');
    if (unread) unread.focus();
    else act();
  }, [asked, reading, act]);
  return () => setAsked((n) => n + 1);
}
