/** What is logged, at once or as soon as the server is there, as pages ask for it. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { refresh } from './change';
import { nameNow } from './session';
import { keep, sendWaiting, waiting, watchSteps, watchWaiting } from './waiting';

export const washKey = (id: string) => ['care', 'wash', id];

/** Whoever is here when it is made, not whoever is when it is sent. */
function signed(w: Parameters<typeof keep>[0], by: string | undefined) {
  if (!by) return w;
  return {
    ...w,
    made: w.made && { ...w.made, by: w.made.by ?? by },
    read: w.read && { ...w.read, by: w.read.by ?? by },
    tick: w.tick && { ...w.tick, body: { ...w.tick.body, by: w.tick.body.by ?? by } },
  };
}

/** Logs a cut, readings or a step of a wash, at once or as soon as the server is there. */
export const useKeep = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (w: Parameters<typeof keep>[0]) => keep(signed(w, nameNow(cache))),
    onSuccess: (kept) => (kept.waits ? undefined : refresh(cache)),
  });
};

/** What waits in this browser, sent once the server answers again. */
export const useWaiting = () => {
  const cache = useQueryClient();
  useEffect(() => sendWaiting(() => void refresh(cache)), [cache]);
  useEffect(() => watchSteps((w) => void cache.setQueryData(washKey(w.id), w)), [cache]);
  return useSyncExternalStore(watchWaiting, waiting);
};
