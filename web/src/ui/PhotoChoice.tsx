/** The two ways to a photo: the camera, or a file. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { FileButton } from './FileButton';
import { Trouble } from './Notice';

interface Props {
  of: string; // what the photo is of
  has: boolean; // there is one
  busy: boolean;
  unreadable: boolean;
  onFile: (f: File) => void;
}

export const PhotoChoice = ({ of, has, busy, unreadable, onFile }: Props) => (
  <>
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 1.5 }}>
      <FileButton
        variant={has ? 'outlined' : 'contained'}
        label={t`${of}, from the camera`}
        accept="image/*"
        camera
        disabled={busy}
        onFile={onFile}
      >
        {has ? t`Take another` : t`Take a photo`}
      </FileButton>
      <FileButton
        variant="outlined"
        label={of}
        accept="image/jpeg,image/png,image/webp"
        disabled={busy}
        onFile={onFile}
      >
        {t`Choose a photo`}
      </FileButton>
    </Box>
    {unreadable && (
      <Trouble sx={{ mb: 1.5 }}>{t`Can't read this photo. Choose a JPEG, PNG or WebP.`}</Trouble>
    )}
  </>
);
