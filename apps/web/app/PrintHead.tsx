import { format } from "date-fns";
import { useMe } from "./session";

/** What a printed page says above itself: of whom and of what it is, and where somebody signs. Not on the screen. */
export function PrintHead({ title, facts }: { title: string; facts: readonly (readonly [string, string])[] }) {
  const { me } = useMe();
  const all = [
    ["School", me?.schoolName ?? ""],
    ["Class", me?.className ?? ""],
    ...facts,
    ["Printed", format(new Date(), "d MMMM yyyy")],
  ] as const;
  return (
    <div className="hidden print:block">
      <h1 className="text-xl font-bold">{title}</h1>
      <dl className="mt-2 grid grid-cols-[auto_1fr_auto_1fr] gap-x-4 gap-y-0.5">
        {all.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-ink2">{name}</dt>
            <dd className="font-bold">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-6 mb-4 flex gap-10">
        <span className="flex-1 border-t border-ink pt-1 text-xs">Instructor: name, title, signature</span>
        <span className="w-48 border-t border-ink pt-1 text-xs">Date</span>
      </p>
    </div>
  );
}
