/** Which blade goes on; one that may not is refused with the rule that stops it. */
import { t } from '@lingui/core/macro';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { useStartMounting } from '../../api/mount';
import { useBlades } from '../../api/rack';
import type { Units } from '../../api/types';
import { specOf } from '../../drawings/words';
import { Trouble } from '../../ui/Notice';

interface Props {
  saw: string;
  sawName: string;
  on: string | undefined;
  units: Units;
  first?: boolean; // it is what helps most now
}

export function MountMenu({ saw, sawName, on, units, first = false }: Props) {
  const blades = useBlades();
  const start = useStartMounting();
  const go = useNavigate();
  const { search } = useLocation();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [refused, setRefused] = useState<string>();
  return (
    <>
      <Button variant={first ? 'contained' : 'outlined'} onClick={(e) => setAnchor(e.currentTarget)}>
        {t`Mount blade`}
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        slotProps={{
          list: { 'aria-label': t`Blades for ${sawName}`, dense: true },
          paper: { sx: { maxHeight: 420 } },
        }}
      >
        {(blades.data ?? [])
          .filter((b) => b.id !== on)
          .map((b) => (
            <MenuItem
              key={b.id}
              sx={{ whiteSpace: 'normal' }}
              onClick={() => {
                setAnchor(null);
                setRefused(undefined);
                start.mutate(
                  { saw_id: saw, blade_id: b.id, units },
                  {
                    onSuccess: (m) => void go(`/mount/${m.id}${search}`),
                    onError: (e) => setRefused(e.message),
                  },
                );
              }}
            >
              {b.name}, {specOf(b, units)}
            </MenuItem>
          ))}
      </Menu>
      {refused && <Trouble sx={{ width: '100%' }}>{refused}</Trouble>}
    </>
  );
}
