import { useState } from 'react';

interface Versioned {
  version: number;
}

/**
 * A record as a form opened it, whatever is fetched meanwhile; and the record
 * that is there now, where somebody else has moved it on.
 */
export function useOpened<T extends Versioned>(data: T | undefined) {
  const [opened, reopen] = useState<T>();
  if (data && !opened) reopen(data);
  const at = opened ?? data;
  return { at, now: at && data && data.version !== at.version ? data : undefined, reopen };
}
