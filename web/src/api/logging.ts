/** What is logged, at once or as soon as the server is there. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { refresh } from './change';
import { nameNow } from './session';
import { keep } from './waiting';

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
