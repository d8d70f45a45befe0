/** Which blades may be used today; none chosen is all of them. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { useBlades } from '../../api/rack';
import { CheckField } from '../../ui/Fields';

interface Props {
  only: string[];
  onOnly: (ids: string[]) => void;
}

export function OnlyBlades({ only, onOnly }: Props) {
  const blades = (useBlades().data ?? []).filter((b) => b.teeth > 0);
  const [picked, setPicked] = useState<Set<string>>();
  const all = new Set(blades.map((b) => b.id));
  const open = () => setPicked(only.length > 0 ? new Set(only) : all);
  return (
    <>
      <Button variant="outlined" onClick={open} sx={{ minHeight: { xs: 44, md: 36 } }}>
        {only.length > 0
          ? plural(only.length, { one: 'only # blade', other: 'only # blades' })
          : t`all blades`}
      </Button>
      <Dialog open={picked !== undefined} onClose={() => setPicked(undefined)} fullWidth maxWidth="sm">
        <DialogTitle>{t`Blades that may be used`}</DialogTitle>
        <DialogContent>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 150px), 1fr))',
            }}
          >
            {blades.map((b) => (
              <CheckField
                key={b.id}
                label={b.name}
                value={picked?.has(b.id) ?? false}
                onCheck={(on) => {
                  const next = new Set(picked);
                  if (on) next.add(b.id);
                  else next.delete(b.id);
                  setPicked(next);
                }}
              />
            ))}
          </Box>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setPicked(all)}>{t`All`}</Button>
          <Button onClick={() => setPicked(new Set())}>{t`None`}</Button>
          <Button
            variant="contained"
            disabled={picked?.size === 0}
            onClick={() => {
              if (picked) onOnly(picked.size === all.size ? [] : [...picked]);
              setPicked(undefined);
            }}
          >
            {t`These`}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
