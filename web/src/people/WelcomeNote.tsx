import type { Welcome } from '../api/schema';

/** What to hand over to somebody who has a new account. */
export function WelcomeNote({ welcome }: { welcome: Welcome }) {
  return (
    <div role="status">
      <p style={{ margin: 0 }}>
        The username is <b style={{ fontWeight: 600 }}>{welcome.username}</b>.{' '}
        {welcome.mailedTo ? `The way in goes to ${welcome.mailedTo} by mail. You can also hand` : 'Hand'} over this
        address; it sets the password, works once, and for seven days:
      </p>
      <p
        style={{
          overflowWrap: 'anywhere',
          background: 'var(--linen)',
          padding: '8px 12px',
          borderRadius: 4,
          marginBottom: 0,
        }}
      >
        {window.location.origin + welcome.path}
      </p>
    </div>
  );
}
