import { isWeakPassword, type PasswordRequest } from "@probe-lane/contract";
import { HttpError } from "../../errors";
import type { Actor } from "../../guards";
import { hashPassword, isPassword } from "../../passwords";
import type { AuthStore } from "./store";

let decoy: Promise<string> | undefined;

/** Who a login and password belong to. An unknown login costs the same time as a wrong password. */
export async function signIn(store: AuthStore, login: string, password: string): Promise<Actor> {
  const found = await store.byLogin(login.trim().toLowerCase());
  decoy ??= hashPassword("no account has this password");
  const isRight = await isPassword(found?.passwordHash ?? (await decoy), password);
  // an account that nobody has joined yet has no password, and none fits it
  if (!found || found.passwordHash === null || !isRight) throw new HttpError("wrongCredentials");
  return { id: found.id, role: found.role, classId: found.classId };
}

/**
 * Another password for whoever is signed in, if they know the one they have. Everywhere else they are signed out;
 * `session` stays.
 */
export async function changePassword(
  store: AuthStore,
  userId: string,
  session: string,
  { current, next }: PasswordRequest,
): Promise<void> {
  const found = await store.byId(userId);
  if (!found?.passwordHash || !(await isPassword(found.passwordHash, current))) throw new HttpError("passwordWrong");
  if (isWeakPassword(next, found.login, found.name)) throw new HttpError("passwordWeak");
  await store.setPassword(userId, await hashPassword(next), session);
}
