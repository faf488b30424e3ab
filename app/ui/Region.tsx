import { Component, type ErrorInfo, type ReactNode } from "react";
import { Button } from "./Button";

interface RegionProps {
  /** The region's name, as in "The tape broke". */
  readonly name: string;
  /** The identity of its content; a change retries rendering. */
  readonly of?: unknown;
  /** Actions that save the work, shown when the region has failed. */
  readonly rescue?: ReactNode;
  readonly children: ReactNode;
}

interface RegionState {
  readonly error: Error | undefined;
  readonly of: unknown;
}

/** An error boundary: an error is shown in place of the region, and the rest of the page stays. */
export class Region extends Component<RegionProps, RegionState> {
  override state: RegionState = { error: undefined, of: this.props.of };

  static getDerivedStateFromError(error: unknown): Partial<RegionState> {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  static getDerivedStateFromProps(props: RegionProps, state: RegionState): Partial<RegionState> | null {
    return props.of === state.of ? null : { error: undefined, of: props.of };
  }

  override componentDidCatch(error: Error, info: ErrorInfo): void {
    console.warn(`${this.props.name} broke.`, error, info.componentStack);
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <section role="alert" aria-label={`${this.props.name} broke`} className="p-5 text-sm">
        <p className="font-serif text-xl">{this.props.name} broke.</p>
        <p className="mb-2 text-soft">
          The rest of the page works, and nothing you made is lost. ({error.message})
        </p>
        <p className="flex gap-2">
          <Button onClick={() => this.setState({ error: undefined })}>Try it again</Button>
          {this.props.rescue}
        </p>
      </section>
    );
  }
}
