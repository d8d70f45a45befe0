import client, { unwrap } from './client';
import type { Units } from './types';
import { useChange } from './change';

export const useStartMounting = () =>
  useChange(
    'log',
    async (body: { saw_id: string; blade_id: string; groove_id?: string; by?: string; units: Units }) =>
      unwrap(await client.POST('/mountings', { body })),
  );
