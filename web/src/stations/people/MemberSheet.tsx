/** One person's sheet: name and role, an invitation, a PIN forgotten, and letting them go. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Link } from 'react-router';
import { says, useChangeMember, useDropPin, useInvite, useRemoveMember } from '../../api/people';
import type { Member } from '../../api/types';
import { LineField } from '../../ui/Fields';
import { Trouble } from '../../ui/Notice';
import { useDates } from '../../ui/useDates';
import { Handed } from '../../ui/Handed';
import { RoleChoice } from './RoleChoice';

interface Props {
  member: Member;
  owner: boolean;
  open: boolean;
  me: boolean;
  onGone: () => void;
}

export function MemberSheet({ member, owner, open, me, onGone }: Props) {
  const { day } = useDates();
  const [name, setName] = useState(member.name);
  const [role, setRole] = useState(member.role);
  const [sure, setSure] = useState(false);
  const change = useChangeMember();
  const invite = useInvite();
  const dropPin = useDropPin();
  const remove = useRemoveMember();
  const failed = change.error ?? invite.error ?? dropPin.error ?? remove.error;
  const changed = name.trim() !== member.name || role !== member.role;
  if (invite.data)
    return (
      <Box sx={{ p: 2, width: 420, maxWidth: '100%' }}>
        <Handed
          what={t`Give ${member.name} this address. It works once, within a week, to create their own sign-in.`}
          path={invite.data.path}
          onDone={onGone}
        />
      </Box>
    );
  return (
    <Box sx={{ p: 2, width: 420, maxWidth: '100%', display: 'grid', gap: 1.5 }}>
      {me && !open && (
        <Button component={Link} to="/me" variant="outlined">{t`My sign-in and my PIN`}</Button>
      )}
      {owner && (
        <>
          <LineField
            label={t`Name`}
            value={name}
            most={60}
            onText={setName}
            problem={says(change.error, 'name')}
          />
          <RoleChoice value={role} onChoose={setRole} />
          {failed && !says(change.error, 'name') && <Trouble>{failed.message}</Trouble>}
          {changed && (
            <Button
              variant="contained"
              disabled={change.isPending || name.trim() === ''}
              onClick={() => change.mutate({ id: member.id, version: member.version, body: { name, role } })}
            >
              {t`Save`}
            </Button>
          )}
          {!open && !member.signs_in && (
            <Button variant="outlined" disabled={invite.isPending} onClick={() => invite.mutate(member.id)}>
              {member.invited_until
                ? t`Invite again. The earlier address stops working`
                : t`Invite to sign in`}
            </Button>
          )}
          {member.pin && (
            <Button variant="outlined" disabled={dropPin.isPending} onClick={() => dropPin.mutate(member.id)}>
              {t`Reset PIN`}
            </Button>
          )}
          {sure ? (
            <Button
              color="error"
              variant="outlined"
              disabled={remove.isPending}
              onClick={() => void remove.mutateAsync(member.id).then(onGone, () => undefined)}
            >
              {t`Yes, remove ${member.name}`}
            </Button>
          ) : (
            <Button color="error" onClick={() => setSure(true)}>{t`Remove person…`}</Button>
          )}
          <Box sx={{ color: 'text.secondary', fontSize: 14.5 }}>
            {sure
              ? t`Their entries keep their name. Their sign-in stops working at once.`
              : t`Member since ${day(member.since)}.`}
          </Box>
        </>
      )}
    </Box>
  );
}
