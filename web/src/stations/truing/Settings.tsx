/** What a session is of: the blade, how it is read, and the sizes of a test cut. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { Blade, TruingInput, TruingTest, Units } from '../../api/types';
import { LineField, NumberField } from '../../ui/Fields';
import { LengthField } from '../../ui/LengthField';
import type { Sizes } from './Readings';

export interface Setup {
  blade: string | undefined;
  steps: number; // round the plate
  span: number; // mm from front to rear
  dial: 'left' | 'right'; // of the blade
  instrument: NonNullable<TruingInput['instrument']>;
  slots: string;
  sizes: Sizes;
}

interface Props {
  test: TruingTest;
  setup: Setup;
  blades: Blade[];
  begun: boolean; // something was read
  units: Units;
  onChange: (part: Partial<Omit<Setup, 'sizes'>>) => void;
  onSize: (part: Sizes) => void;
}

export function Settings({ test, setup, blades, begun, units, onChange, onSize }: Props) {
  const { sizes } = setup;
  const size = (field: keyof Sizes, label: string) => (
    <LengthField
      label={label}
      mm={sizes[field]}
      units={units}
      live
      onLength={(mm) => onSize({ [field]: mm })}
    />
  );
  const along = test === 'heel' || test === 'fence';
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))',
        gap: 1.5,
        mb: 1.5,
      }}
    >
      {(test === 'clearance' || test === 'runout') && (
        <TextField
          select
          size="small"
          label={t`Blade`}
          value={setup.blade ?? ''}
          onChange={(e) => onChange({ blade: e.target.value })}
        >
          {blades
            .filter((b) => b.teeth > 0)
            .map((b) => (
              <MenuItem key={b.id} value={b.id}>
                {b.name}
              </MenuItem>
            ))}
        </TextField>
      )}
      {test === 'runout' && (
        <TextField
          select
          size="small"
          label={t`Steps around`}
          value={setup.steps}
          disabled={begun}
          onChange={(e) => onChange({ steps: Number(e.target.value) })}
        >
          {[4, 6, 8, 12, 16, 24].map((k) => (
            <MenuItem key={k} value={k}>
              {k}
            </MenuItem>
          ))}
        </TextField>
      )}
      {along && (
        <LengthField
          label={t`Front to rear`}
          mm={setup.span}
          units={units}
          onLength={(span) => onChange({ span })}
        />
      )}
      {along && (
        <TextField
          select
          size="small"
          label={t`Read with`}
          value={setup.instrument}
          disabled={begun}
          onChange={(e) => onChange({ instrument: e.target.value as Setup['instrument'] })}
        >
          <MenuItem value="dial">{t`a dial indicator`}</MenuItem>
          <MenuItem value="distance">{t`a rule or caliper`}</MenuItem>
        </TextField>
      )}
      {test === 'heel' && (
        <TextField
          select
          size="small"
          label={t`Miter slot`}
          value={setup.dial}
          onChange={(e) => onChange({ dial: e.target.value as Setup['dial'] })}
        >
          <MenuItem value="left">{t`left of the blade`}</MenuItem>
          <MenuItem value="right">{t`right of the blade`}</MenuItem>
        </TextField>
      )}
      {test === 'clearance' && (
        <LineField
          label={t`Teeth beside slots`}
          value={setup.slots}
          onText={(slots) => onChange({ slots })}
          hint={t`such as 10, 11, 30, 31`}
        />
      )}
      {test === 'tilt' && size('height_mm', t`Height of the board`)}
      {test === 'tilt' && (
        <NumberField
          label={t`Gap, + on top`}
          unit={'mm'}
          value={sizes.gap_mm}
          onNumber={(gap_mm) => onSize({ gap_mm })}
        />
      )}
      {test === 'gauge' && size('length_mm', t`Length of the strip`)}
      {(test === 'width' || test === 'depth') && size('wanted_mm', t`Target`)}
      {(test === 'width' || test === 'depth') && size('measured_mm', t`Measured`)}
    </Box>
  );
}
