/**
 * The words of a sentence that are its controls: a word that opens a list, and
 * a word that opens a field for a length.
 */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import type { Units } from '../api/types';
import { formatLength, typedNumber } from '../measure/format';
import type { Choice } from './ChoiceMenu';
import { Choices, Popover } from './Floating';

// What one types in comes with the sheet that it stands in (Floating.tsx).
const TextBox = lazy(() => import('./TextBox').then((m) => ({ default: m.TextBox })));
const LengthField = lazy(() => import('./LengthField').then((m) => ({ default: m.LengthField })));

interface WordProps {
  label: string; // what the word decides, for those who do not see the sentence
  wrong?: boolean;
  onClick: (e: React.MouseEvent<HTMLButtonElement>) => void;
  children: ReactNode;
  open: boolean;
}

function WordButton({ label, wrong, onClick, children, open }: WordProps) {
  return (
    <ButtonBase
      aria-label={`${label}: ${typeof children === 'string' ? children : ''}`}
      aria-haspopup="true"
      aria-expanded={open}
      onClick={onClick}
      sx={{
        font: 'inherit',
        color: wrong ? 'error.main' : 'primary.main',
        fontWeight: 650,
        px: 0.25,
        minHeight: { xs: 44, md: 0 },
        minWidth: { xs: 44, md: 0 }, // a finger's breadth, also for a short word
        verticalAlign: 'baseline',
        textDecoration: wrong ? 'underline wavy 2px' : 'underline 2px',
        textUnderlineOffset: '0.22em',
        borderRadius: 0,
        lineHeight: 1.15,
        '&:hover': { bgcolor: 'action.hover' },
      }}
    >
      {children}
    </ButtonBase>
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  choices: Choice<T>[];
  onChoose: (v: T) => void;
  wrong?: boolean;
  children?: string; // the word in the sentence, where it differs from the choice's name
}

export function ChoiceWord<T extends string>({
  label,
  value,
  choices,
  onChoose,
  wrong,
  children,
}: ChoiceProps<T>) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const said = children ?? choices.find((c) => c.value === value)?.name ?? value;
  return (
    <>
      <WordButton
        label={label}
        wrong={wrong}
        open={anchor !== null}
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        {said}
      </WordButton>
      <Choices {...{ label, value, choices, onChoose }} anchorEl={anchor} onClose={() => setAnchor(null)} />
    </>
  );
}

const pick = {
  px: 1.25,
  minHeight: 44,
  minWidth: 52,
  fontSize: 16,
  border: '1.5px solid',
  borderColor: 'drawing.hair',
  borderRadius: 1,
};

interface PopoverProps {
  label: string;
  wrong?: boolean;
  said: string; // the word in the sentence
  onOpen?: () => void;
  children: (close: () => void) => ReactNode;
}

/** A word that opens a small sheet. */
export function PopoverWord({ label, wrong, said, onOpen, children }: PopoverProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  return (
    <>
      <WordButton
        label={label}
        wrong={wrong}
        open={anchor !== null}
        onClick={(e) => {
          onOpen?.();
          setAnchor(e.currentTarget);
        }}
      >
        {said}
      </WordButton>
      <Popover
        anchorEl={anchor}
        open={anchor !== null}
        onClose={close}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': label } as object }}
      >
        <Box sx={{ p: 2, width: 296 }}>
          <Suspense fallback={null}>{children(close)}</Suspense>
        </Box>
      </Popover>
    </>
  );
}

interface AngleProps {
  label: string;
  deg: number;
  most: number;
  picks: number[];
  square: string; // what the word says at 0
  turned: string; // what it says before the degrees
  onChoose: (deg: number) => void;
  wrong?: boolean;
  problem?: string;
}

/** A word for an angle: square, or so many degrees. */
export function AngleWord({ label, deg, most, picks, square, turned, onChoose, wrong, problem }: AngleProps) {
  const [text, setText] = useState('');
  const typed = typedNumber(text.replace('°', ''));
  const bad =
    text !== '' && !(typed >= 0 && typed <= most) ? t`Degrees from square, 0 to ${most}.` : undefined;
  return (
    <PopoverWord
      label={label}
      wrong={wrong}
      said={deg > 0 ? `${turned} ${deg}°` : square}
      onOpen={() => setText('')}
    >
      {(close) => {
        const choose = (v: number) => {
          close();
          onChoose(v);
        };
        return (
          <>
            <TextBox
              label={t`${label}, degrees`}
              value={text}
              placeholder={String(deg)}
              autoFocus
              error={bad !== undefined || problem !== undefined}
              helperText={bad ?? problem ?? t`From square`}
              onChange={(e) => setText(e.target.value)}
              onKeyDown={(e) => {
                if (e.key !== 'Enter' || text === '' || bad) return;
                e.preventDefault(); // or the word, which has the focus again, would open once more
                choose(typed);
              }}
              inputProps={{ inputMode: 'decimal', style: { fontSize: 20 } }}
            />
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
              {picks
                .filter((p) => p <= most)
                .map((p) => (
                  <ButtonBase key={p} onClick={() => choose(p)} sx={pick}>
                    {p === 0 ? square : `${p}°`}
                  </ButtonBase>
                ))}
            </Box>
          </>
        );
      }}
    </PopoverWord>
  );
}

interface CountProps {
  label: string;
  count: number;
  most: number;
  picks: number[];
  said: (n: number) => string;
  onChoose: (n: number) => void;
  wrong?: boolean;
}

/** A word for how many. */
export function CountWord({ label, count, most, picks, said, onChoose, wrong }: CountProps) {
  const [text, setText] = useState('');
  const typed = Number(text);
  const bad = text !== '' && !(Number.isInteger(typed) && typed >= 1 && typed <= most);
  return (
    <PopoverWord label={label} wrong={wrong} said={said(count)} onOpen={() => setText('')}>
      {(close) => {
        const choose = (n: number) => {
          close();
          onChoose(n);
        };
        return (
          <>
            <TextBox
              label={label}
              value={text}
              placeholder={String(count)}
              autoFocus
              error={bad}
              helperText={bad ? t`A whole number, 1 to ${most}.` : t`Number of identical pieces`}
              onChange={(e) => setText(e.target.value.trim())}
              onBlur={() => text !== '' && !bad && onChoose(typed)}
              onKeyDown={(e) => {
                if (e.key !== 'Enter' || text === '' || bad) return;
                e.preventDefault(); // or the word, which has the focus again, would open once more
                choose(typed);
              }}
              inputProps={{ inputMode: 'numeric', style: { fontSize: 20 } }}
            />
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
              {picks.map((n) => (
                <ButtonBase key={n} onClick={() => choose(n)} sx={pick}>
                  {n}
                </ButtonBase>
              ))}
            </Box>
          </>
        );
      }}
    </PopoverWord>
  );
}

interface LengthProps {
  label: string;
  mm: number | undefined;
  units: Units;
  picks: number[]; // in millimetres
  onChoose: (mm: number | undefined) => void;
  unsaid?: string; // what the word says without a length; then it can be taken back
  wrong?: boolean;
  problem?: string;
}

export function LengthWord({ label, mm, units, picks, onChoose, unsaid, wrong, problem }: LengthProps) {
  return (
    <PopoverWord
      label={label}
      wrong={wrong}
      said={mm === undefined ? (unsaid ?? '') : formatLength(mm, units)}
    >
      {(close) => (
        <>
          <LengthField
            label={label}
            mm={mm}
            units={units}
            autoFocus
            problem={problem}
            hint={t`Millimetres or inches: 30 mm, 1 3/16`}
            onLength={(v) => {
              close();
              onChoose(v);
            }}
          />
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
            {picks.map((p) => (
              <ButtonBase
                key={p}
                onClick={() => {
                  close();
                  onChoose(p);
                }}
                sx={pick}
              >
                {formatLength(p, units)}
              </ButtonBase>
            ))}
            {unsaid !== undefined && (
              <ButtonBase
                onClick={() => {
                  close();
                  onChoose(undefined);
                }}
                sx={pick}
              >
                {unsaid}
              </ButtonBase>
            )}
          </Box>
        </>
      )}
    </PopoverWord>
  );
}
