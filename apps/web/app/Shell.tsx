import { memo, useEffect, useState, type ReactNode } from "react";
import { Link, NavLink, useNavigate } from "react-router";
import { LogOut, Moon, Sun, UserRound } from "lucide-react";
import { Button, Mark } from "../ui";
import { isStaff, useMe, useSignOut } from "./session";
import { chooseTheme, storedTheme, type Theme } from "./theme";

function ThemeButton() {
  const [theme, setTheme] = useState<Theme>(storedTheme);
  const other: Theme = theme === "light" ? "dark" : "light";
  return (
    <Button
      look="quiet"
      aria-label={`Use the ${other} look`}
      title={`Use the ${other} look`}
      onClick={() => {
        chooseTheme(other);
        setTheme(other);
      }}
    >
      {theme === "light" ? <Moon size={16} aria-hidden /> : <Sun size={16} aria-hidden />}
    </Button>
  );
}

const PAGES = [
  { to: "/", label: "My lanes", role: "student" },
  { to: "/skills", label: "Skills", role: "student" },
  { to: "/wall", label: "Wall", role: "staff" },
  { to: "/marks", label: "Marks", role: "instructor" },
  { to: "/plan", label: "Plan", role: "instructor" },
  { to: "/class", label: "Class", role: "instructor" },
  { to: "/floor", label: "Floor", role: null },
  { to: "/what-went-wrong", label: "What did I do wrong?", role: null },
  { to: "/schools", label: "Schools", role: null },
  { to: "/turning-desk", label: "Turning desk", role: null },
  { to: "/prove", label: "Program", role: null },
] as const;

/** The pages that are open to who is signed in. */
const Pages = memo(function Pages() {
  const { me } = useMe();
  return (
    <nav aria-label="Pages" className="flex min-w-0 gap-1 overflow-x-auto">
      {PAGES.filter(({ role }) => role === null || role === me?.role || (role === "staff" && isStaff(me))).map(
        ({ to, label }) => (
          <NavLink
            key={to}
            to={to}
            end={to === "/"}
            className={({ isActive }) =>
              `whitespace-nowrap border-b-2 px-2 py-2.5 ${isActive ? "border-contact font-bold" : "border-transparent text-ink2"}`
            }
          >
            {label}
          </NavLink>
        ),
      )}
    </nav>
  );
});

/** Who is signed in, the look of the pages, and the way out. */
const Account = memo(function Account() {
  const { me } = useMe();
  const signOut = useSignOut();
  const navigate = useNavigate();
  return (
    <>
      <Link to="/account" aria-label={`Your account, ${me?.name ?? ""}`} title="Your account" className="p-1.5">
        <span className="hidden max-w-56 text-right leading-tight lg:block">
          <b className="block truncate">{me?.name}</b>
          {(me?.classes.length ?? 0) > 1 ? (
            <span className="block truncate text-xs text-ink2">{me?.className}</span>
          ) : null}
        </span>
        <UserRound size={16} aria-hidden className="lg:hidden" />
      </Link>
      <ThemeButton />
      <Button
        look="quiet"
        aria-label="Sign out"
        title="Sign out"
        onClick={() => signOut.mutate(undefined, { onSuccess: () => void navigate("/sign-in") })}
      >
        <LogOut size={16} aria-hidden />
      </Button>
    </>
  );
});

/** The name of the product, and the way to the first page. */
const Home = memo(function Home({ isFull }: { isFull: boolean }) {
  return (
    <Link to="/" aria-label="Probe Lane, first page" className="flex items-center gap-2 whitespace-nowrap font-bold">
      <Mark /> <span className={isFull ? "" : "hidden sm:inline"}>Probe Lane</span>
    </Link>
  );
});

/** The frame of every page: where you are, what belongs to this page, who you are. */
export function Shell({
  title,
  detail,
  aside,
  children,
  isFull = false,
}: {
  title: string;
  detail?: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
  isFull?: boolean;
}) {
  useEffect(() => {
    document.title = `${title} · Probe Lane`;
  }, [title]);
  return (
    <div className={isFull ? "flex h-dvh min-h-[640px] flex-col" : "flex min-h-dvh flex-col"}>
      <header className="no-print flex h-11 shrink-0 items-center overflow-x-auto justify-between gap-2 border-b border-rule bg-panel px-2 sm:gap-4 sm:px-4">
        <Home isFull={isFull} />
        <div
          className={
            isFull
              ? "flex min-w-0 flex-1 items-baseline gap-2"
              : "sr-only sm:not-sr-only sm:flex sm:min-w-0 sm:flex-1 sm:items-baseline sm:gap-2"
          }
        >
          <h1 className={`font-bold ${detail && !isFull ? "shrink-0" : "truncate"}`}>{title}</h1>
          {detail ? <span className="truncate text-xs text-ink2">{detail}</span> : null}
        </div>
        {isFull ? null : <Pages />}
        {aside}
        <Account />
      </header>
      <main className={isFull ? "flex min-h-0 flex-1 flex-col" : "mx-auto w-full max-w-[1248px] flex-1 p-4"}>
        {children}
      </main>
    </div>
  );
}
