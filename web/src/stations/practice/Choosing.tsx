/** One of several is chosen: by its drawing, by its words, or by pointing at a part of a drawing. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { useState, type ReactNode } from 'react';
import type { DrawnBlade, DrillChoice } from '../../api/types';
import { PlainBlade } from '../../drawings/PlainBlade';
import { parts as known, PlanView, type PartSpot } from '../../drawings/PlanView';
import { RimView } from '../../drawings/RimView';
import { TeethStrip } from '../../drawings/TeethStrip';
import type { Taking } from './useTask';
import { Feeling } from './Feeling';
import { Turning } from './Turning';

const isPart = (key: string): key is PartSpot => known.some((k) => k === key);

export function Choosing(p: Taking) {
  const { task, told, busy, onAnswer } = p;
  const choose = (choice: string) => onAnswer({ choice });
  if (task.odd && task.blade) return <OddOne {...p} blade={task.blade} />;
  if (task.choices.some((c) => c.felt)) return <Feeling {...p} />;
  const parts = task.choices.map((c) => c.key).filter(isPart);
  const drawing = task.plan ? (
    <PlanView
      plan={task.plan}
      flags={parts}
      shown={told?.truth && isPart(told.truth) ? told.truth : undefined}
      {...(!told && !busy && { onPart: choose })}
    />
  ) : (
    task.blade &&
    task.shows === 'fronts' && (
      <Box sx={{ display: 'flex', justifyContent: 'center', py: 2 }}>
        <Box sx={{ width: '100%', maxWidth: 460, '& svg': { width: '100%', height: 'auto' } }}>
          <TeethStrip blade={task.blade} />
        </Box>
      </Box>
    )
  );
  const pictures = task.choices.every((c) => c.blade ?? c.plan);
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 2,
        gridTemplateColumns: drawing ? { xs: '1fr', md: 'minmax(0, 3fr) minmax(220px, 2fr)' } : '1fr',
        alignItems: 'start',
      }}
    >
      {drawing}
      <Box
        role="group"
        aria-label={t`Your answer`}
        sx={{
          display: 'grid',
          gap: 1,
          gridTemplateColumns: pictures
            ? { xs: 'repeat(2, minmax(0, 1fr))', md: 'repeat(auto-fit, minmax(200px, 1fr))' }
            : '1fr',
        }}
      >
        {task.choices.map((c, i) => (
          <Choice
            key={c.key}
            choice={c}
            number={task.plan || task.choices.length > 7 ? i + 1 : undefined}
            right={told?.truth === c.key}
            done={told !== undefined || busy}
            onChoose={() => choose(c.key)}
          />
        ))}
      </Box>
    </Box>
  );
}

interface ChoiceProps {
  choice: DrillChoice;
  number: number | undefined;
  right: boolean;
  done: boolean;
  onChoose: () => void;
}

function Choice({ choice: c, number, right, done, onChoose }: ChoiceProps) {
  const picture: ReactNode = c.blade ? (
    <>
      <PlainBlade shape={c.blade} size={150} />
      <TeethStrip blade={c.blade} width={150} height={58} />
    </>
  ) : (
    c.plan && <PlanView plan={c.plan} />
  );
  return (
    <ButtonBase
      disabled={done}
      onClick={onChoose}
      sx={{
        flexDirection: picture ? 'column' : 'row',
        justifyContent: picture ? 'center' : 'flex-start',
        gap: 1.25,
        minHeight: 48,
        p: 1.25,
        textAlign: 'left',
        font: 'inherit',
        fontSize: 17,
        border: '1.5px solid',
        borderColor: right ? 'primary.main' : 'drawing.hair',
        borderWidth: right ? 3 : 1.5,
        '&:hover': { borderColor: 'text.primary' },
      }}
    >
      {picture}
      {(number ?? !c.text) && (
        <Box component="span" sx={{ fontWeight: 700, minWidth: 18 }}>
          {c.text ? number : c.key}
        </Box>
      )}
      {c.text}
    </ButtonBase>
  );
}

/** The tooth under the mark is the answer: the blade is turned until the odd one stands there. */
function OddOne({ task, told, busy, onAnswer, blade }: Taking & { blade: DrawnBlade }) {
  const [turn, setTurn] = useState(0);
  const tooth = (((Math.round(turn) % blade.teeth) + blade.teeth) % blade.teeth) + 1;
  return (
    <>
      <RimView blade={blade} odd={task.odd} turn={told?.truth ? Number(told.truth) - 1 : turn} />
      <Turning teeth={blade.teeth} turn={turn} onTurn={setTurn} />
      <Button
        variant="contained"
        sx={{ mt: 1.5 }}
        disabled={busy || told !== undefined}
        onClick={() => onAnswer({ choice: String(tooth) })}
      >{t`The one under the mark`}</Button>
    </>
  );
}
