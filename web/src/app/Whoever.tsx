/** Under the shop's name: who is here, and the way to their own sign-in and out. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { useSignOut } from '../api/people';
import { useSession } from '../api/session';
import { Tag } from '../drawings/Tag';
import { roleWords } from '../stations/people/words';

export function Whoever({ onGo }: { onGo: () => void }) {
  const session = useSession().data;
  const signOut = useSignOut();
  if (!session) return null;
  if (session.state === 'open')
    return (
      <Box sx={{ px: 1.5, pb: 1, color: 'text.secondary', fontSize: 14.5, lineHeight: 1.3 }}>
        {t`No sign-in needed on this computer.`}
      </Box>
    );
  if (session.state !== 'in' || session.device) return null; // the tags say it, at a tablet
  return (
    <Box sx={{ px: 1.5, pb: 1, display: 'grid', gap: 0.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Tag name={session.name ?? ''} size={40} worn />
        <Box sx={{ minWidth: 0, overflowWrap: 'anywhere', lineHeight: 1.2 }}>
          <b>{session.name}</b>
          <Box sx={{ color: 'text.secondary', fontSize: 14.5 }}>{roleWords[session.role]}</Box>
        </Box>
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap' }}>
        <Button component={Link} to="/me" onClick={onGo}>{t`My sign-in`}</Button>
        <Button disabled={signOut.isPending} onClick={() => signOut.mutate(undefined)}>{t`Sign out`}</Button>
      </Box>
    </Box>
  );
}
