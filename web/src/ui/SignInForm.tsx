import { Alert, Button, PasswordInput, Stack, Text, TextInput } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { useAsk } from '../app/api';

/** Signs in, and has everything that is shown asked anew. Gives the fault in words. */
export function useSignIn(done?: () => void) {
  const ask = useAsk();
  const client = useQueryClient();
  const [fault, setFault] = useState<string | null>(null);
  const signIn = async (email: string, password: string) => {
    setFault(null);
    try {
      await ask('/sign-in', 'POST', { email, password });
      done?.();
      await client.invalidateQueries();
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  return { signIn, fault };
}

/** E-mail and password; wherever somebody must be known. */
export default function SignInForm({ done, about }: { done?: () => void; about?: string }) {
  const { signIn, fault } = useSignIn(done);
  const [busy, setBusy] = useState(false);
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const given = new FormData(e.currentTarget);
    setBusy(true);
    await signIn(String(given.get('email')), String(given.get('password')));
    setBusy(false);
  };
  return (
    <form onSubmit={(e) => void submit(e)}>
      <Stack>
        {about && <Text>{about}</Text>}
        <TextInput label="E-mail" name="email" type="email" autoComplete="username" required />
        <PasswordInput label="Password" name="password" autoComplete="current-password" required />
        {fault && (
          <Alert color="clay" role="alert">
            {fault}
          </Alert>
        )}
        <Button type="submit" loading={busy}>
          Sign in
        </Button>
      </Stack>
    </form>
  );
}
