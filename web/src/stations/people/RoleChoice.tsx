/** What somebody may do in the shop, each more than the one before. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import type { Role } from '../../api/types';
import { upper } from '../../drawings/words';
import { roleMay, roleWords } from './words';

export function RoleChoice({ value, onChoose }: { value: Role; onChoose: (r: Role) => void }) {
  return (
    <Box
      role="radiogroup"
      aria-label={t`Role`}
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(150px, 1fr))', gap: 1 }}
    >
      {roleMay.map(([r, may]) => (
        <ButtonBase
          key={r}
          role="radio"
          aria-checked={r === value}
          onClick={() => onChoose(r)}
          sx={{
            display: 'block',
            textAlign: 'left',
            p: 1.25,
            minHeight: 76,
            border: '1.5px solid',
            borderColor: 'drawing.hair',
            '&[aria-checked=true]': {
              borderColor: 'text.primary',
              boxShadow: 'inset 0 0 0 1.5px currentColor',
            },
          }}
        >
          <Box sx={{ fontWeight: 650, fontSize: 17 }}>{upper(roleWords[r])}</Box>
          <Box sx={{ color: 'text.secondary', fontSize: 14.5, lineHeight: 1.25 }}>{may}</Box>
        </ButtonBase>
      ))}
    </Box>
  );
}
