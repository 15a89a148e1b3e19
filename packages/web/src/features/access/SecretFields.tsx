import { TextField } from '@mui/material';
import { passwordLimits } from '@entretien/core/access';
import { ApiProblem } from '../../data/api.js';

interface SecretFieldsProps {
  readonly login: string;
  readonly password: string;
  readonly onLogin: (login: string) => void;
  readonly onPassword: (password: string) => void;
  readonly error: unknown;
  /** Whether they are chosen now, or were before. */
  readonly areNew?: boolean;
}

/** The name to sign in with and the password, so that a browser knows what to fill in and what to remember. */
export function SecretFields({
  login,
  password,
  onLogin,
  onPassword,
  error,
  areNew = false,
}: SecretFieldsProps) {
  const wrong = (field: string) => (error instanceof ApiProblem ? error.forField(field) : undefined);
  return (
    <>
      <TextField
        label="Name to sign in with"
        name="username"
        value={login}
        onChange={(event) => onLogin(event.target.value)}
        error={wrong('login') !== undefined}
        helperText={wrong('login') ?? (areNew ? 'One word, or your e-mail address.' : undefined)}
        slotProps={{
          htmlInput: { maxLength: 60, autoComplete: 'username', autoCapitalize: 'none', spellCheck: false },
        }}
      />
      <TextField
        label="Password"
        name="password"
        type="password"
        value={password}
        onChange={(event) => onPassword(event.target.value)}
        error={wrong('password') !== undefined}
        helperText={
          wrong('password') ??
          (areNew ? `At least ${passwordLimits.fewest} letters: a few words in a row do well.` : undefined)
        }
        slotProps={{
          htmlInput: { maxLength: 200, autoComplete: areNew ? 'new-password' : 'current-password' },
        }}
      />
    </>
  );
}
