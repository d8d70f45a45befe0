/** One's own way in: password, passkeys, recovery codes, the PIN at tablets, and the shops that one belongs to. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef, useState, type ReactNode } from 'react';
import {
  passkeysHere,
  says,
  useAccount,
  useAddPasskey,
  useChangePassword,
  useChangePin,
  useDropPasskey,
  useEnterShop,
  useFoundShop,
  useMakeCodes,
  useSignOut,
  useSignOutEverywhere,
} from '../../api/people';
import { useSession } from '../../api/session';
import type { Session } from '../../api/types';
import { Tag } from '../../drawings/Tag';
import { Arriving } from '../../ui/Arriving';
import { LineField } from '../../ui/Fields';
import { Notice, Trouble } from '../../ui/Notice';
import { useDates } from '../../ui/useDates';
import { Handed } from '../../ui/Handed';
import { longEnough, Secret } from './Secret';
import { roleWords } from './words';

export function Me() {
  const session = useSession();
  const account = useAccount();
  const signOut = useSignOut();
  const everywhere = useSignOutEverywhere();
  if (!session.data || !account.data)
    return <Arriving title={t`My sign-in`} of={[session, account]} rows={3} />;
  const s = session.data;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2, mb: 2 }}>
        <Tag name={account.data.name} size={72} />
        <Box sx={{ flex: '1 1 200px', minWidth: 0 }}>
          <Typography variant="h1" sx={{ overflowWrap: 'anywhere' }}>
            {account.data.name}
          </Typography>
          <Box sx={{ color: 'text.secondary' }}>
            {s.shop ? t`${roleWords[s.role]} in ${s.shop.name}` : t`belongs to no shop here`}
          </Box>
        </Box>
        <Button variant="contained" disabled={signOut.isPending} onClick={() => signOut.mutate(undefined)}>
          {t`Sign out`}
        </Button>
        <Button
          variant="outlined"
          disabled={everywhere.isPending}
          onClick={() => everywhere.mutate(undefined)}
        >
          {t`Sign out everywhere`}
        </Button>
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: {
            xs: 'minmax(0,1fr)',
            md: 'repeat(2, minmax(0,1fr))',
            lg: 'repeat(3, minmax(0,1fr))',
          },
          gap: 4,
          alignItems: 'start',
        }}
      >
        <Codes left={account.data.recovery_codes} />
        <Passkeys keys={account.data.passkeys} possible={s.passkeys && passkeysHere()} />
        <Password />
        {s.member_id && <Pin set={account.data.pin} />}
        {(s.shops.length > 1 || s.role === 'owner') && <Shops session={s} />}
      </Box>
    </Box>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ display: 'grid', gap: 1.5, minWidth: 0 }}>
      <Typography variant="h2">{title}</Typography>
      {children}
    </Box>
  );
}

function Codes({ left }: { left: number }) {
  const make = useMakeCodes();
  const [password, setPassword] = useState('');
  return (
    <Part title={t`Recovery codes`}>
      {make.data ? (
        <Handed
          what={t`Keep these somewhere safe. Each works once if you lose your password.`}
          text={make.data.join('\n')}
          onDone={() => {
            make.reset();
            setPassword('');
          }}
        />
      ) : (
        <>
          {left === 0 ? (
            <Notice kind="caution">{t`You have none. Without one, you can't reset a lost password yourself.`}</Notice>
          ) : (
            <Box>{plural(left, { one: '# code left.', other: '# codes left.' })}</Box>
          )}
          <Secret
            label={t`Password`}
            kind="current-password"
            value={password}
            onText={setPassword}
            problem={make.error?.message}
          />
          <Button
            variant="outlined"
            disabled={password === '' || make.isPending}
            onClick={() => make.mutate(password)}
          >
            {t`Create ten new codes`}
          </Button>
        </>
      )}
    </Part>
  );
}

function Passkeys({
  keys,
  possible,
}: {
  keys: { id: string; name: string; made_at: string; used_at?: string }[];
  possible: boolean;
}) {
  const { day } = useDates();
  const add = useAddPasskey();
  const drop = useDropPasskey();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const failed = add.error ?? drop.error;
  return (
    <Part title={t`Passkeys`}>
      {keys.length === 0 && (
        <Box>{t`None. With a passkey you sign in with a fingerprint or face, and no password can be guessed.`}</Box>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {keys.map((k) => (
          <Box component="li" key={k.id} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <b>{k.name}</b>{' '}
              <Box component="span" sx={{ color: 'text.secondary', fontSize: 14.5 }}>
                {t`made ${day(k.made_at)}`}
                {k.used_at && `, ${t`used ${day(k.used_at)}`}`}
              </Box>
            </Box>
            <Button disabled={drop.isPending} onClick={() => drop.mutate(k.id)}>{t`Remove`}</Button>
          </Box>
        ))}
      </Box>
      {possible ? (
        <>
          <LineField label={t`Device name`} value={name} most={60} onText={setName} />
          <Secret
            label={t`Password`}
            kind="current-password"
            value={password}
            onText={setPassword}
            problem={says(add.error, 'password')}
          />
          {failed && !says(add.error, 'password') && <Trouble>{failed.message}</Trouble>}
          <Button
            variant="outlined"
            disabled={name.trim() === '' || password === '' || add.isPending}
            onClick={() =>
              void add.mutateAsync({ name, password }).then(
                () => {
                  setName('');
                  setPassword('');
                },
                () => undefined,
              )
            }
          >
            {t`Add a passkey`}
          </Button>
        </>
      ) : (
        <Box
          sx={{ color: 'text.secondary' }}
        >{t`Passkeys need https with a host name (or localhost) and a browser that supports them.`}</Box>
      )}
    </Part>
  );
}

function Password() {
  const change = useChangePassword();
  const [now, setNow] = useState('');
  const [next, setNext] = useState('');
  return (
    <Part title={t`Password`}>
      <Secret
        label={t`Current password`}
        kind="current-password"
        value={now}
        onText={setNow}
        problem={says(change.error, 'now')}
      />
      <Secret
        label={t`New password`}
        kind="new-password"
        value={next}
        onText={setNext}
        problem={says(change.error, 'new')}
        hint={t`At least ten characters. A few words work well.`}
      />
      {change.error && !says(change.error, 'now') && !says(change.error, 'new') && (
        <Trouble>{change.error.message}</Trouble>
      )}
      <Button
        variant="outlined"
        disabled={now === '' || !longEnough(next) || change.isPending}
        onClick={() =>
          void change.mutateAsync({ now, new: next }).then(
            () => {
              setNow('');
              setNext('');
            },
            () => undefined,
          )
        }
      >
        {t`Change password and sign out other browsers`}
      </Button>
      <Box role="status">{change.isSuccess && t`Changed.`}</Box>
    </Part>
  );
}

function Pin({ set }: { set: boolean }) {
  const change = useChangePin();
  const [pin, setPin] = useState('');
  return (
    <Part title={t`Tablet PIN`}>
      <Box>
        {set ? t`Set.` : t`You have none yet. You choose one when you first tap your name on a tablet.`}
      </Box>
      <Secret label={t`New PIN, four to eight digits`} kind="new-password" pin value={pin} onText={setPin} />
      {change.error && <Trouble>{change.error.message}</Trouble>}
      <Button
        variant="outlined"
        disabled={pin.length < 4 || change.isPending}
        onClick={() =>
          void change.mutateAsync(pin).then(
            () => setPin(''),
            () => undefined,
          )
        }
      >
        {t`Set PIN`}
      </Button>
    </Part>
  );
}

function Shops({ session }: { session: Session }) {
  const enter = useEnterShop();
  return (
    <Part title={t`Shops`}>
      {enter.error && <Trouble>{enter.error.message}</Trouble>}
      {session.shops.map((s) =>
        s.id === session.shop?.id ? (
          <Box key={s.id} sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>
            {t`${s.name} (you are here)`}
          </Box>
        ) : (
          <Button key={s.id} variant="outlined" disabled={enter.isPending} onClick={() => enter.mutate(s.id)}>
            {t`Switch to ${s.name}`}
          </Button>
        ),
      )}
      {session.role === 'owner' && <Founding />}
    </Part>
  );
}

/** Another shop on this server: empty, to be furnished or to bring a copy into. */
function Founding() {
  const found = useFoundShop();
  const key = useRef(crypto.randomUUID());
  const [name, setName] = useState('');
  return (
    <Box
      component="form"
      sx={{ display: 'grid', gap: 1.5 }}
      onSubmit={(e) => {
        e.preventDefault();
        found.mutate(
          { key: key.current, name },
          {
            onSuccess: () => {
              key.current = crypto.randomUUID();
              setName('');
            },
          },
        );
      }}
    >
      <Box>{t`A new shop starts empty. Add things by hand or import a file on its Settings page.`}</Box>
      <LineField
        label={t`Name of the new shop`}
        value={name}
        onText={setName}
        problem={found.error?.message}
      />
      <Button type="submit" variant="outlined" disabled={name.trim() === '' || found.isPending}>
        {t`Create shop and switch to it`}
      </Button>
    </Box>
  );
}
