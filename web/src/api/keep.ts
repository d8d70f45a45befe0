/** What is logged, at once or as soon as the server is there, as pages ask for it. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { refresh } from './change';
import { keep, sendWaiting, waiting, watchSteps, watchWaiting } from './waiting';

export const washKey = (id: string) => ['care', 'wash', id];

/** Logs a cut, readings or a step of a wash, at once or as soon as the server is there. */
export const useKeep = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: keep,
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
