import { randomInt } from "node:crypto";
import { isOddName, isWeakPassword, type ClassView, type JoinRequest, type RosterPreview } from "@probe-lane/contract";
import { isUniqueViolation } from "../../db/client";
import { HttpError } from "../../errors";
import type { Actor } from "../../guards";
import { hashPassword, isPassword } from "../../passwords";
import { readRoster } from "./readRoster";
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
    term: open.term,
    isArchived: open.isArchived,
    staff: staff.map((one) => ({ ...one, isMe: one.id === actor.id })),
    invitations,
    joinCode: code,
    students: students.map(({ id, name, login, has_joined, own_code, lanes }) => ({
      id,
      name,
      login,
      hasJoined: has_joined,
      ownCode: own_code,
      lanes,
    })),
  };
}

/** What a roster would add, line by line; nothing is changed. */
export async function previewRoster(store: RosterStore, csv: string): Promise<RosterPreview> {
  const rows = readRoster(csv);
  const taken = await store.takenLogins(rows.map(({ login }) => login));
  return {
    lines: rows.map(({ problem, ...row }) => ({
      ...row,
      problem,
      status: problem !== null ? "bad" : taken.has(row.login) ? "already" : "new",
    })),
  };
}

/**
 * Adds the new ones of a roster, all of them or, when a line is bad, nobody. They choose their passwords when they
 * join.
 */
export async function addRoster(store: RosterStore, actor: Actor, csv: string): Promise<{ added: number }> {
  const { lines } = await previewRoster(store, csv);
  if (lines.some(({ status }) => status === "bad")) throw new HttpError("rosterUnreadable");
  const fresh = lines.filter(({ status }) => status === "new");
  if (fresh.length > 0)
    await store.add(
      actor.classId,
      fresh.map(({ login, name }) => ({ login, name, passwordHash: null, ownCode: newJoinCode() })),
    );
  return { added: fresh.length };
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
): Promise<Actor> {
  const isTheirs = passwordHash !== null && (await isPassword(passwordHash, password));
  const held = await classes.roleIn(id, classId);
  if (!isTheirs || (held && !held.isRemoved)) throw new HttpError("loginTaken");
  const invitation = invited === null ? null : await store.takeInvitation(invited);
  if (invited !== null && !invitation) throw new HttpError("joinRefused");
  const role = invitation?.role ?? "student";
  await classes.admit(id, classId, role);
  return { id, role, classId };
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
): Promise<Actor> {
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
    return { id, role, classId };
  } catch (error) {
    throw isUniqueViolation(error) ? new HttpError("loginTaken") : error;
  }
}

type Held = NonNullable<Awaited<ReturnType<RosterStore["byLogin"]>>>;
/** A place of the roster that nobody has taken yet. */
const isOpenPlace = (held: Held, classId: string): boolean =>
  held.passwordHash === null && held.role === "student" && held.classId === classId;
