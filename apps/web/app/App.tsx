import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { ParamsOf, ReadPath } from "@probe-lane/contract";
import type { ComponentType } from "react";
import { createBrowserRouter, Navigate, Outlet, useLocation, type RouteObject } from "react-router";
import { RouterProvider } from "react-router/dom";
import { SignInPage } from "../features/auth/SignInPage";
import { MyLanesPage } from "../features/lanes/MyLanesPage";
import { Loading, PageError } from "../ui";
import { ApiError } from "./api";
import { Broken } from "./Broken";
import { forgetKept } from "./kept";
import { reading } from "./queries";
import { isStaff, SESSION_KEY, useMe } from "./session";
import { Shell } from "./Shell";

/** A session that ended shows in whichever reply comes first. */
const noticeSignedOut = (error: unknown): void => {
  if (!(error instanceof ApiError) || error.code !== "notSignedIn") return;
  forgetKept();
  client.setQueryData(SESSION_KEY, null);
};

const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError: noticeSignedOut }),
  mutationCache: new MutationCache({ onError: noticeSignedOut }),
  defaultOptions: {
    queries: {
      // asked without a network too: the floor's pages are kept on the device
      networkMode: "offlineFirst",
      retry: (count, error) => error instanceof ApiError && error.isPassing && count < 3,
      refetchOnWindowFocus: true,
      staleTime: 2000,
    },
  },
});

type Who = "student" | "instructor" | "staff";

/** Signed in, and in the right role; else to where that person belongs. */
function Gate({ role, title }: { role?: Who; title?: string }) {
  const { me, error } = useMe();
  const location = useLocation();
  if (error) return <PageError error={error} />;
  if (me === undefined) return <Loading />;
  if (me === null) return <Navigate to="/sign-in" replace state={{ from: location.pathname }} />;
  if (role && me.role !== role && !(role === "staff" && isStaff(me))) return <Navigate to="/" replace />;
  if (title === undefined) return <Outlet />;
  return (
    <Shell title={title}>
      <Outlet />
    </Shell>
  );
}

function Home() {
  const { me } = useMe();
  return isStaff(me) ? (
    <Navigate to="/wall" replace />
  ) : (
    <Shell title="My lanes">
      <MyLanesPage />
    </Shell>
  );
}

const NothingHere = () => (
  <PageError error={new Error("There is nothing at this address. Go back to your lanes and choose one.")} />
);

/**
 * A page whose script is fetched when it is first opened; what it reads first is asked for meanwhile. Ids in what is
 * read are those of the page's own address.
 */
const page = <P extends ReadPath = never>(
  path: string,
  load: () => Promise<ComponentType>,
  ...reads: readonly P[]
): RouteObject => ({
  path,
  lazy: async () => ({ Component: await load() }),
  loader: ({ params }) => {
    // not waited for: the page itself shows what is on its way, and what went wrong
    for (const read of reads) void client.prefetchQuery(reading(read, params as ParamsOf<P>));
    return null;
  },
  HydrateFallback: Loading,
});
/** Pages for whoever is signed in, in one role if it says so; those with a title stand in the shell. */
const gated = (who: { role?: Who; title?: string }, ...children: RouteObject[]): RouteObject => ({
  element: <Gate {...who} />,
  errorElement: <Broken />,
  children,
});

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    HydrateFallback: Loading,
    children: [
      { path: "/sign-in", element: <SignInPage /> },
      page("/first", async () => (await import("../features/auth/FirstPage")).FirstPage),
      page("/join", async () => (await import("../features/auth/JoinPage")).JoinPage),
      gated(
        {},
        { path: "/", element: <Home /> },
        // a bench and a replay never open with an older state: they ask by themselves, each time
        page("/lanes/:id", async () => (await import("../features/bench/BenchPage")).BenchPage),
        page(
          "/lanes/:id/ruling",
          async () => (await import("../features/ruling/RulingPage")).RulingPage,
          "/lanes/:id/ruling",
        ),
        page(
          "/demonstration",
          async () => (await import("../features/bench/together/DemonstrationPage")).DemonstrationPage,
        ),
        page("/lanes/:id/review", async () => (await import("../features/bench/review/ReviewPage")).ReviewPage),
        page("/lanes/:id/compare/:other", async () => (await import("../features/ruling/ComparePage")).ComparePage),
        page(
          "/floor/:id",
          async () => (await import("../features/floor/FloorLanePage")).FloorLanePage,
          "/floor/lanes/:id",
        ),
        page("/floor/exercises/:id/lane", async () => (await import("../features/floor/OpenLanePage")).OpenLanePage),
        page(
          "/floor/exercises/:id/worksheet",
          async () => (await import("../features/floor/WorksheetPage")).WorksheetPage,
          "/floor",
        ),
      ),
      gated(
        { title: "Your account" },
        page("/account", async () => (await import("../features/auth/AccountPage")).AccountPage),
      ),
      gated(
        { role: "student", title: "Skills" },
        page("/skills", async () => (await import("../features/skills/SkillsPage")).SkillsPage),
      ),
      gated(
        { role: "instructor", title: "Skills" },
        page("/students/:id/skills", async () => (await import("../features/skills/SkillsPage")).SkillsPage),
      ),
      gated(
        { role: "staff", title: "Wall" },
        page("/wall", async () => (await import("../features/wall/WallPage")).WallPage, "/wall"),
      ),
      gated(
        { role: "instructor", title: "Who can do what" },
        page("/standings", async () => (await import("../features/skills/StandingsPage")).StandingsPage, "/standings"),
      ),
      gated(
        { role: "instructor", title: "What goes wrong" },
        page("/patterns", async () => (await import("../features/patterns/PatternsPage")).PatternsPage, "/patterns"),
      ),
      gated(
        { role: "instructor", title: "Marks" },
        page("/marks", async () => (await import("../features/marks/MarksPage")).MarksPage, "/marks"),
      ),
      gated(
        { role: "instructor", title: "Marking" },
        page(
          "/assignments/:id/marking",
          async () => (await import("../features/marking/MarkingPage")).MarkingPage,
          "/assignments/:id/marking",
        ),
      ),
      gated(
        { role: "instructor", title: "What was done" },
        page("/audit", async () => (await import("../features/audit/AuditPage")).AuditPage, "/audit"),
      ),
      gated(
        { role: "instructor", title: "Plan" },
        page("/plan", async () => (await import("../features/plan/PlanPage")).PlanPage, "/plan"),
      ),
      gated(
        { role: "instructor", title: "Class" },
        page("/class", async () => (await import("../features/class/ClassPage")).ClassPage, "/class"),
      ),
      gated(
        { title: "Floor" },
        page("/floor", async () => (await import("../features/floor/FloorPage")).FloorPage, "/floor"),
      ),
      gated(
        { role: "staff", title: "Check of a class" },
        page(
          "/floor/exercises/:id/class",
          async () => (await import("../features/floor/ClassCheckPage")).ClassCheckPage,
          "/floor/exercises/:id/class",
        ),
      ),
      gated(
        { title: "What did I do wrong?" },
        page("/what-went-wrong", async () => (await import("../features/desk/WrongPage")).WrongPage),
      ),
      gated(
        { title: "The same setup in another school" },
        page("/schools", async () => (await import("../features/desk/SchoolsPage")).SchoolsPage),
      ),
      gated(
        { title: "Turning desk" },
        page("/turning-desk", async () => (await import("../features/desk/TurningDeskPage")).TurningDeskPage),
      ),
      gated(
        { title: "Read a program" },
        page("/prove", async () => (await import("../features/prove/ProvePage")).ProvePage),
      ),
      gated({ title: "Nothing here" }, { path: "*", element: <NothingHere /> }),
    ],
  },
]);

export function App() {
  return (
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  );
}
