/** The way in: a name and a password, a passkey, or a recovery code. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { passkeysHere, says, usePasskey, useRecover, useSignIn } from '../../api/people';
import type { Session } from '../../api/types';
import { Trouble } from '../../ui/Notice';
import { Plate } from './Plate';
import { longEnough, Secret } from './Secret';

export function Door({ session }: { session: Session }) {
  const [lost, setLost] = useState(false);
  return lost ? (
    <Recovery onBack={() => setLost(false)} />
  ) : (
    <SignIn passkeys={session.passkeys && passkeysHere()} onLost={() => setLost(true)} />
  );
}

function SignIn({ passkeys, onLost }: { passkeys: boolean; onLost: () => void }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const sign = useSignIn();
  const key = usePasskey();
  const failed = key.error ?? sign.error;
  return (
    <Plate title={t`Sign in`} said={t`Sign in to see this shop.`}>
      <Box
        component="form"
        sx={{ display: 'grid', gap: 2, maxWidth: 400 }}
        onSubmit={(e) => {
          e.preventDefault();
          key.reset();
          sign.mutate({ name, password });
        }}
      >
        <Secret label={t`Name`} kind="username" value={name} onText={setName} />
        <Secret label={t`Password`} kind="current-password" value={password} onText={setPassword} />
        {failed && <Trouble>{failed.message}</Trouble>}
        <Button
          type="submit"
          variant="contained"
          size="large"
          disabled={sign.isPending || name === '' || password === ''}
        >
          {t`Sign in`}
        </Button>
        {passkeys && (
          <Button
            variant="outlined"
            disabled={key.isPending}
            onClick={() => {
              sign.reset();
              key.mutate(undefined);
            }}
          >
            {t`Use a passkey`}
          </Button>
        )}
        <Button onClick={onLost}>{t`I can't sign in`}</Button>
      </Box>
    </Plate>
  );
}

function Recovery({ onBack }: { onBack: () => void }) {
  const [name, setName] = useState('');
  const [code, setCode] = useState('');
  const [password, setPassword] = useState('');
  const recover = useRecover();
  return (
    <Plate
      title={t`Use a recovery code`}
      said={t`Each of your ten codes works once and sets a new password. Without one, ask an owner to remove you and invite you again. An owner who can't sign in asks the administrator of this server.`}
    >
      <Box
        component="form"
        sx={{ display: 'grid', gap: 2, maxWidth: 400 }}
        onSubmit={(e) => {
          e.preventDefault();
          recover.mutate({ name, code, password });
        }}
      >
        <Secret label={t`Name`} kind="username" value={name} onText={setName} />
        <Secret label={t`Recovery code`} kind="one-time-code" value={code} onText={setCode} />
        <Secret
          label={t`New password`}
          kind="new-password"
          value={password}
          onText={setPassword}
          problem={says(recover.error, 'password')}
          hint={t`At least ten characters. A few words work well.`}
        />
        {recover.error && !says(recover.error, 'password') && <Trouble>{recover.error.message}</Trouble>}
        <Button
          type="submit"
          variant="contained"
          size="large"
          disabled={recover.isPending || name === '' || code === '' || !longEnough(password)}
        >
          {t`Set password and sign in`}
        </Button>
        <Button onClick={onBack}>{t`Sign in with password`}</Button>
      </Box>
    </Plate>
  );
}
