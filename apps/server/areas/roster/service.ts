import { randomInt } from "node:crypto";
import { isOddName, isWeakPassword, type ClassView, type JoinRequest, type RosterPreview } from "@probe-lane/contract";
import { isUniqueViolation } from "../../db/client";
import { HttpError } from "../../errors";
import type { Actor } from "../../guards";
import { hashPassword } from "../../passwords";
import { readRoster } from "./readRoster";
import type { RosterStore } from "./store";

/** Letters and digits that cannot be taken for one another when read aloud or off a board. */
const CODE_LETTERS = "ACDEFHJKLMNPRTUVWXY3479";
const CODE_LENGTH = 8;

export const newJoinCode = (): string =>
  Array.from({ length: CODE_LENGTH }, () => CODE_LETTERS[randomInt(CODE_LETTERS.length)]).join("");

export async function classView(store: RosterStore, actor: Actor): Promise<ClassView> {
  const [held, students] = await Promise.all([store.classOf(actor.classId), store.students(actor.classId)]);
  if (!held) throw new HttpError("notFound");
  return {
    className: held.name,
    joinCode: held.joinCode,
    students: students.map(({ id, name, login, has_joined, lanes }) => ({
      id,
      name,
      login,
      hasJoined: has_joined,
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
      fresh.map(({ login, name }) => ({ login, name, passwordHash: null })),
    );
  return { added: fresh.length };
}

/** A student joins: claims the place of the roster under that sign-in name, or makes a new one. */
export async function join(store: RosterStore, { code, login, name, password }: JoinRequest): Promise<Actor> {
  const joined = await store.classByCode(code.replace(/[\s-]/g, "").toUpperCase());
  if (!joined) throw new HttpError("joinRefused");
  const existing = await store.byLogin(login);
  if (existing && (existing.passwordHash !== null || existing.role !== "student" || existing.classId !== joined.id))
    throw new HttpError("loginTaken");
  if (isOddName(name)) throw new HttpError("nameOdd");
  if (isWeakPassword(password, login, name)) throw new HttpError("passwordWeak");
  const passwordHash = await hashPassword(password);
  try {
    const id = existing
      ? (await store.claim(existing.id, passwordHash))
        ? existing.id
        : null
      : ((await store.add(joined.id, [{ login, name, passwordHash }]))[0] ?? null);
    if (id === null) throw new HttpError("loginTaken");
    return { id, role: "student", classId: joined.id };
  } catch (error) {
    throw isUniqueViolation(error) ? new HttpError("loginTaken") : error;
  }
}
