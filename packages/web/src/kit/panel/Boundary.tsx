import { Component, type ErrorInfo, type ReactNode } from 'react';
import { Button } from '../controls.tsx';
import { Empty } from './panels.tsx';

/** Keeps a failure in one part of the window from taking the rest: says so, and offers to try again. */
export class Boundary extends Component<{ children: ReactNode; name: string }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError(): { failed: boolean } {
    return { failed: true };
  }

  override componentDidCatch(error: Error, info: ErrorInfo): void {
    console.error(`${this.props.name} failed`, error, info.componentStack);
  }

  override render(): ReactNode {
    if (!this.state.failed) return this.props.children;
    return (
      <Empty title={`${this.props.name} cannot be shown`}>
        Something went wrong in this part. Your data is safe: everything saved is kept.
        <Button onPress={() => this.setState({ failed: false })}>Try again</Button>
      </Empty>
    );
  }
}
