import { Component, type ReactNode } from "react";
import { Fallen } from "./Fallen";

/** A station that cannot be drawn takes nothing else with it: the line stays, and so do the clock and its touches. */
export class Boundary extends Component<{ children: ReactNode }, { fallen: boolean }> {
  override state = { fallen: false };

  static getDerivedStateFromError() {
    return { fallen: true };
  }

  override render() {
    return this.state.fallen ? (
      <Fallen again={() => this.setState({ fallen: false })} />
    ) : (
      this.props.children
    );
  }
}
