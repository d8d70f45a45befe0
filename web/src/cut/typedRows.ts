/** Rows of a job from what somebody types. */
import { useEffect, useState } from 'react';
import type { JobLine, JobRowInput } from '../api/types';

const WAIT = 180; // ms after the last key

/** A line that was understood as a row under an id of its own. */
export function rowOf({ row }: JobLine): JobRowInput {
  const input: JobRowInput & { in_stage?: unknown } = { ...row, id: crypto.randomUUID() };
  delete input.in_stage; // follows from the rest
  return input;
}

/** A text once nobody has typed for a moment. */
export function useSettled(text: string) {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), WAIT);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}
