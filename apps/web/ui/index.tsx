/** Widgets that every page shares. Pages never import one another; what two of them need lives here. */
import {
  useId,
  type ButtonHTMLAttributes,
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  type SelectHTMLAttributes,
} from "react";
import { Link, type LinkProps } from "react-router";
import { Dialog as RadixDialog } from "radix-ui";
export { LaneRule } from "./LaneRule";

export function Mark() {
  return (
    <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden>
      <path d="M2 4h16M4 4v4M8 4v2.5M12 4v2.5M16 4v4" fill="none" stroke="currentColor" strokeWidth="1.6" />
      <circle cx="10" cy="14" r="3" fill="var(--contact)" />
    </svg>
  );
}

/** A list to choose from, in the dress of all boxes that are filled in. */
export function Select({ className = "", ...rest }: SelectHTMLAttributes<HTMLSelectElement>) {
  return (
    <select {...rest} className={`rounded-[3px] border border-ink3 bg-field px-1 py-0.5 font-normal ${className}`} />
  );
}

/** A link within the app, as it stands in text. */
export function TextLink({ className = "", ...rest }: LinkProps) {
  return <Link {...rest} className={`font-bold text-expected underline ${className}`} />;
}

type Look = "plain" | "act" | "quiet";
const LOOKS: Record<Look, string> = {
  plain: "border border-ink3 bg-field px-3 py-1 font-bold hover:bg-well",
  act: "border border-contact bg-contact px-3 py-1 font-bold text-on-contact hover:brightness-110",
  quiet: "px-1.5 py-1 text-ink2 hover:text-ink",
};

export function Button({
  look = "plain",
  keyCap,
  children,
  className = "",
  ref,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & {
  look?: Look;
  keyCap?: string;
  ref?: Ref<HTMLButtonElement>;
}) {
  return (
    <button
      type="button"
      ref={ref}
      {...rest}
      className={`inline-flex items-center gap-1.5 whitespace-nowrap rounded-[4px] disabled:cursor-not-allowed disabled:opacity-50 ${LOOKS[look]} ${className}`}
    >
      {children}
      {keyCap ? <KeyCap isOnAct={look === "act"}>{keyCap}</KeyCap> : null}
    </button>
  );
}

/** A key, drawn small beside what it does. */
export function KeyCap({ children, isOnAct = false }: { children: ReactNode; isOnAct?: boolean }) {
  return (
    <kbd
      className={`figures inline-block min-w-5 rounded-[3px] border px-1 text-center text-xs leading-4 font-normal ${isOnAct ? "border-on-contact" : "border-ink3 bg-panel text-ink2"}`}
    >
      {children}
    </kbd>
  );
}

export function Panel({
  title,
  note,
  children,
  className = "",
  bodyClassName = "",
}: {
  title: ReactNode;
  note?: ReactNode;
  children: ReactNode;
  className?: string;
  bodyClassName?: string;
}) {
  const id = useId();
  return (
    <section
      aria-labelledby={id}
      className={`flex min-h-0 flex-col rounded-panel border border-rule bg-panel ${className}`}
    >
      <header className="flex shrink-0 items-center justify-between gap-3 border-b border-rule-soft px-2.5 py-1.5">
        <h2 id={id} className="text-xs font-bold text-ink2">
          {title}
        </h2>
        {note ? <span className="text-xs text-ink2">{note}</span> : null}
      </header>
      <div className={`min-h-0 flex-1 ${bodyClassName}`}>{children}</div>
    </section>
  );
}

/** A typed figure: plain text, so that what a person types is read by the core and never by the browser. */
export function FigureInput({
  className = "",
  ref,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { ref?: Ref<HTMLInputElement> }) {
  return (
    <input
      ref={ref}
      type="text"
      inputMode="decimal"
      autoComplete="off"
      spellCheck={false}
      {...rest}
      className={`figures rounded-[3px] border border-ink3 bg-field px-1.5 py-0.5 ${className}`}
    />
  );
}

export function Notice({
  kind = "note",
  children,
  role = "status",
}: {
  kind?: "note" | "stop";
  children: ReactNode;
  role?: "status" | "alert";
}) {
  return (
    <p
      role={role}
      className={`border-l-4 px-3 py-2 ${kind === "stop" ? "border-contact bg-contact-soft" : "border-expected bg-expected-soft"}`}
    >
      {children}
    </p>
  );
}

export function Loading() {
  return (
    <p role="status" className="p-8 text-ink2">
      Fetching …
    </p>
  );
}

export function PageError({ error }: { error: Error & { requestId?: string } }) {
  return (
    <div className="mx-auto max-w-xl p-8">
      <Notice kind="stop" role="alert">
        {error.message}
        {error.requestId ? <span className="figures mt-1 block text-xs">number {error.requestId}</span> : null}
      </Notice>
      <p className="mt-4">
        <Link to="/" className="font-bold text-contact underline">
          Back to the first page
        </Link>
      </p>
    </div>
  );
}

interface DialogProps {
  title: string;
  isOpen: boolean;
  onClose(): void;
  children: ReactNode;
}

/** What opens over a page: where it stands and how wide it may be is said by its dress. */
function Opened({
  title,
  isOpen,
  onClose,
  children,
  dress,
  overlay,
}: DialogProps & { dress: string; overlay: string }) {
  return (
    <RadixDialog.Root
      open={isOpen}
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <RadixDialog.Portal>
        <RadixDialog.Overlay className={`fixed inset-0 ${overlay}`} />
        <RadixDialog.Content
          aria-describedby={undefined}
          className={`fixed overflow-y-auto border-rule bg-panel p-4 outline-none ${dress}`}
        >
          <div className="mb-3 flex items-center justify-between gap-3">
            <RadixDialog.Title className="text-lg font-bold">{title}</RadixDialog.Title>
            <RadixDialog.Close asChild>
              <Button look="quiet" keyCap="Esc" aria-label="Close">
                Close
              </Button>
            </RadixDialog.Close>
          </div>
          {children}
        </RadixDialog.Content>
      </RadixDialog.Portal>
    </RadixDialog.Root>
  );
}

const MIDDLE =
  "top-1/2 left-1/2 max-h-[90dvh] w-[calc(100vw-2rem)] max-w-md -translate-x-1/2 -translate-y-1/2 rounded-panel border";

export const Dialog = (props: DialogProps) => <Opened {...props} dress={MIDDLE} overlay="bg-[#0a0f0e]/35" />;

/** A dialog at the side: what it is about stays in sight. */
export const SideSheet = ({ isWide = false, ...props }: DialogProps & { isWide?: boolean }) => (
  <Opened
    {...props}
    dress={`inset-y-0 right-0 w-[calc(100vw-1rem)] border-l-2 !border-ink ${isWide ? "max-w-[38rem]" : "max-w-[29rem]"}`}
    overlay=""
  />
);
