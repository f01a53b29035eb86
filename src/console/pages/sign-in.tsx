import { useState, type SyntheticEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { call, CallError } from '../api.js';
import { ProblemNote } from '../components/states.js';
import { Heading } from '../components/heading.js';

/** Asks for a token, when the service wants one and the browser has no session. */
export function SignInPage({ signedIn }: { signedIn: () => void }) {
  const [token, setToken] = useState('');
  const [state, setState] = useState<{ status: 'idle' | 'sending' } | { status: 'failed'; error: CallError }>(
    {
      status: 'idle',
    },
  );
  const signIn = async (event: SyntheticEvent) => {
    event.preventDefault();
    setState({ status: 'sending' });
    try {
      await call('signIn', { body: { token: token.trim() } });
      signedIn();
    } catch (error) {
      if (!(error instanceof CallError)) throw error;
      setState({ status: 'failed', error });
    }
  };
  return (
    <main className="page sign-in">
      <p className="brand">Syndexa</p>
      <Heading>Who are you?</Heading>
      <p>
        This service is shared and requires a token. Its administrator creates one with{' '}
        <code>syndexa token add NAME --role viewer</code>. You stay signed in for twelve hours.
      </p>
      <Form onSubmit={(event) => void signIn(event)}>
        <Form.Group controlId="token">
          <Form.Label>Token</Form.Label>
          <Form.Control
            type="password"
            autoComplete="current-password"
            autoFocus
            required
            value={token}
            onChange={(event) => setToken(event.target.value)}
          />
        </Form.Group>
        {state.status === 'failed' && <ProblemNote error={state.error} />}
        <Button type="submit" disabled={state.status === 'sending' || token.trim() === ''}>
          Sign in
        </Button>
      </Form>
    </main>
  );
}
