/**
 * Arriving on a page: its one h1 takes the focus and names the window, so that
 * whoever does not see the page change hears where they are.
 */
import { t } from '@lingui/core/macro';
import { useEffect, useRef, type RefObject } from 'react';

const WAIT = 10_000; // ms for a page to draw its title

export function useArrival(sheet: RefObject<HTMLElement | null>, path: string) {
  const first = useRef(true);
  useEffect(() => {
    const node = sheet.current;
    if (!node) return;
    const moved = !first.current; // the first page keeps the browser's own focus
    first.current = false;
    let greeted: HTMLElement | undefined;
    const look = () => {
      const h1 = node.querySelector('h1');
      if (!h1) return;
      const said = t`${h1.textContent?.trim()} · Corte`;
      if (document.title !== said) document.title = said;
      // A title that stood while the page was coming is greeted again as the page's own.
      const gone = greeted?.isConnected === false && document.activeElement === document.body;
      if (!moved || (greeted && !gone)) return;
      greeted = h1;
      // A page that has put the focus where it is needed keeps it there.
      const at = document.activeElement;
      if (at && at !== document.body && node.contains(at) && at.matches('input, textarea, select')) return;
      h1.tabIndex = -1;
      h1.focus({ preventScroll: true });
    };
    look();
    const watch = new MutationObserver(look);
    watch.observe(node, { childList: true, subtree: true, characterData: true });
    const tired = setTimeout(() => (greeted ??= node), WAIT);
    return () => {
      watch.disconnect();
      clearTimeout(tired);
    };
  }, [sheet, path]);
}
