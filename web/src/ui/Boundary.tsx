import { Component, type ReactNode } from "react";
import { Link, useRouteError } from "react-router";
import { text } from "../text";
import { Button } from "./Button";

/** What is shown where something of the program could not be shown: what happened, and what can be done. */
function Fallen({ error, again }: { error: unknown; again?: () => void }) {
  return (
    <div role="alert" className="max-w-xl p-10">
      <h2 className="mb-2 font-title text-2xl">{text.fallen.title}</h2>
      <p className="mb-2">{text.fallen.kept}</p>
      <p className="mb-4 text-sm text-pencil">{error instanceof Error ? error.message : String(error)}</p>
      <div className="flex flex-wrap gap-2">
        {again && <Button onClick={again}>{text.fallen.again}</Button>}
        <Button onClick={() => window.location.reload()}>{text.fallen.reload}</Button>
        <Link to="/" className="min-h-8 px-2 py-1 underline" reloadDocument>
          {text.backToDesk}
        </Link>
      </div>
    </div>
  );
}

/** An error of a whole page. */
export function FallenPage() {
  return (
    <main>
      <Fallen error={useRouteError()} />
    </main>
  );
}

/** Keeps an error of one part from taking the rest of the page with it. */
export class Boundary extends Component<{ children: ReactNode }, { error: unknown }> {
  state = { error: null as unknown };

  static getDerivedStateFromError(error: unknown) {
    return { error };
  }

  render() {
    if (this.state.error === null) return this.props.children;
    return <Fallen error={this.state.error} again={() => this.setState({ error: null })} />;
  }
}
