import { randomInt } from "node:crypto";
import {
  isOddName,
  isWeakPassword,
  type ClassView,
  type Joined,
  type JoinRequest,
  type RosterColumns,
  type RosterLine,
  type RosterPreview,
  type RosterRequest,
} from "@probe-lane/contract";
import { isUniqueViolation } from "../../db/client";
import { HttpError } from "../../errors";
import type { Actor } from "../../guards";
import { hashPassword, isPassword } from "../../passwords";
import { beginsWithHeadings, columnsBy, columnsProblem, headingsKey, withoutTitle } from "./columns";
import { MOST_LINES, readRoster, type RosterRow } from "./readRoster";
import { readTable } from "./readTable";
import type { RosterTable } from "./rosterTable";
import type { ClassStore } from "../classes/store";
import type { RosterStore } from "./store";

/** Letters and digits that cannot be taken for one another when read aloud or off a board. */
const CODE_LETTERS = "ACDEFHJKLMNPRTUVWXY3479";
const CODE_LENGTH = 8;

export const newJoinCode = (): string =>
  Array.from({ length: CODE_LENGTH }, () => CODE_LETTERS[randomInt(CODE_LETTERS.length)]).join("");

export async function classView(store: RosterStore, classes: ClassStore, actor: Actor): Promise<ClassView> {
  const { classId } = actor;
  const [code, open, students, staff, invitations] = await Promise.all([
    store.codeOf(classId),
    classes.classOf(classId),
    store.students(classId),
    classes.staff(classId),
    classes.invitations(classId),
  ]);
  if (!open) throw new HttpError("notFound");
  return {
    className: open.name,
    policy: open.policy,
    term: open.term,
    isArchived: open.isArchived,
    staff: staff.map((one) => ({ ...one, isMe: one.id === actor.id })),
    invitations,
    joinCode: code,
    students: students.map(({ id, name, login, student_number, has_joined, own_code, lanes }) => ({
      id,
      name,
      login,
      number: student_number,
      hasJoined: has_joined,
      ownCode: own_code,
      lanes,
    })),
  };
}

/** A letter for a column that has no heading, as spreadsheets have it. */
const letter = (place: number): string => String.fromCharCode(65 + (place % 26));

interface Listed {
  readonly table: RosterTable;
  readonly headings: string[];
  readonly hasHeadings: boolean;
  /** By which the choice of columns is remembered. */
  readonly key: string;
  readonly columns: RosterColumns;
  readonly isRemembered: boolean;
}

/** What of a list is to be read how: the table, and the columns as chosen, remembered, or told by the headings. */
async function listed(
  store: RosterStore,
  actor: Actor,
  { list, columns: chosen, hasHeadings: said }: RosterRequest,
): Promise<Listed | { readonly problem: string }> {
  const read = await readTable(list.kind === "typed" ? list.text : Buffer.from(list.base64, "base64"));
  if ("problem" in read) return { problem: read.problem };
  const table = withoutTitle(read);
  const first = table.rows[0]?.cells;
  if (!first) return { problem: "There is nothing in that list." };
  const hasHeadings = said ?? beginsWithHeadings(table);
  const headings = first.map((cell, place) => (hasHeadings ? cell : `${letter(place)}: ${cell}`));
  const key = headingsKey(hasHeadings ? first : [`${first.length} columns`]);
  const remembered = chosen ? null : await store.columnsFor(actor.id, key);
  const columns = chosen ?? remembered ?? (hasHeadings ? columnsBy(first) : {});
  return { table, headings, hasHeadings, key, columns, isRemembered: remembered !== null };
}

type Holder = Awaited<ReturnType<RosterStore["holders"]>>[number];

/** A made sign-in name that nobody has: that of the same name in this class is theirs, else a number goes behind. */
function settled(rows: readonly RosterRow[], holders: ReadonlyMap<string, Holder>): RosterRow[] {
  const given = new Set(rows.flatMap(({ isLoginMade, login }) => (isLoginMade ? [] : [login])));
  return rows.map((row) => {
    if (!row.isLoginMade || row.problem !== null || row.left !== null) return row;
    const isFree = (login: string) => {
      const holder = holders.get(login);
      return !given.has(login) && (!holder || (holder.is_here && holder.name === row.name));
    };
    const login = [row.login, ...Array.from({ length: MOST_LINES }, (_, at) => `${row.login}${at + 2}`)].find(isFree);
    given.add(login ?? row.login);
    return { ...row, login: login ?? row.login };
  });
}

function lineOf({ line, login, name, number, problem, left }: RosterRow, holder: Holder | undefined): RosterLine {
  const row = { line, login, name, number };
  if (problem !== null) return { ...row, status: "bad", problem };
  if (left !== null) return { ...row, status: "left", problem: left };
  if (!holder) return { ...row, status: "new", problem: null };
  const isNumbered = holder.is_here && number !== "" && number !== holder.number;
  return { ...row, status: isNumbered ? "numbered" : "already", problem: null };
}

async function readList(store: RosterStore, actor: Actor, request: RosterRequest) {
  const read = await listed(store, actor, request);
  const nothing = { headings: [], hasHeadings: false, columns: {}, isRemembered: false, lines: [] };
  if ("problem" in read)
    return { preview: { ...nothing, problem: read.problem }, holders: new Map<string, Holder>(), key: "" };
  const { table, headings, hasHeadings, key, columns, isRemembered } = read;
  const rows = readRoster(table, columns, hasHeadings);
  const found = await store.holders(
    rows.map(({ login }) => login),
    actor.classId,
  );
  const holders = new Map(found.map((one) => [one.login, one]));
  const problem =
    columnsProblem(columns) ??
    (rows.length === 0 ? "There is nobody below the first line." : null) ??
    (rows.filter(({ left }) => left === null).length > MOST_LINES
      ? `A class has at most ${MOST_LINES} students: split the list.`
      : null);
  const lines = problem === null ? settled(rows, holders).map((row) => lineOf(row, holders.get(row.login))) : [];
  return { preview: { headings, hasHeadings, columns, isRemembered, lines, problem }, holders, key };
}

/** What a list would add, line by line; nothing is changed. */
export const previewRoster = async (store: RosterStore, actor: Actor, request: RosterRequest): Promise<RosterPreview> =>
  (await readList(store, actor, request)).preview;

/**
 * Adds the new ones of a list, all of them or, when a line is bad, nobody, and gives a student number to who has none
 * or another. They choose their passwords when they join. How its columns were read is remembered.
 */
export async function addRoster(
  store: RosterStore,
  actor: Actor,
  request: RosterRequest,
): Promise<{ added: number; numbered: number }> {
  const { preview, holders, key } = await readList(store, actor, request);
  const { lines, problem, columns } = preview;
  if (problem !== null || lines.some(({ status }) => status === "bad")) throw new HttpError("rosterUnreadable");
  const fresh = lines.filter(({ status }) => status === "new");
  const numbered = lines.filter(({ status }) => status === "numbered");
  if (fresh.length > 0)
    await store.add(
      actor.classId,
      fresh.map(({ login, name, number }) => ({
        login,
        name,
        studentNumber: number,
        passwordHash: null,
        ownCode: newJoinCode(),
      })),
    );
  await store.setNumbers(numbered.map(({ login, number }) => ({ id: holders.get(login)?.id ?? "", number })));
  await store.keepColumns(actor.id, key, columns);
  return { added: fresh.length, numbered: numbered.length };
}

/** Who has this place of the roster, by its own code; null where the code is none of those. */
async function placeOf(
  store: RosterStore,
  code: string,
  login: string,
): Promise<{ id: string; classId: string } | null> {
  const place = await store.byOwnCode(code);
  if (place && place.login !== login) throw new HttpError("ownCodeElsewhere");
  return place;
}

/** Whoever has an account, and types its password with a code, is let into that class with it. */
async function rejoin(
  { store, classes }: { store: RosterStore; classes: ClassStore },
  { id, passwordHash }: Held,
  { classId, invited, password }: { classId: string; invited: string | null; password: string },
): Promise<{ actor: Actor; did: Joined }> {
  const isTheirs = passwordHash !== null && (await isPassword(passwordHash, password));
  const held = await classes.roleIn(id, classId);
  if (!isTheirs || (held && !held.isRemoved)) throw new HttpError("loginTaken");
  const invitation = invited === null ? null : await store.takeInvitation(invited);
  if (invited !== null && !invitation) throw new HttpError("joinRefused");
  const role = invitation?.role ?? "student";
  await classes.admit(id, classId, role);
  return { actor: { id, role, classId }, did: held ? "cameBack" : "letIn" };
}

/**
 * Somebody new joins: a student takes a place of the roster by its own code, or makes a new one by the code of the
 * class; who was invited becomes what the invitation says. Nobody takes a place of the roster with the code that the
 * whole class knows.
 */
export async function join(
  store: RosterStore,
  classes: ClassStore,
  { code, login, name, password }: JoinRequest,
): Promise<{ actor: Actor; did: Joined }> {
  const typed = code.replace(/[\s-]/g, "").toUpperCase();
  const place = await placeOf(store, typed, login);
  const invited = place ? null : await store.invitation(typed);
  const classId = place?.classId ?? invited?.classId ?? (await store.classByCode(typed))?.id;
  if (classId === undefined) throw new HttpError("joinRefused");
  const existing = place ? null : await store.byLogin(login);
  if (existing && isOpenPlace(existing, classId)) throw new HttpError("ownCodeWanted");
  if (existing) return rejoin({ store, classes }, existing, { classId, invited: invited ? typed : null, password });
  if (isOddName(name)) throw new HttpError("nameOdd");
  if (isWeakPassword(password, login, name)) throw new HttpError("passwordWeak");
  const passwordHash = await hashPassword(password);
  // used up by the first who comes with it
  if (invited && !(await store.takeInvitation(typed))) throw new HttpError("joinRefused");
  const role = invited?.role ?? "student";
  try {
    const id = place
      ? await store.claim(place.id, passwordHash)
      : ((await store.add(classId, [{ login, name, passwordHash, ownCode: null }], role))[0] ?? null);
    if (id === null) throw new HttpError("loginTaken");
    return { actor: { id, role, classId }, did: place ? "tookPlace" : "madeNew" };
  } catch (error) {
    throw isUniqueViolation(error) ? new HttpError("loginTaken") : error;
  }
}

type Held = NonNullable<Awaited<ReturnType<RosterStore["byLogin"]>>>;
/** A place of the roster that nobody has taken yet. */
const isOpenPlace = (held: Held, classId: string): boolean =>
  held.passwordHash === null && held.role === "student" && held.classId === classId;
