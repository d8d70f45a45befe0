import { useLayoutEffect, useRef, useState } from 'react';

/** The size in CSS pixels of the element that carries the ref, kept up to date. */
export function useSize<T extends HTMLElement>() {
  const ref = useRef<T>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const el = ref.current;
    if (!el) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    watch.observe(el);
    return () => watch.disconnect();
  }, []);
  return [ref, size] as const;
}
