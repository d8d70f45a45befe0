/**
 * Keys for a length that a gloved finger finds: digits, sixteenths, mm and in.
 * They write into the field that has the focus and never take it, so the field
 * stays one that can be typed into, read out and filled.
 */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Portal from '@mui/material/Portal';
import { useEffect } from 'react';
import type { Units } from '../api/types';

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '/'] as const;
const SIXTEENTHS = Array.from({ length: 15 }, (_, i) => {
  const n = i + 1;
  const by = n % 8 === 0 ? 8 : n % 4 === 0 ? 4 : n % 2 === 0 ? 2 : 1;
  return `${n / by}/${16 / by}`;
});

const key = {
  minHeight: 52,
  fontSize: 22,
  fontWeight: 650,
  border: '1.5px solid',
  borderColor: 'drawing.hair',
  borderRadius: 1,
  bgcolor: 'background.paper',
  '&:active': { bgcolor: 'action.selected' },
};

/** The text with a piece put where the caret stands, and where it stands then. */
export function put(text: string, from: number, to: number, piece: string): [string, number] {
  const before = text.slice(0, from);
  const gap = piece.includes('/') && piece !== '/' && /\d$/.test(before) ? ' ' : '';
  return [before + gap + piece + text.slice(to), from + gap.length + piece.length];
}

/** The text in a unit: the one that it had gives way. */
export const marked = (text: string, unit: Units) =>
  `${text.replace(/\s*(mm|cm|m|in|inches|inch|")\s*$/i, '').trim()}${unit === 'in' ? '"' : ' mm'}`;

interface Props {
  label: string;
  field: HTMLInputElement;
  text: string;
  units: Units;
  wrong?: string;
  onText: (text: string) => void;
  onDone: () => void;
}

export function Keypad({ label, field, text, units, wrong, onText, onDone }: Props) {
  useEffect(() => {
    void field.scrollIntoView({ block: 'center' }); // a browser may hand back a promise, which is no way to clean up
  }, [field]);
  const write = (next: string, caret = next.length) => {
    onText(next);
    requestAnimationFrame(() => field.setSelectionRange(caret, caret));
  };
  const type = (piece: string) =>
    write(...put(field.value, field.selectionStart ?? 0, field.selectionEnd ?? 0, piece));
  const wipe = () => {
    const [from, to] = [field.selectionStart ?? 0, field.selectionEnd ?? 0];
    const start = from === to ? Math.max(0, from - 1) : from;
    write(field.value.slice(0, start) + field.value.slice(to), start);
  };
  const one = (name: string, press: () => void, shown = name, more: object = {}) => (
    <ButtonBase key={name} aria-label={name} tabIndex={-1} onClick={press} sx={{ ...key, ...more }}>
      {shown}
    </ButtonBase>
  );
  return (
    <Portal>
      <Box
        component="section"
        aria-label={t`Keys for ${label}`}
        onPointerDown={(e) => e.preventDefault()}
        onMouseDown={(e) => e.preventDefault()}
        sx={{
          position: 'fixed',
          insetInline: 0,
          bottom: 0,
          zIndex: (it) => it.zIndex.modal + 1,
          bgcolor: 'background.default',
          borderTop: '2px solid',
          borderColor: 'drawing.ink',
          p: 1,
          pb: 'max(8px, env(safe-area-inset-bottom))',
          display: 'grid',
          gap: 0.75,
          maxWidth: 560,
          mx: 'auto',
        }}
      >
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, minHeight: 32 }}>
          <Box sx={{ fontSize: 15, color: 'text.secondary' }}>{label}</Box>
          <Box sx={{ fontSize: 24, fontWeight: 700, minWidth: 0, overflowWrap: 'anywhere' }}>{text}</Box>
        </Box>
        {wrong !== undefined && <Box sx={{ color: 'error.main', fontSize: 15 }}>{wrong}</Box>}
        {units === 'in' && (
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(5, 1fr)', gap: 0.5 }}>
            {SIXTEENTHS.map((f) => one(f, () => type(f), f, { minHeight: 44, fontSize: 18 }))}
          </Box>
        )}
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 0.75 }}>
          {DIGITS.slice(0, 3).map((d) => one(d, () => type(d)))}
          {one(t`Delete last digit`, wipe, '⌫')}
          {DIGITS.slice(3, 6).map((d) => one(d, () => type(d)))}
          {one('mm', () => write(marked(field.value, 'mm')))}
          {DIGITS.slice(6, 9).map((d) => one(d, () => type(d)))}
          {one('in', () => write(marked(field.value, 'in')))}
          {DIGITS.slice(9).map((d) => one(d, () => type(d)))}
          <Button variant="contained" tabIndex={-1} onClick={onDone} sx={{ fontSize: 18 }}>{t`Done`}</Button>
        </Box>
      </Box>
    </Portal>
  );
}
