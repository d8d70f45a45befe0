/** Copies of the whole shop: the last good one, one now, one to take along, and one brought back. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import {
  shopFileAddress,
  useBringShopFile,
  useCopies,
  useLookAtShopFile,
  useMakeCopy,
} from '../../api/copies';
import { useSession } from '../../api/session';
import type { Copies as Kept, ShopFile } from '../../api/types';
import { useDates } from '../../ui/useDates';
import { trim } from '../../measure/format';
import { FileButton } from '../../ui/FileButton';
import { Notice, Trouble } from '../../ui/Notice';
import { Sending } from '../../ui/Sending';

export function Copies() {
  const copies = useCopies();
  const make = useMakeCopy();
  const look = useLookAtShopFile();
  const bring = useBringShopFile();
  const [file, setFile] = useState<File>();
  const [share, setShare] = useState(0);
  const choose = (f: File) => {
    setFile(f);
    setShare(0);
    bring.reset();
    look.mutate({ file: f, onShare: setShare });
  };
  const failed = copies.error ?? make.error ?? look.error ?? bring.error;
  const under = look.isPending || bring.isPending;
  return (
    <Box component="section" aria-labelledby="copies" sx={{ mt: 4 }}>
      <Typography id="copies" variant="h2">{t`Backups`}</Typography>
      {copies.data && <Last of={copies.data} />}
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, my: 1.5 }}>
        {copies.data?.daily && (
          <Button variant="outlined" disabled={make.isPending} onClick={() => make.mutate()}>
            {t`Back up now`}
          </Button>
        )}
        <Button variant="outlined" component="a" href={shopFileAddress} download>
          {t`Download backup`}
        </Button>
        <FileButton
          label={t`Backup file of the whole shop`}
          accept=".zip"
          variant="outlined"
          disabled={under}
          onFile={choose}
        >
          {t`Restore from a file…`}
        </FileButton>
      </Box>
      {under && <Sending name={file?.name ?? ''} share={share} />}
      {look.data && !under && !bring.data && file && (
        <Inside
          file={look.data}
          onBring={() => {
            setShare(0);
            bring.mutate({ file, onShare: setShare });
          }}
        />
      )}
      {bring.data && !under && (
        <Notice kind="done">{t`${bring.data.name} is imported: ${said(bring.data)}.`}</Notice>
      )}
    </Box>
  );
}

/** The last good copy, and what went wrong since. */
function Last({ of }: { of: Kept }) {
  const { moment } = useDates();
  const last = of.items[0];
  if (!of.daily) return <Box>{t`Automatic backups are off. Download a backup from time to time.`}</Box>;
  return (
    <Box role="status">
      {last
        ? t`Last good backup: ${moment(last.at)}, ${size(last.bytes)}. Corte makes one every day and keeps ${plural(of.keep, { one: '# day', other: '# days' })} of them on its server.`
        : t`No backup yet. Corte makes one every day.`}
      {of.trouble && (
        <Notice kind="caution" sx={{ mt: 1 }}>
          {t`The last backup failed: ${of.trouble}`}
        </Notice>
      )}
    </Box>
  );
}

/** What is in a file before anything of it is brought in. */
function Inside({ file, onBring }: { file: ShopFile; onBring: () => void }) {
  const { moment } = useDates();
  const signedIn = useSession().data?.state === 'in';
  return (
    <Box sx={{ border: '2px solid', borderColor: 'text.primary', p: 1.5, bgcolor: 'background.paper' }}>
      <Box sx={{ fontSize: 20, fontWeight: 650, overflowWrap: 'anywhere' }}>{file.name}</Box>
      <Box>{t`Of ${moment(file.made_at)}: ${said(file)}.`}</Box>
      {file.faults.length > 0 && (
        <Notice kind="trouble" sx={{ mt: 1 }}>
          {t`Can't restore it:`}
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {file.faults.map((f) => (
              <li key={f}>{f}</li>
            ))}
          </Box>
        </Notice>
      )}
      {file.faults.length === 0 && file.rows_here > 0 && (
        <Notice kind="caution" sx={{ mt: 1 }}>
          {signedIn
            ? t`The backup is complete. This shop isn't empty, so nothing was changed. Create another shop under My sign-in and restore it there.`
            : t`The backup is complete. This shop isn't empty, so nothing was changed. Start Corte with a new CORTE_SHOP and restore it there.`}
        </Notice>
      )}
      {file.faults.length === 0 && file.rows_here === 0 && (
        <Button variant="contained" sx={{ mt: 1.5 }} onClick={onBring}>{t`Restore`}</Button>
      )}
    </Box>
  );
}

/** The rows of a file in words. */
function said(file: ShopFile) {
  const of = (name: string) => file.tables.find((x) => x.name === name)?.rows ?? 0;
  return [
    plural(of('saws'), { one: '# saw', other: '# saws' }),
    plural(of('blades'), { one: '# blade', other: '# blades' }),
    plural(of('log'), { one: '# row of the log', other: '# rows of the log' }),
    plural(of('jobs'), { one: '# job', other: '# jobs' }),
    plural(of('photos'), { one: '# photo', other: '# photos' }),
  ].join(', ');
}

const size = (bytes: number) =>
  bytes < 1e6
    ? t`${trim(bytes / 1e3, 0)} kB`
    : bytes < 1e9
      ? t`${trim(bytes / 1e6, 1)} MB`
      : t`${trim(bytes / 1e9, 1)} GB`;
