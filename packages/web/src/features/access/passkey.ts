import type { AccountView, PasskeyView } from '@entretien/contracts';
import type {
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser';
import { postJson } from '../../data/api.js';

/** Lets the device prove who it is; fetched when somebody asks for it. */
export async function signInWithPasskey(): Promise<AccountView> {
  const { startAuthentication } = await import('@simplewebauthn/browser');
  const optionsJSON = await postJson<PublicKeyCredentialRequestOptionsJSON>('/sign-in/passkey-options', {});
  const response = await startAuthentication({ optionsJSON });
  return postJson<AccountView>('/sign-in/passkey', { response });
}

/** Makes a key that stays in this device. */
export async function addPasskey(name: string): Promise<PasskeyView> {
  const { startRegistration } = await import('@simplewebauthn/browser');
  const optionsJSON = await postJson<PublicKeyCredentialCreationOptionsJSON>('/me/passkeys/options', {});
  const response = await startRegistration({ optionsJSON });
  return postJson<PasskeyView>('/me/passkeys', { response, name });
}
