import { Component, type ReactNode } from "react";

interface Props {
  children: ReactNode;
}

/** What is shown instead of an empty page when the page itself has a fault. */
export class Mishap extends Component<Props, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <main className="mx-auto max-w-xl px-7 py-20">
        <h1 className="mb-3 text-2xl">This page has made a mistake.</h1>
        <p className="mb-6 text-soft">
          What you did before is saved. Load the page again; if it happens once more, tell whoever looks after
          this Fitzle what you did last.
        </p>
        <button
          type="button"
          onClick={() => location.reload()}
          className="font-semibold text-measure underline"
        >
          Load it again
        </button>
      </main>
    );
  }
}
