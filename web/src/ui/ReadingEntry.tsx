/** Where readings are typed: by hand, by a gauge that types and presses Enter, or pasted as a column. */
import { t } from '@lingui/core/macro';
import TextField from '@mui/material/TextField';
import { useRef, useState } from 'react';
import { useReadLength } from '../api/shop';
import type { Units } from '../api/types';
import { readNumbers } from '../measure/readings';

interface Props {
  label: string;
  units: Units;
  onRead: (mm: number[]) => void;
}

export function ReadingEntry({ label, units, onRead }: Props) {
  const [text, setText] = useState('');
  const read = useReadLength();
  // A gauge types faster than answers come: readings are taken in their order.
  const queue = useRef<Promise<void>>(Promise.resolve());
  const [wrong, setWrong] = useState<string>();
  const take = (typed: string) => {
    queue.current = queue.current.then(async () => {
      try {
        const l = await read.mutateAsync({ text: typed, units });
        setWrong(undefined);
        onReadNow.current([l.mm]);
      } catch (e) {
        setWrong(e instanceof Error ? e.message : t`Can't read this.`);
      }
    });
  };
  const onReadNow = useRef(onRead);
  // eslint-disable-next-line react-hooks/refs -- the queue outlives a render and must hand to the newest
  onReadNow.current = onRead;
  return (
    <TextField
      label={t`Reading: ${label}`}
      value={text}
      autoFocus
      autoComplete="off"
      error={wrong !== undefined}
      helperText={wrong ?? t`Type and press Enter, or paste a column of readings.`}
      onChange={(e) => setText(e.target.value)}
      onKeyDown={(e) => {
        // What stands in the field, which may be newer than what was last drawn.
        const typed = (e.target as HTMLInputElement).value;
        if (e.key !== 'Enter' || typed.trim() === '') return;
        e.preventDefault();
        take(typed);
        setText('');
      }}
      onPaste={(e) => {
        const pasted = e.clipboardData.getData('text');
        const numbers = readNumbers(pasted, units);
        if (numbers.length < 2) return;
        e.preventDefault();
        onRead(numbers);
      }}
      slotProps={{ htmlInput: { inputMode: 'text', style: { fontSize: 26, fontWeight: 700 } } }}
      sx={{ width: '100%', maxWidth: 360 }}
    />
  );
}
