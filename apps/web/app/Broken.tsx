import { useRouteError } from "react-router";
import { Button, Notice, TextLink } from "../ui";

/** A script that could not be fetched: the network is gone, or the app was renewed while this page stood open. */
const isFetching = (error: unknown): boolean =>
  error instanceof Error &&
  /dynamically imported module|Importing a module script|Failed to fetch/i.test(error.message);

/** What stands where a page could not be shown: what happened, what is kept, and what to do. */
export function Broken() {
  const error = useRouteError();
  const words = isFetching(error)
    ? "This page could not be fetched. The network may be gone, or the app was renewed while this tab stood open."
    : "This page broke while it was drawn. What was done in a lane is kept on the server.";
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-4 p-8">
      <h1 className="text-xl font-bold">The page is not here</h1>
      <Notice kind="stop" role="alert">
        {words} Load it again; if it happens twice, tell your instructor what you did last.
      </Notice>
      <p className="flex items-center gap-4">
        <Button look="act" onClick={() => location.reload()}>
          Load it again
        </Button>
        <TextLink to="/">Back to the first page</TextLink>
      </p>
    </main>
  );
}
