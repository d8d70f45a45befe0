/** Somebody added to the shop: what they are called and what they may. An invitation follows at once where people sign in. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import { says, useAddMember, useInvite } from '../../api/people';
import type { Role } from '../../api/types';
import { LineField } from '../../ui/Fields';
import { Trouble } from '../../ui/Notice';
import { Handed } from '../../ui/Handed';
import { RoleChoice } from './RoleChoice';

export function AddMember({ open, onDone }: { open: boolean; onDone: () => void }) {
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('learner');
  const key = useRef(crypto.randomUUID());
  const add = useAddMember();
  const invite = useInvite();
  const failed = invite.error ?? add.error;
  const save = async (andInvite: boolean) => {
    const m = await add.mutateAsync({ body: { name, role }, key: key.current });
    if (andInvite) await invite.mutateAsync(m.id);
    else onDone();
  };
  return (
    <Box
      component="section"
      aria-label={t`Add person`}
      sx={{ border: '2px solid', borderColor: 'text.primary', bgcolor: 'background.paper', p: 2, mb: 3 }}
    >
      {invite.data ? (
        <Handed
          what={t`Give ${name} this address. It works once, within a week, to create their own sign-in.`}
          path={invite.data.path}
          onDone={onDone}
        />
      ) : (
        <Box sx={{ display: 'grid', gap: 2, maxWidth: 720 }}>
          <Box sx={{ maxWidth: 360 }}>
            <LineField
              label={t`Name`}
              value={name}
              most={60}
              onText={setName}
              problem={says(failed, 'name')}
            />
          </Box>
          <RoleChoice value={role} onChoose={setRole} />
          {failed && !says(failed, 'name') && <Trouble>{failed.message}</Trouble>}
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
            {!open && (
              <Button
                variant="contained"
                disabled={name.trim() === '' || add.isPending || invite.isPending}
                onClick={() => void save(true).catch(() => undefined)}
              >
                {t`Add and invite`}
              </Button>
            )}
            <Button
              variant={open ? 'contained' : 'outlined'}
              disabled={name.trim() === '' || add.isPending || invite.isPending}
              onClick={() => void save(false).catch(() => undefined)}
            >
              {open ? t`Add` : t`Add for the tablet only`}
            </Button>
            <Button onClick={onDone}>{t`Cancel`}</Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
