/** What can be done with a blade on its page. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { api } from '../../api/place';
import { useRestoreBlade, useRetireBlade, useSetPhoto } from '../../api/rack';
import type { Blade } from '../../api/types';
import { FileButton } from '../../ui/FileButton';
import { Trouble } from '../../ui/Notice';
import { Sure } from '../../ui/Sure';
import { Mend } from '../../ui/Mend';
import { Retire } from './Retire';

export function BladeDoings({ blade: b }: { blade: Blade }) {
  const retire = useRetireBlade();
  const restore = useRestoreBlade();
  const photo = useSetPhoto();
  const failed = retire.error ?? restore.error ?? photo.error;
  return (
    <Box>
      {b.photo_at && (
        <Box
          component="img"
          src={`${api}/blades/${b.id}/photo?at=${encodeURIComponent(b.photo_at)}`}
          alt={t`Photo of ${b.name}`}
          sx={{
            width: '100%',
            maxHeight: 320,
            objectFit: 'cover',
            border: '1px solid',
            borderColor: 'divider',
          }}
        />
      )}
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {b.make === 'dado' && (
          <Button component={Link} to={`/blades/${b.id}/set`} variant="outlined">{t`Its parts`}</Button>
        )}
        {b.teeth > 0 && (
          <Button component={Link} to={`/blades/${b.id}/survey`} variant="outlined">{t`Inspect`}</Button>
        )}
        {b.condition.unfit && !b.retired && <Mend blade={b} />}
        <Button component={Link} to={`/blades/new?copy=${b.id}`} variant="outlined">{t`Duplicate`}</Button>
        <Button component={Link} to={`/blades/labels?only=${b.id}`} variant="outlined">{t`Label`}</Button>
        <FileButton
          variant="outlined"

          disabled={photo.isPending}
          label={t`Photo of the blade`}
          accept="image/jpeg,image/png,image/webp"
          onFile={(file) => photo.mutate({ id: b.id, file })}
        >
          {photo.isPending ? t`Sending…` : b.photo_at ? t`Another photo` : t`Photo`}
        </FileButton>
        {b.photo_at && (
          <Sure
            asks={t`Delete photo?`}
            goes={t`Corte keeps no other copy.`}
            yes={t`Delete photo`}
            onYes={() => photo.mutate({ id: b.id, file: null })}
          >
            {t`Delete photo`}
          </Sure>
        )}
        {b.retired ? (
          <Button variant="outlined" onClick={() => restore.mutate(b.id)}>{t`Restore`}</Button>
        ) : (
          <Retire
            what={t`blade`}
            name={b.name}
            reasons={['cracked', 'unmendable', 'worn-out', 'bent', 'lost', 'sold', 'other']}
            onRetire={(body) => retire.mutate({ id: b.id, body })}
          />
        )}
      </Box>
    </Box>
  );
}
