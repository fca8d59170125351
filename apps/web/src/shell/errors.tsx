import { Component, Suspense, type ReactNode } from 'react';
import { QueryErrorResetBoundary } from '@tanstack/react-query';
import { Link, useRouteError } from 'react-router';
import { wordsOf } from '../lib/api';
import { Empty, Failed, Loading } from '../ui/page';

interface BoundaryProps {
  readonly onReset: () => void;
  readonly children: ReactNode;
}

/** Shows a failure in place of the page, and tries again on request. */
class Boundary extends Component<BoundaryProps, { error: unknown }> {
  override state: { error: unknown } = { error: null };

  static getDerivedStateFromError(error: unknown): { error: unknown } {
    return { error };
  }

  override render(): ReactNode {
    if (this.state.error === null) return this.props.children;
    const retry = () => {
      this.props.onReset();
      this.setState({ error: null });
    };
    return (
      <>
        <Failed message={wordsOf(this.state.error)} onRetry={retry} />
        <p className="text-center mt-3">
          <Link to="/" className="text-pine underline">
            Go to your desk
          </Link>
        </p>
      </>
    );
  }
}

/** Waiting and failure of everything inside. `name` starts it anew when the address changes. */
export function RouteBoundary({ name, children }: { name: string; children: ReactNode }) {
  return (
    <QueryErrorResetBoundary>
      {({ reset }) => (
        <Boundary key={name} onReset={reset}>
          <Suspense fallback={<Loading />}>{children}</Suspense>
        </Boundary>
      )}
    </QueryErrorResetBoundary>
  );
}

export function NotFound() {
  return (
    <Empty title="There is no page at this address">
      <Link to="/" className="text-pine underline">
        Go to your desk
      </Link>
    </Empty>
  );
}

/** The last net: a failure outside of any page. */
export function RouteFailure() {
  const error = useRouteError();
  return (
    <main className="max-w-xl mx-auto p-10">
      <Failed message={wordsOf(error)} onRetry={() => window.location.reload()} />
    </main>
  );
}
