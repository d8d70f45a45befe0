/**
 * What opens over the page: lists and small sheets. They are fetched once the
 * page stands, so that nobody waits for them before the first answer.
 */
import { lazy, Suspense, useEffect, useState, type ComponentProps } from 'react';
import type { ChoiceMenu } from './ChoiceMenu';

const loadMenu = () => import('@mui/material/Menu');
const loadPopover = () => import('@mui/material/Popover');
const LazyMenu = lazy(loadMenu);
const LazyPopover = lazy(loadPopover);
const loadChoices = () => import('./ChoiceMenu').then((m) => ({ default: m.ChoiceMenu }));
const LazyChoices = lazy(loadChoices);
const loadFields = () => import('./LengthField');

/** Fetches them while the browser has nothing else to do. */
function useEarly() {
  useEffect(() => {
    const timer = setTimeout(() => void Promise.all([loadChoices(), loadPopover(), loadFields()]), 900);
    return () => clearTimeout(timer);
  }, []);
}

/** Whether it was ever open: from then on it stays, so that it closes as it should and gives focus back. */
function useOpenedOnce(open: boolean) {
  const [ever, setEver] = useState(open);
  if (open && !ever) setEver(true);
  return ever || open;
}

export function Menu(p: ComponentProps<typeof LazyMenu>) {
  useEarly();
  return useOpenedOnce(p.open) ? (
    <Suspense fallback={null}>
      <LazyMenu {...p} />
    </Suspense>
  ) : null;
}

export function Popover(p: ComponentProps<typeof LazyPopover>) {
  useEarly();
  return useOpenedOnce(p.open) ? (
    <Suspense fallback={null}>
      <LazyPopover {...p} />
    </Suspense>
  ) : null;
}

/** The list that a word opens. */
export function Choices<T extends string>(p: ComponentProps<typeof ChoiceMenu<T>>) {
  useEarly();
  const Lazy = LazyChoices as unknown as typeof ChoiceMenu<T>; // lazy() forgets what a component is generic in
  return useOpenedOnce(p.anchorEl !== null) ? (
    <Suspense fallback={null}>
      <Lazy {...p} />
    </Suspense>
  ) : null;
}
