/** Which queries are asked again after a change. It is no part of the first script. */
import type { QueryClient } from '@tanstack/react-query';

/** What the core works out from the rack and the log. */
const worked = ['bench', 'plan', 'sweep', 'compared', 'groove-plan', 'joint', 'jobs', 'care', 'calendar'];

/** By what was changed: the first part of each query's key. */
const follows = {
  rack: [
    ...['shop', 'blades', 'saws', 'dado-set', 'mounting', 'money', 'owning', 'first-blades'],
    ...['people', 'audit'], // the shop's rules are among them
    ...worked,
  ],
  log: [
    ...['log', 'blades', 'saws', 'dado-set', 'truings', 'lessons', 'trials', 'traces', 'grooves', 'mounting'],
    ...['baths', 'money', 'owning', 'first-blades'],
    ...worked,
  ],
  baths: ['baths', 'care'],
  jobs: ['jobs'],
  owning: ['owning', 'first-blades'],
  calendar: ['calendar'],
  people: ['people', 'passes', 'audit', ...worked], // a sign-off decides what may be cut
};

export type Changed = keyof typeof follows | 'everything';

export async function refresh(cache: QueryClient, changed: Changed) {
  if (changed === 'everything') return cache.invalidateQueries();
  const ask = (key: string) => cache.invalidateQueries({ queryKey: [key] });
  void ask('shelf'); // whatever changes, and nobody waits for it
  await Promise.all(follows[changed].map(ask));
}
