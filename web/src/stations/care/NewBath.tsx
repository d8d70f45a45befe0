/** A bath worked out for a tray and the blades that go in it. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useBathMix, useCleaners, useMakeBath } from '../../api/care';
import { useBlades } from '../../api/rack';
import type { BathAsk } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { BathSection } from '../../drawings/BathView';
import { formatSetting, formatVolume } from '../../measure/format';
import { CheckField, LineField, NumberField, SelectField } from '../../ui/Fields';
import { LengthField } from '../../ui/LengthField';
import { useAfterReading } from '../../ui/useAfterReading';
import { useRecord } from '../../ui/useRecord';
import { Trouble } from '../../ui/Notice';

const usual: BathAsk = {
  name: '',
  cleaner: 'detergent',
  length_mm: 400,
  width_mm: 350,
  depth_mm: 60,
  diameter_mm: 254,
  kerf_mm: 3.2,
  blades: 2,
};

export function NewBath() {
  const { units } = usePreferences();
  const cleaners = useCleaners();
  const rack = useBlades();
  const go = useNavigate();
  const make = useMakeBath();
  const key = useRef(crypto.randomUUID());
  const [round, setRound] = useState(false);
  const { input, set, problem, bounded } = useRecord(usual, 'BathAsk');
  const asked = (of: BathAsk) => ({ ...of, width_mm: round ? undefined : of.width_mm });
  const mix = useBathMix(asked({ ...input, name: input.name || t`Bath` }));
  const pour = useAfterReading(() =>
    make.mutate({ key: key.current, body: asked(input) }, { onSuccess: () => void go('/care') }),
  );
  const sizes = [...new Set((rack.data ?? []).filter((b) => b.teeth > 0).map((b) => b.diameter_mm))].sort(
    (a, b) => a - b,
  );
  const m = mix.error ? undefined : mix.data;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Typography variant="h1" sx={{ mb: 2 }}>{t`Mix a bath`}</Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 6fr) minmax(0, 5fr)' },
          columnGap: 4,
          alignItems: 'start',
        }}
      >
        <BathSection
          long={input.length_mm}
          deep={input.depth_mm}
          diameter={input.diameter_mm}
          kerf={input.kerf_mm}
          blades={input.blades}
          level={m?.level_mm}
          units={units}
        />
        <Box>
          <Box
            sx={{
              display: 'grid',
              gap: 2,
              gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 190px), 1fr))',
            }}
          >
            <LineField
              label={t`Name`}
              value={input.name}
              most={60}
              onText={(name) => set({ name })}
              problem={input.name === '' ? undefined : problem('name')}
            />
            <SelectField
              label={t`Cleaner`}
              value={cleaners.data ? input.cleaner : ''}
              choices={(cleaners.data ?? []).map((c) => [c.id, c.name] as const)}
              onChoose={(cleaner) => set({ cleaner })}
            />
            <SelectField
              label={t`Largest blade`}
              value={sizes.includes(input.diameter_mm) ? String(input.diameter_mm) : ''}
              choices={sizes.map((d) => [String(d), formatSetting(d, units)] as const)}
              onChoose={(d) => set({ diameter_mm: Number(d) })}
            />
            <NumberField
              label={t`Blades at once`}
              value={input.blades}
              onNumber={(n) => set({ blades: n ?? 0 })}
              problem={problem('blades')}
            />
            <LengthField
              label={round ? t`Tray, diameter` : t`Tray, length`}
              mm={input.length_mm}
              units={units}
              onLength={(length_mm) => set({ length_mm })}
              problem={problem('length_mm')}
            />
            {!round && (
              <LengthField
                label={t`Tray, width`}
                mm={input.width_mm ?? 350}
                units={units}
                onLength={(width_mm) => set({ width_mm })}
                problem={problem('width_mm')}
              />
            )}
            <LengthField
              label={t`Tray, depth`}
              mm={input.depth_mm}
              units={units}
              onLength={(depth_mm) => set({ depth_mm })}
              problem={problem('depth_mm')}
            />
            <CheckField label={t`A round tray`} value={round} onCheck={setRound} />
          </Box>
          {(mix.error ?? make.error) && (
            <Trouble sx={{ mt: 2 }}>{(mix.error ?? make.error)?.message}</Trouble>
          )}
          {m && (
            <Box role="status" sx={{ mt: 2 }}>
              <Box sx={{ fontSize: 34, fontWeight: 700 }}>
                {m.water_l > 0
                  ? t`${formatVolume(m.cleaner_l, units)} of cleaner and ${formatVolume(m.water_l, units)} of water`
                  : t`${formatVolume(m.litres, units)}, undiluted`}
              </Box>
              <Box sx={{ color: 'text.secondary' }}>
                {t`${formatSetting(m.level_mm, units)} of liquid covers them. Follow the label on the cleaner.`}
              </Box>
            </Box>
          )}
          <Button
            variant="contained"
            sx={{ mt: 2, px: 4 }}
            disabled={!m || !bounded || input.name === '' || make.isPending}
            onClick={pour}
          >
            {t`Bath is ready`}
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
