/** The tray of usual blades: one tap hangs one up, and one more takes it down again. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import { Link } from 'react-router';
import { useAddBlade, useRetireBlade, useUsualBlades } from '../../api/rack';
import type { Blade, Saw, Units, UsualBlade } from '../../api/types';
import { cutFace } from '../../drawings/theme';
import { PlainBlade } from '../../drawings/PlainBlade';
import { grindShort } from '../../drawings/words';
import { formatThin, trim } from '../../measure/format';
import { Trouble } from '../../ui/Notice';

interface Props {
  saw: Saw;
  hung: Blade[];
  units: Units;
}

export function Tray({ saw, hung, units }: Props) {
  const usual = useUsualBlades(saw.id);
  const add = useAddBlade();
  const retire = useRetireBlade();
  const [keys, setKeys] = useState<Record<string, string>>({});
  const failed = usual.error ?? add.error ?? retire.error;
  const like = (u: UsualBlade) =>
    hung.find((b) => b.name === u.input.name && b.diameter_mm === u.input.diameter_mm);
  const hang = (u: UsualBlade) => {
    const key = keys[u.id] ?? crypto.randomUUID();
    setKeys({ ...keys, [u.id]: key });
    add.mutate(
      { key, body: u.input },
      { onSuccess: () => setKeys((now) => ({ ...now, [u.id]: crypto.randomUUID() })) },
    );
  };
  return (
    <Box>
      {failed && <Trouble sx={{ mb: 1 }}>{failed.message}</Trouble>}
      <Box
        component="ul"
        aria-label={t`Usual blades of ${saw.name}`}
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 150px), 1fr))',
          minHeight: { xs: 720, sm: 480 },
          alignContent: 'start',
        }}
      >
        {(usual.data ?? []).map((u) => {
          const there = like(u);
          return (
            <li key={u.id}>
              <ButtonBase
                aria-pressed={there !== undefined}
                disabled={add.isPending || retire.isPending}
                onClick={() =>
                  there
                    ? retire.mutate({
                        id: there.id,
                        body: { reason: 'other', note: t`removed again` },
                      })
                    : hang(u)
                }
                sx={{
                  flexDirection: 'column',
                  width: '100%',
                  height: '100%',
                  justifyContent: 'flex-start',
                  p: 1,
                  border: '1.5px solid',
                  borderColor: 'drawing.hair',
                  lineHeight: 1.25,
                  '&[aria-pressed=true]': {
                    borderColor: 'text.primary',
                    borderWidth: 3,
                    bgcolor: 'background.paper',
                  },
                }}
              >
                <PlainBlade
                  shape={{
                    diameter_mm: u.input.diameter_mm,
                    teeth: u.input.teeth ?? 0,
                    hook_deg: u.input.hook_deg ?? 0,
                    gullet_depth_mm: u.gullet_depth_mm,
                    bore_mm: u.input.bore_mm,
                  }}
                  size={104}
                />
                <Box sx={{ fontFamily: cutFace, fontWeight: 640, fontSize: 19 }}>
                  {there && '✓ '}
                  {u.input.name}
                </Box>
                <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
                  {[
                    u.input.grind && grindShort[u.input.grind],
                    t`hook ${trim(u.input.hook_deg ?? 0, 0)}°`,
                    t`kerf ${formatThin(u.input.kerf_mm, units)}`,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </Box>
                <Box sx={{ fontSize: 15 }}>{u.for}</Box>
              </ButtonBase>
            </li>
          );
        })}
      </Box>
      <Box sx={{ mt: 1.5, color: 'text.secondary', lineHeight: 1.4 }}>
        <Trans>
          Tap a blade to add it with usual values. Correct them on <Link to="/blades">its page</Link>. Not
          listed? <Link to="/blades/new">Enter its values</Link>.
        </Trans>
      </Box>
    </Box>
  );
}
