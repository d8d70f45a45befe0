/** What a page keeps in its address, so that a link leads to it and a reload keeps it. */
import { useCallback } from 'react';
import { useNavigate, useSearchParams } from 'react-router';

/**
 * The address's parts, and how to change them. A change is made to the address as it stands at that
 * moment: what was drawn may be older, and would take back what a quick hand chose just before.
 */
export function useAddress() {
  const [params] = useSearchParams();
  const go = useNavigate();
  const change = useCallback(
    (put: (now: URLSearchParams) => void) => {
      const now = new URLSearchParams(window.location.search);
      put(now);
      void go(`?${now}`, { replace: true, preventScrollReset: true });
    },
    [go],
  );
  return [params, change] as const;
}
