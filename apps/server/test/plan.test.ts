import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type {
  LaneView,
  MarksView,
  Me,
  MyLanes,
  PlanChange,
  PlanView,
  RulingView,
  StartedLane,
  WallView,
} from "@probe-lane/contract";
import { closedBy, windowOf, type Planned } from "../areas/plan/window";
import { TestClient, testServer, type TestServer } from "./testServer";

const planned = (change: Partial<Planned> = {}): Planned => ({
  week: null,
  opensAt: null,
  dueAt: null,
  late: "taken",
  isGiven: true,
  startsOn: null,
  ...change,
});
const local = (...parts: [number, number, number, number?, number?]) => new Date(...parts);

describe("when an exercise may be begun", () => {
  it("a week opens on its first day and ends with its last minute, by the day of the first", () => {
    const third = planned({ week: 3, startsOn: "2026-12-01" });
    expect(windowOf(third)).toEqual({ opensAt: local(2026, 11, 15), dueAt: local(2026, 11, 21, 23, 59) });
    // over the end of a year, and of a February
    expect(windowOf(planned({ week: 5, startsOn: "2026-12-01" })).dueAt).toEqual(local(2027, 0, 4, 23, 59));
    expect(windowOf(planned({ week: 1, startsOn: "2028-02-28" })).dueAt).toEqual(local(2028, 2, 5, 23, 59));
  });
  it("a day of its own goes before its week, each by itself; without a first day a week says nothing", () => {
    const dueAt = local(2026, 11, 10, 18);
    expect(windowOf(planned({ week: 1, startsOn: "2026-12-01", dueAt }))).toEqual({
      opensAt: local(2026, 11, 1),
      dueAt,
    });
    expect(windowOf(planned({ week: 4, dueAt }))).toEqual({ opensAt: null, dueAt });
  });
  it("is before its opening, and after its end where late is refused", () => {
    const row = planned({ opensAt: local(2026, 11, 1, 8), dueAt: local(2026, 11, 2, 8) });
    expect(closedBy(row, local(2026, 11, 1, 7, 59))).toBe("notOpenYet");
    expect(closedBy(row, local(2026, 11, 1, 8))).toBeNull();
    expect(closedBy(row, local(2026, 11, 3))).toBeNull();
    expect(closedBy({ ...row, late: "refused" }, local(2026, 11, 2, 8))).toBeNull();
    expect(closedBy({ ...row, late: "refused" }, local(2026, 11, 2, 8, 1))).toBe("windowOver");
    expect(closedBy({ ...row, isGiven: false }, local(2026, 11, 1, 9))).toBe("notGiven");
  });
});

describe("the plan of a class", () => {
  let server: TestServer;
  let instructor: TestClient;
  let student: TestClient;
  beforeAll(async () => {
    server = await testServer();
    instructor = await new TestClient(server).signIn("marrow");
    student = await new TestClient(server).signIn("sorrel");
  });
  afterAll(() => server.close());

  const plan = async (): Promise<PlanView> => (await instructor.call<PlanView>("GET", "/plan")).body;
  const mine = async () => (await student.call<MyLanes>("GET", "/lanes")).body.assignments;
  const start = (id: string) => student.call("POST", `/assignments/${id}/lanes`, {});
  async function change(at: number, to: Partial<PlanChange>) {
    const { rows } = await plan();
    const row = rows[at];
    if (!row) throw new Error("no such row");
    const { id, week, opensAt, dueAt, late, attemptsAllowed, isCoachOn, isGiven, mustHaves } = row;
    const held = { week, opensAt, dueAt, late, attemptsAllowed, isCoachOn, isGiven, mustHaves };
    return { id, ...(await instructor.call("PUT", `/plan/${id}`, { ...held, ...to })) };
  }
  const HOUR_MS = 3_600_000;
  const inHours = (hours: number) => new Date(Date.now() + hours * HOUR_MS).toISOString();

  it("what is not open yet is seen and not begun; what is over is neither begun nor lost; what is not given is not there", async () => {
    const later = await change(2, { opensAt: inHours(48) });
    expect(later.status).toBe(204);
    expect((await mine()).find(({ id }) => id === later.id)?.opensAt).not.toBeNull();
    expect((await start(later.id)).body.error.code).toBe("notOpenYet");

    const open = await change(3, {});
    expect((await start(open.id)).status).toBe(201);
    await change(3, { dueAt: inHours(-1), late: "refused" });
    // what was begun in time goes on
    expect((await start(open.id)).status).toBe(201);
    const over = await change(4, { dueAt: inHours(-1), late: "refused" });
    expect((await start(over.id)).body.error.code).toBe("windowOver");
    expect((await mine()).find(({ id }) => id === over.id)?.closed).toBe("windowOver");
    await change(4, { late: "taken" });
    expect((await start(over.id)).status).toBe(201);

    const away = await change(5, { isGiven: false });
    expect((await mine()).some(({ id }) => id === away.id)).toBe(false);
    expect((await start(away.id)).body.error.code).toBe("notFound");
    // who has begun it keeps what was done
    await change(4, { isGiven: false });
    expect((await mine()).find(({ id }) => id === over.id)).toMatchObject({ closed: "notGiven" });
    await change(4, { isGiven: true, dueAt: null });
  });

  it("weeks follow the day that the first one begins on, and a copy of the plan has them without its days", async () => {
    const { id } = await change(6, { week: 2 });
    expect((await plan()).rows.find((row) => row.id === id)).toMatchObject({ week: 2, opens: null, due: null });
    const today = new Date();
    const day = (offset: number) => {
      const at = new Date(today.getFullYear(), today.getMonth(), today.getDate() + offset);
      return `${at.getFullYear()}-${String(at.getMonth() + 1).padStart(2, "0")}-${String(at.getDate()).padStart(2, "0")}`;
    };
    expect((await instructor.call("PUT", "/plan", { startsOn: day(0) })).status).toBe(204);
    expect((await start(id)).body.error.code).toBe("notOpenYet");
    await instructor.call("PUT", "/plan", { startsOn: day(-8) });
    expect((await start(id)).status).toBe(201);
    expect((await mine()).find((row) => row.id === id)).toMatchObject({ week: 2, opensAt: null, closed: null });
    for (const startsOn of ["2026-13-01", "yesterday", ""])
      expect((await instructor.call("PUT", "/plan", { startsOn })).status).toBe(400);

    await change(2, { opensAt: inHours(48) });
    const next = { name: "The next one", term: "", copiesPlan: true };
    const made = await instructor.call<{ id: string }>("POST", "/classes", next);
    const { classId: first } = (await instructor.call<Me>("GET", "/session")).body;
    const enter = (classId: string) => instructor.call("POST", "/session/class", { classId });
    await enter(made.body.id);
    const copied = await plan();
    expect(copied.startsOn).toBeNull();
    expect(copied.rows.filter(({ week }) => week === 2)).toHaveLength(1);
    expect(copied.rows.every(({ opensAt, dueAt }) => opensAt === null && dueAt === null)).toBe(true);
    // nothing of another class is changed from here
    expect((await instructor.call("PUT", `/plan/${id}`, { ...planChangeOf(copied), week: 9 })).status).toBe(404);
    expect((await instructor.call("POST", `/plan/${id}/try`, {})).status).toBe(404);
    await enter(first);
  });

  it("is put in order whole or not at all, and a window that is turned round changes nothing", async () => {
    const fresh = await new TestClient(server).signIn("marrow");
    const own = (await fresh.call<PlanView>("GET", "/plan")).body.rows.map(({ id }) => id);
    const turned = [own[1] ?? "", own[0] ?? "", ...own.slice(2)];
    expect((await fresh.call("PUT", "/plan/order", { ids: turned })).status).toBe(204);
    const read = async () => (await fresh.call<PlanView>("GET", "/plan")).body;
    expect((await read()).rows.map(({ id }) => id)).toEqual(turned);
    for (const ids of [turned.slice(1), [...turned.slice(1), turned[1] ?? ""]])
      expect((await fresh.call("PUT", "/plan/order", { ids })).body.error.code).toBe("planMoved");
    expect((await read()).rows.map(({ id }) => id)).toEqual(turned);
    const before = await read();
    const id = turned[0] ?? "";
    const asked = { ...planChangeOf(before), opensAt: inHours(5), dueAt: inHours(4) };
    expect((await fresh.call("PUT", `/plan/${id}`, asked)).body.error.code).toBe("windowTurned");
    expect(await read()).toEqual(before);
    for (const odd of [{ attemptsAllowed: 0 }, { attemptsAllowed: 2.5 }, { week: 0 }, { late: "perhaps" }])
      expect((await fresh.call("PUT", `/plan/${id}`, { ...planChangeOf(before), ...odd })).status).toBe(400);
  });

  const planChangeOf = ({ rows: [row] }: PlanView): PlanChange => {
    if (!row) throw new Error("no rows");
    const { week, opensAt, dueAt, late, attemptsAllowed, isCoachOn, isGiven, mustHaves } = row;
    return { week, opensAt, dueAt, late, attemptsAllowed, isCoachOn, isGiven, mustHaves };
  };

  it("an instructor tries what a student will see, as often as they like; it stands in no marks and on no wall", async () => {
    const fresh = await new TestClient(server).signIn("marrow");
    const { rows } = (await fresh.call<PlanView>("GET", "/plan")).body;
    const row = rows[7];
    if (!row) throw new Error("no such row");
    await fresh.call("PUT", `/plan/${row.id}`, { ...planChangeOf({ startsOn: null, rows: [row] }), isGiven: false });
    const { body, status } = await fresh.call<StartedLane>("POST", `/plan/${row.id}/try`, {});
    expect(status).toBe(201);
    const view = (await fresh.call<LaneView>("GET", `/lanes/${body.id}`)).body;
    expect(view).toMatchObject({ isMine: true, isReadOnly: false });
    // as a student sees it: nothing of the truth
    expect(JSON.stringify(view)).not.toContain('"seed"');
    expect(JSON.stringify(view)).not.toContain('"datumMm"');
    const commands = [
      { clientSeq: 1, command: { type: "home" } },
      { clientSeq: 2, command: { type: "handIn" } },
    ];
    const batch = { writer: crypto.randomUUID(), afterTurn: view.turn, commands };
    expect((await fresh.call("POST", `/lanes/${body.id}/commands`, batch)).status).toBe(200);
    expect((await fresh.call("GET", `/lanes/${body.id}/ruling`)).status).toBe(200);
    const marks = (await fresh.call<MarksView>("GET", "/marks")).body;
    expect(marks.students.some(({ name }) => name === view.lane.studentName)).toBe(false);
    const wall = (await fresh.call<WallView>("GET", "/wall")).body;
    expect(wall.rows.some(({ laneId }) => laneId === body.id)).toBe(false);
    expect((await fresh.call<PlanView>("GET", "/plan")).body.rows[7]?.lanes).toBe(row.lanes);
    // a student's lane is nobody's to work in but theirs
    const theirs = (await mine()).flatMap(({ attempts }) => attempts).find(({ handedInAt }) => handedInAt === null);
    expect((await fresh.call<LaneView>("GET", `/lanes/${theirs?.id}`)).body).toMatchObject({
      isMine: false,
      isReadOnly: true,
    });
    expect((await fresh.call("POST", `/lanes/${theirs?.id}/commands`, batch)).body.error.code).toBe("readOnly");
  });

  it("a class asks for its own over points: it is read beforehand, marked at the hand-in, and its own alone", async () => {
    const fresh = await new TestClient(server).signIn("marrow");
    const learner = await new TestClient(server).signIn("ashgrove");
    const { rows } = (await fresh.call<PlanView>("GET", "/plan")).body;
    // no program, and nobody to sign: neither can be missed
    const row = rows.find(
      ({ markedOn, canMiss, lanes, opens, isGiven }) =>
        !markedOn && lanes === 0 && opens === null && isGiven && !canMiss.includes("runsClear"),
    );
    if (!row) throw new Error("no such row");
    expect(row.canMiss).toEqual(["checked", "notDeep", "signsRight", "handsClear"]);
    const asks = async () =>
      (await learner.call<MyLanes>("GET", "/lanes")).body.assignments.find(({ id }) => id === row.id)?.mustHaves;
    expect(await asks()).toEqual([]);
    const handsInNothing = async () => {
      const { body } = await learner.call<StartedLane>("POST", `/assignments/${row.id}/lanes`, {});
      const view = (await learner.call<LaneView>("GET", `/lanes/${body.id}`)).body;
      const commands = [
        { clientSeq: 1, command: { type: "home" } },
        { clientSeq: 2, command: { type: "handIn" } },
      ];
      await learner.call("POST", `/lanes/${body.id}/commands`, {
        writer: crypto.randomUUID(),
        afterTurn: view.turn,
        commands,
      });
      return (await learner.call<RulingView>("GET", `/lanes/${body.id}/ruling`)).body.ruling;
    };
    expect((await handsInNothing()).notPassed).toBeUndefined();
    const mustHaves = {
      runsClear: true,
      checked: true,
      notDeep: false,
      signsRight: false,
      handsClear: true,
      signed: true,
      deepestMm: 1,
      capPercent: 25,
    };
    const held = planChangeOf({ startsOn: null, rows: [row] });
    expect((await fresh.call("PUT", `/plan/${row.id}`, { ...held, mustHaves })).status).toBe(204);
    // what the exercise cannot miss is not said to anybody
    expect(await asks()).toEqual(["checked", "handsClear"]);
    const ruling = await handsInNothing();
    expect(ruling.notPassed).toEqual({ missed: ["checked"], capPercent: 25 });
    expect(ruling.total).toBeLessThanOrEqual(25);
    const odd = { ...mustHaves, capPercent: 101 };
    expect((await fresh.call("PUT", `/plan/${row.id}`, { ...held, mustHaves: odd })).status).toBe(400);
    // the next term begins with it; a class that begins from the shelf does not
    const { classId } = (await fresh.call<Me>("GET", "/session")).body;
    for (const [copiesPlan, found] of [
      [true, mustHaves],
      [false, null],
    ] as const) {
      const made = await fresh.call<{ id: string }>("POST", "/classes", {
        name: `Of ${copiesPlan}`,
        term: "",
        copiesPlan,
      });
      await fresh.call("POST", "/session/class", { classId: made.body.id });
      const theirs = (await fresh.call<PlanView>("GET", "/plan")).body.rows.find(({ title }) => title === row.title);
      expect(theirs?.mustHaves).toEqual(found);
      await fresh.call("POST", "/session/class", { classId });
    }
  });
});
