/** What waits to be logged, as the frame shows it. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { refresh } from './change';
import { makerOf, useSession } from './session';
import { setMaker, waiting, watchSteps, watchWaiting } from './queue';
import { sendWaiting } from './waiting';

export const washKey = (id: string) => ['care', 'wash', id];

/** What waits in this browser, sent once the server answers again. */
export const useWaiting = () => {
  const cache = useQueryClient();
  const maker = makerOf(useSession().data);
  useEffect(() => setMaker(maker), [maker]);
  useEffect(() => sendWaiting(() => void refresh(cache, 'log')), [cache]);
  useEffect(() => watchSteps((w) => void cache.setQueryData(washKey(w.id), w)), [cache]);
  return useSyncExternalStore(watchWaiting, waiting);
};
