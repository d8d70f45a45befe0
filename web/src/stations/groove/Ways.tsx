/** Every way to a groove, best first: what it takes, what it leaves, what it costs in minutes. */
import { t } from '@lingui/core/macro';
import { upper } from '../../drawings/words';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import type { GrooveWay, Units } from '../../api/types';
import { cutFace } from '../../drawings/theme';
import { formatDial, formatThin, trim } from '../../measure/format';
import { Verdict } from '../../ui/Verdict';

interface Props {
  ways: GrooveWay[];
  chosen: string | undefined;
  units: Units;
  onChoose: (id: string) => void;
}

const kindWords = {
  stack: t`dado stack`,
  dial: t`adjustable dado`,
  passes: t`in passes`,
  unsaid: t`a set`,
} as const;

export function Ways({ ways, chosen, units, onChoose }: Props) {
  return (
    <Box component="section" aria-labelledby="ways" sx={{ mt: 1.5 }}>
      <Typography id="ways" variant="h2">{t`Ways to cut it`}</Typography>
      {ways.length === 0 && (
        <Box sx={{ fontSize: 17 }}>
          {t`You have nothing that cuts it on this saw. It needs a dado stack or a blade with flat-top teeth.`}
        </Box>
      )}
      <Box component="ul" aria-label={t`Ways to cut it`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {ways.map((w) => (
          <Box component="li" key={w.blade_id} sx={{ borderTop: '1px solid', borderColor: 'divider' }}>
            <ButtonBase
              aria-pressed={w.blade_id === chosen}
              onClick={() => onChoose(w.blade_id)}
              sx={{
                width: '100%',
                textAlign: 'left',
                display: 'block',
                py: 0.75,
                px: 1,
                boxShadow: w.blade_id === chosen ? 'inset 5px 0 0 currentColor' : 'none',
                bgcolor: w.blade_id === chosen ? 'background.paper' : 'transparent',
              }}
            >
              <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
                <Box sx={{ fontFamily: cutFace, fontWeight: 650, fontSize: 19, minWidth: 0 }}>
                  {w.blade_name}
                </Box>
                <Box sx={{ color: 'text.secondary', flex: 1, fontSize: 15 }}>
                  {kindWords[w.kind]}
                  {w.mounted && `, ${t`on the saw`}`}
                </Box>
                <Box sx={{ fontSize: 15 }}>
                  <Verdict verdict={w.verdict} size={13} />
                </Box>
                {w.verdict !== 'stop' && <Box sx={{ fontWeight: 700 }}>{t`${trim(w.minutes, 0)} min`}</Box>}
              </Box>
              <Box sx={{ fontSize: 15.5, lineHeight: 1.35 }}>
                {w.says}
                {w.verdict !== 'stop' && w.sd_mm !== undefined && w.width_mm !== undefined && (
                  <>
                    : <b>{formatThin(w.width_mm, units)}</b> ± {formatDial(w.sd_mm, units)}
                  </>
                )}
                .
              </Box>
              {w.verdict !== 'stop' && (
                <Box sx={{ fontSize: 14.5, color: 'text.secondary', lineHeight: 1.35 }}>
                  {t`Bottom: ${w.flat_for}.`}
                  {w.pays && ` ${upper(w.pays)}.`}
                </Box>
              )}
            </ButtonBase>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
