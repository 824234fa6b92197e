import { unzipSync } from "fflate";
import type { RosterTable } from "./rosterTable";

/** A packed folder of lists: the people, and, apart from them, what each is at the school. */
export interface Package {
  readonly users: Buffer;
  readonly roles: Buffer | null;
}

/** Far more than any school's list; what claims to be longer is not unpacked. */
const LONGEST_BYTES = 16_000_000;

const baseName = (path: string): string => path.slice(path.lastIndexOf("/") + 1).toLowerCase();

/** The lists of a package in the OneRoster format; null where there is none in it. Throws where it is no package. */
export function openPackage(bytes: Buffer): Package | null {
  const files = unzipSync(bytes, {
    filter: ({ name, originalSize }) =>
      ["users.csv", "roles.csv"].includes(baseName(name)) && originalSize <= LONGEST_BYTES,
  });
  const file = (wanted: string): Buffer | null => {
    const found = Object.entries(files).find(([name]) => baseName(name) === wanted)?.[1];
    return found ? Buffer.from(found) : null;
  };
  const users = file("users.csv");
  return users && { users, roles: file("roles.csv") };
}

const columnOf = ({ rows }: RosterTable, heading: string): number =>
  rows[0]?.cells.findIndex((cell) => cell.toLowerCase() === heading) ?? -1;

/** What everybody is, by the list of roles: "student" where that is one of them, and none that was taken back. */
function rolesById(roles: RosterTable): ReadonlyMap<string, string> {
  const [user, role, status] = ["usersourcedid", "role", "status"].map((heading) => columnOf(roles, heading));
  const held = new Map<string, string>();
  for (const { cells } of roles.rows.slice(1)) {
    const id = cells[user ?? -1] ?? "";
    if (id === "" || /^tobedeleted$/i.test(cells[status ?? -1] ?? "")) continue;
    if (held.get(id) !== "student") held.set(id, cells[role ?? -1] ?? "");
  }
  return held;
}

/** Who is nothing at the school any more, in the words of a list. */
const NO_ROLE = "without a role";

/**
 * The list of people with what the list of roles says of each, in a column of its own or over the one that stands
 * there; who may not sign in at the school is not active. A row may end before its headings do.
 */
export function withRoles(users: RosterTable, roles: RosterTable | null): RosterTable {
  const [id, enabled, status] = ["sourcedid", "enableduser", "status"].map((heading) => columnOf(users, heading));
  const held = roles && rolesById(roles);
  const width = users.rows[0]?.cells.length ?? 0;
  const own = columnOf(users, "role");
  const rolePlace = own === -1 ? width : own;
  const rows = users.rows.map(({ line, cells }, at) => {
    const isOff = at > 0 && /^false$/i.test(cells[enabled ?? -1] ?? "");
    const stated = isOff ? cells.map((cell, place) => (place === status ? "inactive" : cell)) : cells;
    if (!held) return { line, cells: stated };
    const role = at === 0 ? "role" : (held.get(cells[id ?? -1] ?? "") ?? NO_ROLE);
    const cellAt = (place: number) => (place === rolePlace ? role : (stated[place] ?? ""));
    return { line, cells: Array.from({ length: Math.max(width, rolePlace + 1) }, (_, place) => cellAt(place)) };
  });
  return { rows };
}
