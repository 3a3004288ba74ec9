import type { Welcome } from '../api/schema';

/** What to hand over to somebody who has a new account. */
export function WelcomeNote({ welcome }: { welcome: Welcome }) {
  return (
    <div role="status">
      <p className="above-0 below-0">
        The username is <b>{welcome.username}</b>.{' '}
        {welcome.mailedTo ? `The way in goes to ${welcome.mailedTo} by mail. You can also hand` : 'Hand'} over this
        address; it sets the password, works once, and for seven days:
      </p>
      <p className="address below-0">{window.location.origin + welcome.path}</p>
    </div>
  );
}
