/** A saw from its kind and three numbers off its plate; what follows from them is filled in, and said to be a guess. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import { useAddSaw, useUsualSaw, useUsualSaws } from '../../api/rack';
import type { Saw, SawInput, Units } from '../../api/types';
import { SawGlyph } from '../../drawings/SawGlyph';
import { upper } from '../../drawings/words';
import { sawWords } from '../../drawings/recordWords';
import { formatLength, formatSetting } from '../../measure/format';
import { LineField, NumberField } from '../../ui/Fields';
import { Trouble } from '../../ui/Notice';
import { LengthField } from '../../ui/LengthField';
import { useRecord } from '../../ui/useRecord';

interface Props {
  units: Units;
  taken: string[]; // names
  onIn: (s: Saw) => void;
}

export function NewSaw({ units, taken, onIn }: Props) {
  const usual = useUsualSaws().data;
  const [of, setOf] = useState<SawInput>();
  return (
    <Box>
      <Box
        role="group"
        aria-label={t`Kind of saw`}
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1 }}
      >
        {(usual ?? []).map((u) => (
          <ButtonBase
            key={u.kind}
            aria-pressed={of?.kind === u.kind}
            onClick={() => setOf({ ...u, name: nameFor(u.kind, taken) })}
            sx={{
              flexDirection: 'column',
              border: '1.5px solid',
              borderColor: 'drawing.hair',
              py: 1,
              fontWeight: 600,
              fontSize: 16,
              '&[aria-pressed=true]': {
                borderColor: 'text.primary',
                borderWidth: 3,
                bgcolor: 'background.paper',
              },
            }}
          >
            <SawGlyph kind={u.kind} />
            {upper(sawWords[u.kind])}
          </ButtonBase>
        ))}
      </Box>
      {of && <Plate key={of.kind} of={of} units={units} onIn={onIn} />}
    </Box>
  );
}

function Plate({ of, units, onIn }: { of: SawInput; units: Units; onIn: (s: Saw) => void }) {
  const { input: saw, set, problem, bounded } = useRecord(of, 'SawInput');
  const [key] = useState(() => crypto.randomUUID());
  const add = useAddSaw();
  // What follows from the diameter is the server's to say.
  const follows = useUsualSaw({ kind: saw.kind, diameter_mm: saw.diameter_mm });
  const guess = follows.isPlaceholderData ? undefined : follows.data;
  const failed = follows.error ?? add.error;
  return (
    <Box sx={{ display: 'grid', gap: 1.5, mt: 2 }}>
      <LineField label={t`Name`} value={saw.name} most={60} onText={(name) => set({ name })} />
      <Box sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: { xs: '1fr 1fr', sm: 'repeat(3, 1fr)' } }}>
        <LengthField
          label={t`Blade diameter`}
          mm={saw.diameter_mm}
          units={units}
          onLength={(diameter_mm) => set({ diameter_mm })}
          problem={problem('diameter_mm')}
        />
        <NumberField
          label={t`Speed`}
          unit={t`rpm`}
          value={saw.rpm}
          onNumber={(rpm) => set({ rpm: rpm ?? 0 })}
          problem={problem('rpm')}
        />
        <NumberField
          label={t`Power`}
          unit="W"
          value={saw.motor_w}
          onNumber={(motor_w) => set({ motor_w: motor_w ?? 0 })}
          problem={problem('motor_w')}
        />
      </Box>
      <Box sx={{ color: 'text.secondary', lineHeight: 1.4, minHeight: { xs: 64, sm: 44 } }}>
        {guess &&
          t`Assumed for now: arbor ${formatLength(guess.arbor_mm, units)}, blade up to ${formatSetting(guess.reach_mm, units)} ${saw.kind === 'table' ? 'high' : 'deep'}. Add the rest when you like.`}
      </Box>
      {failed && <Trouble>{failed.message}</Trouble>}
      <Button
        variant="contained"
        disabled={!bounded || saw.name.trim() === '' || !guess || add.isPending}
        onClick={() =>
          guess &&
          add.mutate(
            { key, body: { ...saw, arbor_mm: guess.arbor_mm, reach_mm: guess.reach_mm } },
            { onSuccess: onIn },
          )
        }
        sx={{ justifySelf: 'start', minHeight: 52, px: 3 }}
      >
        {t`Add saw`}
      </Button>
    </Box>
  );
}

function nameFor(kind: SawInput['kind'], taken: string[]) {
  const name = upper(sawWords[kind]);
  for (let i = 1; ; i++) {
    const tried = i === 1 ? name : `${name} ${i}`;
    if (!taken.includes(tried)) return tried;
  }
}
