import { Component, type ErrorInfo, type ReactNode } from "react";
import { Button } from "./Button";

interface RegionProps {
  /** What stands here, as it is called in "The tape broke". */
  readonly name: string;
  /** What belongs to what is shown: another one is tried anew. */
  readonly of?: unknown;
  /** A way to save the work, shown where the region broke. */
  readonly rescue?: ReactNode;
  readonly children: ReactNode;
}

interface RegionState {
  readonly error: Error | undefined;
  readonly of: unknown;
}

/** A part of the page that breaks by itself: what goes wrong in it is said in its place, and the rest stands. */
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
          The rest of the page stands, and nothing you made is lost. ({error.message})
        </p>
        <p className="flex gap-2">
          <Button onClick={() => this.setState({ error: undefined })}>Try it again</Button>
          {this.props.rescue}
        </p>
      </section>
    );
  }
}
