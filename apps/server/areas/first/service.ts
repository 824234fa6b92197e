import { timingSafeEqual } from "node:crypto";
import { isOddName, isWeakPassword, type FirstRequest } from "@probe-lane/contract";
import { isUniqueViolation } from "../../db/client";
import { HttpError } from "../../errors";
import type { Actor } from "../../guards";
import { hashPassword } from "../../passwords";
import { DEMO_SCHOOL } from "../../shelf";
import { newJoinCode } from "../roster/service";
import type { FirstStore } from "./store";

/** The first instructor of an empty school, who is asked for once, with a code that only the terminal shows. */
export class FirstInstructor {
  private isAsked: boolean;
  constructor(
    private readonly store: FirstStore,
    /** Null where nobody is asked for. */
    private readonly code: string | null,
    private readonly now: () => Date,
  ) {
    this.isAsked = code !== null;
  }

  get isOpen(): boolean {
    return this.isAsked;
  }

  private isCode(typed: string): boolean {
    const own = Buffer.from(this.code ?? "");
    const told = Buffer.from(typed.replace(/[\s-]/g, "").toUpperCase());
    return own.length > 0 && own.length === told.length && timingSafeEqual(own, told);
  }

  async begin({ code, login, name, password, schoolName, className }: FirstRequest): Promise<Actor> {
    if (!this.isAsked) throw new HttpError("firstIsThere");
    if (!this.isCode(code)) throw new HttpError("firstCodeWrong");
    if (schoolName === DEMO_SCHOOL) throw new HttpError("schoolOfDemo");
    if ([name, schoolName, className].some(isOddName)) throw new HttpError("nameOdd");
    if (isWeakPassword(password, login, name)) throw new HttpError("passwordWeak");
    if (await this.store.isTaken(login)) throw new HttpError("loginTaken");
    const person = { login, name, passwordHash: await hashPassword(password) };
    const held = { schoolName, className, joinCode: newJoinCode() };
    try {
      const made = await this.store.begin(person, held, this.now());
      this.isAsked = false;
      if (!made) throw new HttpError("firstIsThere");
      return { ...made, role: "instructor" };
    } catch (error) {
      throw isUniqueViolation(error) ? new HttpError("loginTaken") : error;
    }
  }
}
