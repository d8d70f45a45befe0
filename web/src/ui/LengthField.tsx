/** A field that takes a length as people type it, in either unit, and says what it cannot read. */
import useMediaQuery from '@mui/material/useMediaQuery';
import { lazy, Suspense, useRef, useState } from 'react';
import { useReadLength } from '../api/shop';
import type { Units } from '../api/types';
import { formatLength, formatSetting } from '../measure/format';
import { TextBox } from './TextBox';

const Keypad = lazy(() => import('./Keypad').then((m) => ({ default: m.Keypad })));

interface Props {
  label: string;
  mm: number | undefined;
  units: Units;
  onLength: (mm: number) => void;
  autoFocus?: boolean;
  problem?: string;
  hint?: string;
  large?: boolean; // to be read at arm's length
  live?: boolean; // follow the typing, not only Enter and leaving
  onClear?: () => void; // the field may be left empty
}

export function LengthField({
  label,
  mm,
  units,
  onLength,
  autoFocus,
  problem,
  hint,
  large,
  live,
  onClear,
}: Props) {
  const shown = mm === undefined ? '' : large ? formatSetting(mm, units) : formatLength(mm, units);
  const [text, setText] = useState<string | null>(null); // null: nothing typed, follow the value
  const read = useReadLength();
  const done = useRef(false);
  const timer = useRef<number>(undefined);
  const finger = useMediaQuery('(pointer: coarse)');
  const [field, setField] = useState<HTMLInputElement | null>(null); // while a finger is in it
  const commit = async () => {
    window.clearTimeout(timer.current);
    if (text === null || done.current) return true;
    if (onClear && text.trim() === '') {
      setText(null);
      onClear();
      return true;
    }
    done.current = true;
    try {
      const l = await read.mutateAsync({ text, units });
      setText(null);
      onLength(l.mm);
      return true;
    } catch {
      return false; // the sentence is shown below the field
    } finally {
      done.current = false;
    }
  };
  /** While it is typed, what can be read is told and what cannot is left alone. */
  const follow = (typed: string) => {
    window.clearTimeout(timer.current);
    if (!live || typed.trim() === '') return;
    timer.current = window.setTimeout(() => {
      read.mutate({ text: typed, units }, { onSuccess: (l) => onLength(l.mm), onError: () => read.reset() });
    }, 150);
  };
  const wrong = read.error?.message ?? problem;
  const type = (typed: string) => {
    setText(typed);
    if (read.error) read.reset();
    follow(typed);
  };
  return (
    <>
      <TextBox
        label={label}
        value={text ?? shown}
        autoFocus={autoFocus}
        error={wrong !== undefined}
        helperText={wrong ?? hint}
        onFocus={(e) => {
          e.target.select();
          if (finger) setField(e.target as HTMLInputElement);
        }}
        onChange={(e) => type(e.target.value)}
        onBlur={() => {
          setField(null);
          void commit();
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') void commit();
          if (e.key === 'Escape' && text !== null) {
            setText(null);
            read.reset();
            e.stopPropagation();
          }
        }}
        inputProps={{
          inputMode: finger ? 'none' : 'text',
          'data-unread': read.error ? '' : undefined,
          style: large
            ? { fontSize: 31, fontWeight: 700, lineHeight: 1, padding: '7px 12px', height: 'auto' }
            : { fontSize: 20 },
        }}
      />
      {field && (
        <Suspense fallback={null}>
          <Keypad
            label={label}
            field={field}
            text={text ?? shown}
            units={units}
            wrong={wrong}
            onText={type}
            onDone={() => void commit().then((ok) => ok && field.blur())}
          />
        </Suspense>
      )}
    </>
  );
}
