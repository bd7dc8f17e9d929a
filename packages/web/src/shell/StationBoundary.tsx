import { Component, type ErrorInfo, type ReactNode } from 'react';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';

interface BoundaryProps {
  /** What it stands for: another one begins anew. */
  readonly name: string;
  readonly onLeave: () => void;
  readonly children: ReactNode;
}

/** One view that breaks says so, with a way on; the rest of the window goes on working. */
export class StationBoundary extends Component<BoundaryProps, { readonly error: Error | null }> {
  override state: { readonly error: Error | null } = { error: null };

  static getDerivedStateFromError(error: unknown): { error: Error } {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidCatch(error: unknown, { componentStack }: ErrorInfo): void {
    console.error(error, componentStack);
  }

  override componentDidUpdate({ name }: BoundaryProps): void {
    if (name !== this.props.name && this.state.error) this.setState({ error: null });
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    // What was built anew since the window was opened is no longer there under its old name.
    const isGone = /dynamically imported module|module script/i.test(error.message);
    return (
      <div role="alert">
        <Empty
          title={isGone ? 'This view is there in a newer version' : 'This view stopped'}
          text={
            isGone
              ? 'Tovel was brought up to date since this window was opened. Load the window anew; everything is saved.'
              : `It came upon something that it cannot show: ${error.message}. Everything that you did is saved.`
          }
        >
          {isGone ? (
            <Button $kind="primary" onPress={() => window.location.reload()}>
              Load anew
            </Button>
          ) : (
            <>
              <Button $kind="primary" onPress={() => this.setState({ error: null })}>
                Try again
              </Button>{' '}
              <Button onPress={this.props.onLeave}>Go to Screens</Button>
            </>
          )}
        </Empty>
      </div>
    );
  }
}
