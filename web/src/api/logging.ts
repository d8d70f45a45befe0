/** What is logged, at once or as soon as the server is there. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { refresh } from './change';
import { keep } from './waiting';

/** Logs a cut, readings or a step of a wash, at once or as soon as the server is there. */
export const useKeep = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (w: Parameters<typeof keep>[0]) => keep(w),
    onSuccess: (kept) => (kept.waits ? undefined : refresh(cache, 'log')),
  });
};
