/** Who is at this browser, who belongs to the shop, and what opens it. */
import { t } from '@lingui/core/macro';
import { delMany, keys } from 'idb-keyval';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import client, { etag, ProblemError, unwrap } from './client';
import { done, keyed, useChange } from './change';
import { PREFIX } from './cache';
import { api } from './place';
import { sessionKey } from './session';
import type { Acceptance, MemberInput, Role, Session, SignOffCut } from './types';

/** Forgets what the server said: whoever comes to this browser next is somebody else. */
async function forgetKept() {
  const all = await keys<string>().catch(() => []);
  await delMany(all.filter((key) => key.startsWith(PREFIX))).catch(() => undefined);
}

/** A change of who is here. What another saw is forgotten, here and in this browser's store. */
function useEntering<V>(mutationFn: (v: V) => Promise<Session>) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn,
    onSuccess: async (now) => {
      await forgetKept();
      // A question about who is here that was asked before must not be answered after this.
      await cache.cancelQueries({ queryKey: sessionKey });
      cache.setQueryData(sessionKey, now);
      cache.removeQueries({ predicate: (q) => q.queryKey[0] !== 'session' && !q.isActive() });
      await cache.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'session' });
    },
  });
}

export const useSignIn = () =>
  useEntering(async (body: { name: string; password: string }) =>
    unwrap(await client.POST('/session', { body })),
  );

export const useRecover = () =>
  useEntering(async (body: { name: string; code: string; password: string }) =>
    unwrap(await client.POST('/session/recovery', { body })),
  );

export const useSignOut = () => useEntering(async () => unwrap(await client.DELETE('/session')));

export const useSignOutEverywhere = () =>
  useEntering(async () => unwrap(await client.POST('/account/sign-outs')));

export const useEnterShop = () =>
  useEntering(async (shop_id: string) => unwrap(await client.PUT('/session/shop', { body: { shop_id } })));

/** Founds another shop and goes over to it. The form makes the key, so that an answer that was lost founds no second one. */
export const useFoundShop = () =>
  useEntering(async (body: { key: string; name: string }) => {
    const { id } = unwrap(await client.POST('/shops', { body }));
    return unwrap(await client.PUT('/session/shop', { body: { shop_id: id } }));
  });

export const useTakeHand = () =>
  useEntering(async (body: { member_id: string; pin?: string }) =>
    unwrap(await client.PUT('/session/hand', { body })),
  );

export const useAddDevice = () =>
  useEntering(async (name: string) => unwrap(await client.POST('/devices', { body: { name } })));

export const useInvitation = (secret: string) =>
  useQuery({
    queryKey: ['session', 'invitation', secret],
    retry: false,
    queryFn: async () => unwrap(await client.GET('/invitations/{secret}', { params: { path: { secret } } })),
  });

export const useAccept = (secret: string) =>
  useEntering(async (body: Acceptance) =>
    unwrap(await client.POST('/invitations/{secret}', { params: { path: { secret } }, body })),
  );

export const useReport = (secret: string) =>
  useQuery({
    queryKey: ['session', 'report', secret],
    retry: false,
    queryFn: async () => unwrap(await client.GET('/guests/{secret}', { params: { path: { secret } } })),
  });

/** What a browser calls an authenticator's questions and answers as JSON; not every browser has it. */
interface InJSON {
  parseRequestOptionsFromJSON?: (o: unknown) => PublicKeyCredentialRequestOptions;
  parseCreationOptionsFromJSON?: (o: unknown) => PublicKeyCredentialCreationOptions;
}
const authenticator = () =>
  (typeof PublicKeyCredential === 'undefined' ? {} : PublicKeyCredential) as unknown as InJSON;

export const passkeysHere = () => authenticator().parseRequestOptionsFromJSON !== undefined;

const refusedKey = (e: unknown) =>
  e instanceof DOMException
    ? new Error(t`No passkey was given, or this device has none for this address.`)
    : (e as Error);

const answered = (c: Credential | null) => {
  if (!c) throw new Error(t`No passkey was given.`);
  return (c as unknown as { toJSON: () => Record<string, unknown> }).toJSON();
};

export const usePasskey = () =>
  useEntering(async () => {
    const asked = unwrap(await client.POST('/session/passkey-challenges'));
    const publicKey = authenticator().parseRequestOptionsFromJSON!(asked);
    const got = await navigator.credentials.get({ publicKey }).catch((e: unknown) => {
      throw refusedKey(e);
    });
    return unwrap(await client.POST('/session/passkeys', { body: answered(got) }));
  });

const accountKey = ['account'];

export const useAccount = () =>
  useQuery({ queryKey: accountKey, queryFn: async () => unwrap(await client.GET('/account')) });

/** A change of one's own way in. */
function useOwnChange<V, R>(mutationFn: (v: V) => Promise<R>) {
  const cache = useQueryClient();
  return useMutation({ mutationFn, onSuccess: () => cache.invalidateQueries({ queryKey: accountKey }) });
}

export const useChangePassword = () =>
  useOwnChange(async (body: { now: string; new: string }) =>
    unwrap(await client.PUT('/account/password', { body })),
  );

export const useChangePin = () =>
  useOwnChange(async (pin: string) => unwrap(await client.PUT('/account/pin', { body: { pin } })));

export const useMakeCodes = () =>
  useOwnChange(
    async (password: string) =>
      unwrap(await client.POST('/account/recovery-codes', { body: { password } })).codes,
  );

export const useAddPasskey = () =>
  useOwnChange(async ({ name, password }: { name: string; password: string }) => {
    const asked = unwrap(await client.POST('/account/passkey-challenges', { body: { password } }));
    const publicKey = authenticator().parseCreationOptionsFromJSON!(asked);
    const made = await navigator.credentials.create({ publicKey }).catch((e: unknown) => {
      throw refusedKey(e);
    });
    return unwrap(await client.POST('/account/passkeys', { body: { name, credential: answered(made) } }));
  });

export const useDropPasskey = () =>
  useOwnChange(async (id: string) =>
    unwrap(await client.DELETE('/account/passkeys/{id}', { params: { path: { id } } })),
  );

export const usePeople = () =>
  useQuery({ queryKey: ['people'], queryFn: async () => unwrap(await client.GET('/people')) });

export const useAddMember = () =>
  useChange('people', async ({ body, key }: { body: MemberInput; key: string }) =>
    unwrap(await client.POST('/people', { body, params: { header: { 'Idempotency-Key': key } } })),
  );

export const useChangeMember = () =>
  useChange('people', async ({ id, version, body }: { id: string; version: number; body: MemberInput }) =>
    unwrap(await client.PUT('/people/{id}', { params: { path: { id }, header: etag(version) }, body })),
  );

export const useRemoveMember = () =>
  useChange('people', async (id: string) =>
    done(await client.DELETE('/people/{id}', { params: { path: { id } } })),
  );

export const useDropPin = () =>
  useChange('people', async (id: string) =>
    done(await client.DELETE('/people/{id}/pin', { params: { path: { id } } })),
  );

export const useInvite = () =>
  useChange('people', async (id: string) =>
    unwrap(await client.POST('/people/{id}/invitations', { params: { path: { id } } })),
  );

export const useSignOff = () =>
  useChange('people', async ({ id, saw, cuts }: { id: string; saw: string; cuts: SignOffCut[] }) =>
    unwrap(
      await client.PUT('/people/{id}/sign-offs/{saw}', {
        params: { path: { id, saw }, header: keyed(crypto.randomUUID()) },
        body: { cuts },
      }),
    ),
  );

export const usePasses = (wanted: boolean) =>
  useQuery({
    queryKey: ['passes'],
    enabled: wanted,
    queryFn: async () => unwrap(await client.GET('/passes')).items,
  });

export const useWithdraw = () =>
  useChange('people', async (id: string) =>
    done(await client.DELETE('/passes/{id}', { params: { path: { id } } })),
  );

export const useAddToken = () =>
  useChange('people', async (body: { name: string; role: Role; days: number }) =>
    unwrap(await client.POST('/tokens', { body })),
  );

export const useAddGuest = () =>
  useChange('people', async ({ id, name, days }: { id: string; name: string; days: number }) =>
    unwrap(await client.POST('/blades/{id}/guests', { params: { path: { id } }, body: { name, days } })),
  );

export const useAudit = (wanted: boolean) =>
  useQuery({
    queryKey: ['audit'],
    enabled: wanted,
    queryFn: async () => unwrap(await client.GET('/audit', { params: { query: { limit: 60 } } })).items,
  });

/** Where an address of this server stands, for somebody else to open. */
export const addressOf = (path: string) => location.origin + api.replace('/api/v1', '') + path;

/** The sentence about a field of a refusal, and that about none. */
export const says = (e: Error | null, field: string) =>
  e instanceof ProblemError && e.field === field ? e.message : undefined;
