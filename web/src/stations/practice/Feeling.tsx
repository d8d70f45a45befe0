/** Two cuts under the same push: how quickly each goes, how it sounds, what wall it leaves; one is the one that is asked for. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useEffect, useState } from 'react';
import type { DrillChoice, FeltCut } from '../../api/types';
import { ink } from '../../drawings/ink';
import { PracticeWall } from '../../drawings/PracticeWall';
import { trim } from '../../measure/format';
import type { Taking } from './useTask';
import { SoundSwitch } from './SoundSwitch';
import { useNote, type Note } from './useNote';

type Felt = DrillChoice & { felt: FeltCut };

export function Feeling({ task, told, busy, onAnswer }: Taking) {
  const note = useNote();
  const [blind, setBlind] = useState(false);
  const cuts = task.choices.filter((c): c is Felt => c.felt !== undefined);
  return (
    <>
      <Box
        sx={{ display: 'grid', gap: 2, gridTemplateColumns: { xs: '1fr', md: 'repeat(2, minmax(0, 1fr))' } }}
      >
        {cuts.map((c) => (
          <Cut
            key={c.key}
            cut={c}
            note={note}
            numbers={!blind || told !== undefined}
            right={told?.truth === c.key}
            done={told !== undefined || busy}
            onChoose={() => onAnswer({ choice: c.key })}
          />
        ))}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, mt: 1 }}>
        <SoundSwitch note={note} />
        <FormControlLabel
          control={<Checkbox checked={blind} onChange={(e) => setBlind(e.target.checked)} />}
          label={t`Hide the numbers`}
        />
      </Box>
    </>
  );
}

interface CutProps {
  cut: Felt;
  note: Note;
  numbers: boolean;
  right: boolean;
  done: boolean;
  onChoose: () => void;
}

function Cut({ cut, note, numbers, right, done, onChoose }: CutProps) {
  const { felt } = cut;
  const still = useMediaQuery('(prefers-reduced-motion: reduce)');
  const [share, setShare] = useState(0); // of the cut
  const [going, setGoing] = useState(false);
  const { hear, quiet } = note;
  useEffect(() => {
    if (!going) return;
    const begun = performance.now();
    let frame = 0;
    const teeth = (60 * felt.note_hz) / felt.turns;
    hear({ turns: felt.turns, teeth, load: felt.load });
    const tick = (now: number) => {
      const at = Math.min(1, (now - begun) / 1000 / felt.seconds);
      setShare(at);
      if (at < 1) frame = requestAnimationFrame(tick);
      else setGoing(false);
    };
    frame = requestAnimationFrame(tick);
    return () => {
      cancelAnimationFrame(frame);
      quiet();
    };
  }, [going, felt, hear, quiet]);
  const over = share >= 1;
  return (
    <Box
      sx={{
        border: '1.5px solid',
        borderColor: right ? 'primary.main' : 'drawing.hair',
        borderWidth: right ? 3 : 1.5,
        p: 1.5,
      }}
    >
      <Box sx={{ fontSize: 22, fontWeight: 700 }}>{cut.key}</Box>
      <svg viewBox="0 0 400 84" width="100%" aria-hidden focusable="false" style={{ display: 'block' }}>
        <rect
          x={share * 200}
          y={10}
          width={200}
          height={54}
          fill={ink.wood}
          stroke={ink.ink}
          strokeWidth={1.5}
        />
        <rect x={200} y={33} width={70} height={7} rx={3} fill={ink.steel} stroke={ink.ink} />
        <path d={`M200 36.500h${share * 200}`} stroke={ink.sheet} strokeWidth={4} />
        <path d="M0 68H400" stroke={ink.ink} strokeWidth={3} />
      </svg>
      <Box sx={{ minHeight: 96 }}>
        {over && <PracticeWall length={felt.length_mm} wall={felt.wall} slowest={0} fastest={0} alone />}
        {over && numbers && (
          <Box sx={{ mt: 0.5, fontVariantNumeric: 'tabular-nums' }}>
            {t`${trim(felt.seconds, 1)} s; ${Math.round(felt.note_hz)} teeth a second; the motor at ${Math.round(100 * felt.load)} % of its limit`}
          </Box>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button
          variant="outlined"
          disabled={going}
          onClick={() => {
            if (still) setShare(1);
            else setGoing(true);
          }}
        >{t`Push ${cut.key}`}</Button>
        <Button variant="contained" disabled={done} onClick={onChoose}>{t`It is ${cut.key}`}</Button>
      </Box>
    </Box>
  );
}
