/** An invitation, taken: with a name and a password of one's own, or as who is signed in already. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { says, useAccept, useInvitation } from '../../api/people';
import { Arriving } from '../../ui/Arriving';
import { Trouble } from '../../ui/Notice';
import { Plate } from './Plate';
import { longEnough, Secret } from './Secret';
import { invitedTo } from './words';

export function Join() {
  const { secret = '' } = useParams();
  const invitation = useInvitation(secret);
  const accept = useAccept(secret);
  const go = useNavigate();
  const [anew, setAnew] = useState(false);
  const [name, setName] = useState<string>();
  const [password, setPassword] = useState('');
  const of = invitation.data;
  if (!of && invitation.error)
    return (
      <Plate title={t`Invitation`}>
        <Trouble>{invitation.error.message}</Trouble>
        <Button sx={{ mt: 2 }} onClick={() => void go('/')}>{t`Go to the first page`}</Button>
      </Plate>
    );
  if (!of) return <Arriving title={t`Invitation`} of={[invitation]} rows={2} />;
  const first = of.role === 'owner';
  const called = name ?? (of.name.startsWith('Owner') ? '' : of.name);
  const take = (as: { name?: string; password?: string }) =>
    void accept.mutateAsync(as).then(
      () => go(first ? '/people' : '/'),
      () => undefined,
    );
  return (
    <Plate title={of.shop} said={invitedTo[of.role]}>
      {of.signed_in && !anew ? (
        <Box sx={{ display: 'grid', gap: 2, maxWidth: 400 }}>
          {accept.error && <Trouble>{accept.error.message}</Trouble>}
          <Button variant="contained" size="large" disabled={accept.isPending} onClick={() => take({})}>
            {t`Join as ${of.signed_in}`}
          </Button>
          <Button onClick={() => setAnew(true)}>{t`I have no sign-in yet`}</Button>
        </Box>
      ) : (
        <Box
          component="form"
          sx={{ display: 'grid', gap: 2, maxWidth: 400 }}
          onSubmit={(e) => {
            e.preventDefault();
            take({ name: called, password });
          }}
        >
          <Secret
            label={t`Name to sign in with`}
            kind="username"
            value={called}
            onText={setName}
            problem={says(accept.error, 'name')}
          />
          <Secret
            label={t`Password`}
            kind="new-password"
            value={password}
            onText={setPassword}
            problem={says(accept.error, 'password')}
            hint={t`At least ten characters. A few words work well.`}
          />
          {accept.error && !says(accept.error, 'name') && !says(accept.error, 'password') && (
            <Trouble>{accept.error.message}</Trouble>
          )}
          <Button
            type="submit"
            variant="contained"
            size="large"
            disabled={accept.isPending || called.trim() === '' || !longEnough(password)}
          >
            {t`Join`}
          </Button>
        </Box>
      )}
    </Plate>
  );
}
