/** What changes in the shop elsewhere, at another device or by way of another server: heard, and asked for anew. */
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { refresh } from './change';
import { api } from './place';

/** Where each kind of thing shows. What is not among them is asked for when it is looked at. */
const shows: Record<string, string[]> = {
  mountings: ['mounting', 'bench', 'saws'],
  jobs: ['jobs'],
  trials: ['trials'],
  washes: ['care', 'baths', 'bench'],
  cuts: ['log', 'bench', 'care', 'jobs'],
};

const SOON = 2000; // ms: the page comes first

let later: ReturnType<typeof setTimeout> | undefined;
let source: EventSource | undefined;
let listening = 0;

function hear(cache: QueryClient) {
  source = new EventSource(`${api}/events`);
  source.addEventListener('changed', (e) => {
    const { what } = JSON.parse((e as MessageEvent<string>).data) as { what: string };
    if (what === 'everything') return void refresh(cache, 'everything');
    for (const key of shows[what] ?? []) void cache.invalidateQueries({ queryKey: [key] });
  });
}

/** Listens for as long as something that others change is shown; one connection, however many ask for it. */
export function useChanges() {
  const cache = useQueryClient();
  useEffect(() => {
    if (listening++ === 0) later = setTimeout(() => hear(cache), SOON);
    return () => {
      if (--listening > 0) return;
      clearTimeout(later);
      source?.close();
    };
  }, [cache]);
}
