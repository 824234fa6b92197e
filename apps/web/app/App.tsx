import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, Suspense, type ReactNode } from "react";
import { createBrowserRouter, Navigate, useLocation } from "react-router";
import { RouterProvider } from "react-router/dom";
import { JoinPage } from "../features/auth/JoinPage";
import { SignInPage } from "../features/auth/SignInPage";
import { MyLanesPage } from "../features/lanes/MyLanesPage";
import { Loading, PageError } from "../ui";
import { ApiError } from "./api";
import { SESSION_KEY, useMe } from "./session";
import { Shell } from "./Shell";

const BenchPage = lazy(() => import("../features/bench/BenchPage").then((room) => ({ default: room.BenchPage })));
const ReviewPage = lazy(() =>
  import("../features/bench/review/ReviewPage").then((room) => ({ default: room.ReviewPage })),
);
const ComparePage = lazy(() =>
  import("../features/ruling/ComparePage").then((room) => ({ default: room.ComparePage })),
);
const SkillsPage = lazy(() => import("../features/skills/SkillsPage").then((room) => ({ default: room.SkillsPage })));
const RulingPage = lazy(() => import("../features/ruling/RulingPage").then((room) => ({ default: room.RulingPage })));
const WallPage = lazy(() => import("../features/wall/WallPage").then((room) => ({ default: room.WallPage })));
const ClassPage = lazy(() => import("../features/class/ClassPage").then((room) => ({ default: room.ClassPage })));
const WrongPage = lazy(() => import("../features/desk/WrongPage").then((room) => ({ default: room.WrongPage })));
const SchoolsPage = lazy(() => import("../features/desk/SchoolsPage").then((room) => ({ default: room.SchoolsPage })));
const TurningDeskPage = lazy(() =>
  import("../features/desk/TurningDeskPage").then((room) => ({ default: room.TurningDeskPage })),
);
const FloorPage = lazy(() => import("../features/floor/FloorPage").then((room) => ({ default: room.FloorPage })));
const FloorLanePage = lazy(() =>
  import("../features/floor/FloorLanePage").then((room) => ({ default: room.FloorLanePage })),
);
const WorksheetPage = lazy(() =>
  import("../features/floor/WorksheetPage").then((room) => ({ default: room.WorksheetPage })),
);
const MarkingPage = lazy(() =>
  import("../features/marking/MarkingPage").then((room) => ({ default: room.MarkingPage })),
);
const MarksPage = lazy(() => import("../features/marks/MarksPage").then((room) => ({ default: room.MarksPage })));

/** A session that ended shows in whichever reply comes first. */
const noticeSignedOut = (error: unknown): void => {
  if (error instanceof ApiError && error.code === "notSignedIn") client.setQueryData(SESSION_KEY, null);
};

const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError: noticeSignedOut }),
  mutationCache: new MutationCache({ onError: noticeSignedOut }),
  defaultOptions: {
    queries: {
      retry: (count, error) => error instanceof ApiError && error.isPassing && count < 3,
      refetchOnWindowFocus: true,
      staleTime: 2000,
    },
  },
});

/** Signed in, and in the right role; else to where that person belongs. */
function Gate({ role, children }: { role?: "student" | "instructor"; children: ReactNode }) {
  const { me, error } = useMe();
  const location = useLocation();
  if (error) return <PageError error={error} />;
  if (me === undefined) return <Loading />;
  if (me === null) return <Navigate to="/sign-in" replace state={{ from: location.pathname }} />;
  if (role && me.role !== role) return <Navigate to="/" replace />;
  return <Suspense fallback={<Loading />}>{children}</Suspense>;
}

function Home() {
  const { me } = useMe();
  return me?.role === "instructor" ? (
    <Navigate to="/wall" replace />
  ) : (
    <Shell title="My lanes">
      <MyLanesPage />
    </Shell>
  );
}

function NothingHere() {
  return (
    <Shell title="Nothing here">
      <PageError error={new Error("There is nothing at this address. Go back to your lanes and choose one.")} />
    </Shell>
  );
}

const router = createBrowserRouter([
  { path: "/sign-in", element: <SignInPage /> },
  { path: "/join", element: <JoinPage /> },
  {
    path: "/",
    element: (
      <Gate>
        <Home />
      </Gate>
    ),
  },
  {
    path: "/lanes/:id",
    element: (
      <Gate>
        <BenchPage />
      </Gate>
    ),
  },
  {
    path: "/lanes/:id/ruling",
    element: (
      <Gate>
        <RulingPage />
      </Gate>
    ),
  },
  {
    path: "/lanes/:id/review",
    element: (
      <Gate>
        <ReviewPage />
      </Gate>
    ),
  },
  {
    path: "/lanes/:id/compare/:other",
    element: (
      <Gate>
        <ComparePage />
      </Gate>
    ),
  },
  {
    path: "/skills",
    element: (
      <Gate role="student">
        <Shell title="Skills">
          <SkillsPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/students/:id/skills",
    element: (
      <Gate role="instructor">
        <Shell title="Skills">
          <SkillsPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/wall",
    element: (
      <Gate role="instructor">
        <Shell title="Wall">
          <WallPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/marks",
    element: (
      <Gate role="instructor">
        <Shell title="Marks">
          <MarksPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/assignments/:id/marking",
    element: (
      <Gate role="instructor">
        <Shell title="Marking">
          <MarkingPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/class",
    element: (
      <Gate role="instructor">
        <Shell title="Class">
          <ClassPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/floor",
    element: (
      <Gate>
        <Shell title="Floor">
          <FloorPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/floor/:id",
    element: (
      <Gate>
        <FloorLanePage />
      </Gate>
    ),
  },
  {
    path: "/floor/exercises/:id/worksheet",
    element: (
      <Gate>
        <WorksheetPage />
      </Gate>
    ),
  },
  {
    path: "/what-went-wrong",
    element: (
      <Gate>
        <Shell title="What did I do wrong?">
          <WrongPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/schools",
    element: (
      <Gate>
        <Shell title="The same setup in another school">
          <SchoolsPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "/turning-desk",
    element: (
      <Gate>
        <Shell title="Turning desk">
          <TurningDeskPage />
        </Shell>
      </Gate>
    ),
  },
  {
    path: "*",
    element: (
      <Gate>
        <NothingHere />
      </Gate>
    ),
  },
]);

export function App() {
  return (
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  );
}
