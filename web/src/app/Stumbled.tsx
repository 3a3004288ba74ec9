import { Component, type ReactNode } from 'react';
import { Button } from '../ui/Button';

interface StumbledProps {
  /** What goes on standing when this falls: the frame around a page, or nothing. */
  of: 'page' | 'frame';
  /** The address: at another one it tries anew by itself. */
  at?: string;
  children: ReactNode;
}

/** A part that cannot be drawn is said to be so, and everything around it goes on. What was typed is kept elsewhere. */
export class Stumbled extends Component<StumbledProps, { fallen: boolean }> {
  state = { fallen: false };

  static getDerivedStateFromError() {
    return { fallen: true };
  }

  componentDidUpdate(before: StumbledProps) {
    if (this.state.fallen && before.at !== this.props.at) this.setState({ fallen: false });
  }

  render() {
    if (!this.state.fallen) return this.props.children;
    return (
      <div className="page plain">
        <main>
          <h1>Something went wrong on this page</h1>
          <p className="muted">It is our fault, not yours. What you typed is kept.</p>
          <p>
            {this.props.of === 'page' ? (
              <Button go onClick={() => this.setState({ fallen: false })}>
                Open it again
              </Button>
            ) : (
              <Button go onClick={() => window.location.assign('/')}>
                Back to the beginning
              </Button>
            )}
          </p>
        </main>
      </div>
    );
  }
}
