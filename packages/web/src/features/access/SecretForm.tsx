import { Alert, Button, Stack } from '@mui/material';
import { useState, type ReactNode } from 'react';
import { ApiProblem, sentenceOf } from '../../data/api.js';
import { SecretFields } from './SecretFields.js';

export interface Secret {
  readonly login: string;
  readonly password: string;
}

interface SecretFormProps {
  readonly submit: string;
  readonly error: unknown;
  readonly isSending: boolean;
  readonly onSend: (secret: Secret) => void;
  /** Whether a name and a password are chosen now, or were before. */
  readonly areNew?: boolean;
  /** Whether everything besides is there. */
  readonly isReady?: boolean;
  /** What is asked before; what stands above the button; what can be done instead. */
  readonly before?: ReactNode;
  readonly notice?: ReactNode;
  readonly instead?: ReactNode;
}

/** A form that ends in a name to sign in with and a password. */
export function SecretForm({
  submit,
  error,
  isSending,
  onSend,
  areNew = false,
  isReady = true,
  before,
  notice,
  instead,
}: SecretFormProps) {
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  const canSend = isReady && login.trim() !== '' && password !== '' && !isSending;
  // What stands beside a field is not said again.
  const isBeside = error instanceof ApiProblem && error.problem.errors !== undefined;
  return (
    <Stack
      component="form"
      noValidate
      sx={{ gap: 2 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (canSend) onSend({ login, password });
      }}
    >
      {before}
      <SecretFields
        login={login}
        password={password}
        onLogin={setLogin}
        onPassword={setPassword}
        error={error}
        areNew={areNew}
      />
      {notice}
      {Boolean(error) && !isBeside && (
        <Alert severity="error" variant="outlined">
          {sentenceOf(error)}
        </Alert>
      )}
      <Button type="submit" variant="contained" disabled={!canSend} sx={{ minHeight: 48 }}>
        {submit}
      </Button>
      {instead}
    </Stack>
  );
}
