/** The frame of a blade's or a saw's form: its drawing beside its fields, what is wrong, and what somebody else changed. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Units } from '../../api/types';
import { useAfterReading } from '../../ui/useAfterReading';
import { Stale } from '../../ui/Stale';
import { Trouble } from '../../ui/Notice';

interface Props {
  what: 'blade' | 'saw';
  title: string;
  back: { to: string; name: string };
  mine: { name: string };
  theirs: object | undefined; // where somebody else has changed it since
  units: Units;
  onTheirs: () => void;
  onMine: () => void;
  failed: string | undefined; // why it was not saved
  refused: string | undefined; // why it cannot be
  preview: ReactNode;
  previewWidth: number;
  save: string; // what the button says
  saving: boolean;
  onSave: () => void;
  more?: ReactNode; // beside the button
  children: ReactNode;
}

export function RecordForm(p: Props) {
  const named = p.mine.name !== '';
  const save = useAfterReading(p.onSave);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Button component={Link} to={p.back.to} size="small" sx={{ ml: -0.75 }}>
        ‹ {p.back.name}
      </Button>
      <Typography variant="h1" sx={{ mb: 1.5, overflowWrap: 'anywhere' }}>
        {p.title}
      </Typography>
      {p.theirs && (
        <Stale
          what={p.what}
          mine={p.mine}
          theirs={p.theirs}
          units={p.units}
          onTheirs={p.onTheirs}
          onMine={p.onMine}
        />
      )}
      {p.failed && <Trouble sx={{ mb: 2 }}>{p.failed}</Trouble>}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: `${p.previewWidth}px minmax(0,1fr)` },
          columnGap: 4,
          rowGap: 2,
          alignItems: 'start',
        }}
      >
        {p.preview}
        <form
          onSubmit={(e) => {
            e.preventDefault();
            save();
          }}
        >
          {p.children}
          <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
            <Button type="submit" variant="contained" disabled={p.saving || !!p.refused || !named}>
              {p.saving ? t`Saving…` : p.save}
            </Button>
            {p.more}
            {named && p.refused && (
              <Box role="status" sx={{ color: 'error.main', fontWeight: 600 }}>
                {p.refused}
              </Box>
            )}
            {!named && <Box sx={{ color: 'text.secondary' }}>{t`Enter a name.`}</Box>}
          </Box>
        </form>
      </Box>
    </Box>
  );
}
