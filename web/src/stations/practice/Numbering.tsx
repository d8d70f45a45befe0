/** A number is read off: teeth, a lean, or what a gauge shows. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import { useState } from 'react';
import { GaugeView } from '../../drawings/GaugeView';
import { HookView } from '../../drawings/HookView';
import { PlainBlade } from '../../drawings/PlainBlade';
import { RimView } from '../../drawings/RimView';
import { NumberField } from '../../ui/Fields';
import type { Taking } from './useTask';
import { Turning } from './Turning';

const INCH = 25.4;

export function Numbering({ task, told, busy, onAnswer }: Taking) {
  const [value, setValue] = useState<number>();
  const [turn, setTurn] = useState(0);
  const done = told !== undefined || busy;
  const { blade, face } = task;
  const hook = task.unit === 'degrees' && blade !== undefined;
  const unit = { teeth: undefined, degrees: '°', mm: face?.inch ? 'in' : 'mm' }[task.unit ?? 'teeth'];
  const give = (v: number) => onAnswer({ value: face?.inch ? v * INCH : v });
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 2,
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 3fr) minmax(240px, 2fr)' },
        alignItems: 'center',
      }}
    >
      <Box>
        {face && <GaugeView face={face} />}
        {hook && (
          <HookView blade={blade} deg={told?.value ?? value ?? 0} {...(!done && { onTurn: setValue })} />
        )}
        {blade && !hook && (
          <Box sx={{ display: 'flex', flexDirection: 'column', alignItems: 'center' }}>
            <PlainBlade shape={blade} size={250} />
            <Box sx={{ width: '100%', maxWidth: 480 }}>
              <RimView blade={blade} turn={turn} chalk />
            </Box>
            <Box sx={{ width: '100%' }}>
              <Turning teeth={blade.teeth} turn={turn} onTurn={setTurn} />
            </Box>
          </Box>
        )}
      </Box>
      <Box
        component="form"
        onSubmit={(e) => {
          e.preventDefault();
          if (hook) give(value ?? 0);
          else if (value !== undefined) give(value);
        }}
        sx={{ display: 'grid', gap: 2 }}
      >
        {hook ? (
          <Box>
            <Box
              sx={{ fontSize: 30, fontWeight: 700, fontVariantNumeric: 'tabular-nums' }}
            >{`${value ?? 0}°`}</Box>
            <Slider
              aria-label={t`Angle of the straightedge`}
              min={-15}
              max={35}
              step={1}
              value={value ?? 0}
              disabled={done}
              getAriaValueText={(v) => `${v}°`}
              onChange={(_, v) => setValue(v)}
            />
          </Box>
        ) : (
          <NumberField
            label={task.unit === 'teeth' ? t`Teeth` : t`Reading`}
            value={value}
            onNumber={setValue}
            {...(unit && { unit })}
          />
        )}
        <Button
          type="submit"
          variant="contained"
          disabled={done || (!hook && value === undefined)}
        >{t`Check`}</Button>
      </Box>
    </Box>
  );
}
