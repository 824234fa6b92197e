import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type {
  MarkingDraft,
  MarkingView,
  MarksView,
  RegradePreview,
  RegradeProgress,
  RulingView,
  TrialView,
} from "@probe-lane/contract";
import { demoClass } from "../../../demo";
import { secondSchool, TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
let instructor: TestClient;
let assignment = "";
let draft: MarkingDraft;
/** The revision that came with the exercise. */
let shelf = 0;

const viewOf = async (): Promise<MarkingView> =>
  (await instructor.call<MarkingView>("GET", `/assignments/${assignment}/marking`)).body;

async function finished(): Promise<RegradeProgress> {
  for (let turn = 0; turn < 200; turn++) {
    const { regrade } = await viewOf();
    if (regrade?.finishedAt) return regrade;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("finished: the regrade did not end");
}

beforeAll(async () => {
  server = await testServer();
  instructor = await new TestClient(server).signIn("marrow");
  const { body } = await instructor.call<MarksView>("GET", "/marks");
  assignment = body.assignments[0]?.id ?? "";
  const [newest] = (await viewOf()).revisions;
  if (!newest) throw new Error("no marking");
  const { revision, ...rest } = newest;
  shelf = revision;
  draft = rest;
});
afterAll(() => server.close());

const trials = () => `/assignments/${assignment}/marking/trials`;
const trialOf = (id: string) => instructor.call<TrialView>("GET", `${trials()}/${id}`);

async function preview(by: MarkingDraft): Promise<RegradePreview["lanes"]> {
  const begun = await instructor.call<TrialView>("POST", trials(), by);
  expect(begun.status).toBe(202);
  for (let turn = 0; turn < 200; turn++) {
    const { body } = await trialOf(begun.body.id);
    if (body.preview) {
      expect(body.done).toBe(body.lanes);
      return body.preview.lanes;
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("preview: the trial did not end");
}

describe("marking again", () => {
  it("the same marking would change nobody", async () => {
    const lanes = await preview(draft);
    expect(lanes.length).toBeGreaterThanOrEqual(5);
    for (const { before, after } of lanes) expect(after).toBeCloseTo(before ?? NaN, 9);
  });

  it("marks each lane by what its own class asks for over points", async () => {
    const held = assignment;
    // one of its lanes turned a sign, and one did not
    const { body } = await instructor.call<MarksView>("GET", "/marks");
    assignment = body.assignments.find(({ title }) => title.startsWith("Roller bracket"))?.id ?? "";
    try {
      const [{ revision: _, ...own } = { revision: 0, ...draft }] = (await viewOf()).revisions;
      await server.pool.query("update assignments set must_haves = $1 where id = $2", [
        { signsRight: true, capPercent: 5 },
        assignment,
      ]);
      const lanes = await preview(own);
      const capped = lanes.filter(({ after, outOf }) => after <= outOf / 20);
      expect(capped.map(({ studentName }) => studentName)).toEqual(["Ysolde Tamblin"]);
      for (const { before, after } of lanes.filter((lane) => !capped.includes(lane))) expect(after).toBe(before);
      expect(lanes.length).toBeGreaterThan(1);
    } finally {
      assignment = held;
    }
  });

  it("a preview says who changes by how much, and stores nothing", async () => {
    const before = await viewOf();
    const lanes = await preview({ ...draft, weights: { ...draft.weights, values: draft.weights.values + 100 } });
    expect(lanes.some((lane) => lane.after > (lane.before ?? 0) + 1)).toBe(true);
    expect(await viewOf()).toEqual(before);
  });

  it("a trial that is given up is gone, ends no lane later than the one under way, and stores nothing", async () => {
    const before = await viewOf();
    const { body } = await instructor.call<TrialView>("POST", trials(), draft);
    expect((await instructor.call("DELETE", `${trials()}/${body.id}`)).status).toBe(204);
    expect((await trialOf(body.id)).status).toBe(404);
    const { rows } = await server.pool.query<{ finished_at: Date | null; cancelled_at: Date | null }>(
      "select finished_at, cancelled_at from marking_trials where id = $1",
      [body.id],
    );
    expect(rows[0]?.cancelled_at).not.toBeNull();
    expect(await viewOf()).toEqual(before);
  });

  it("runs to its end, keeps the earlier rulings beside the new ones, and leaves given marks as they are", async () => {
    const [first] = await preview(draft);
    const lane = first?.laneId ?? "";
    await instructor.call("POST", `/lanes/${lane}/overrides`, {
      strand: "method",
      marks: 1,
      reason: "seen at the bench",
    });
    const old = (await instructor.call<RulingView>("GET", `/lanes/${lane}/ruling`)).body;
    const stricter: MarkingDraft = { ...draft, weights: { ...draft.weights, safety: draft.weights.safety + 20 } };
    const expected = new Map((await preview(stricter)).map((one) => [one.laneId, one.after]));
    const begun = await instructor.call<RegradeProgress>("POST", `/assignments/${assignment}/marking`, stricter);
    expect(begun.status).toBe(202);
    const done = await finished();
    expect(done).toMatchObject({
      id: begun.body.id,
      lanes: expected.size,
      done: expected.size,
      by: "Corin Marrowfield",
    });
    const now = (await instructor.call<RulingView>("GET", `/lanes/${lane}/ruling`)).body;
    expect(now.ruling.markingRevision).toBe(old.ruling.markingRevision + 1);
    expect(now.earlier).toEqual([expect.objectContaining({ revision: old.ruling.markingRevision })]);
    expect(now.ruling.strands.find(({ name }) => name === "method")).toMatchObject({
      marks: 1,
      given: { reason: "seen at the bench" },
    });
    for (const [id, total] of expected) {
      const { rows } = await server.pool.query<{ total: number; marking_revision: number }>(
        "select total, marking_revision from rulings where attempt_id = $1 order by made_at",
        [id],
      );
      expect(rows).toHaveLength(2);
      expect(rows[1]?.total).toBeCloseTo(total, 9);
    }
  });

  it("a regrade that a dead process left half done is taken up by the next start, and nothing is marked twice", async () => {
    const { revisions, lanes } = await viewOf();
    const revision = (revisions[0]?.revision ?? 0) + 1;
    // as a process leaves it that was killed: the revision and the row stand, no job of ours runs
    const {
      rows: [key],
    } = await server.pool.query<{ exercise_id: string; exercise_version: number }>(
      "select exercise_id, exercise_version from assignments where id = $1",
      [assignment],
    );
    await server.pool.query(
      "insert into marking_revisions (exercise_id, exercise_version, school, revision, body) values ($1, $2, $3, $4, $5)",
      [key?.exercise_id, key?.exercise_version, SCHOOL, revision, { ...draft, revision }],
    );
    await server.pool.query(
      "insert into regrades (exercise_id, exercise_version, school, revision, by_name, lanes) values ($1, $2, $3, $4, 'nobody', $5)",
      [key?.exercise_id, key?.exercise_version, SCHOOL, revision, lanes],
    );
    expect((await viewOf()).regrade).toMatchObject({ revision, done: 0, finishedAt: null });
    const another = await server.another();
    try {
      expect(await finished()).toMatchObject({ revision, done: lanes });
      const { rows } = await server.pool.query<{ n: string }>(
        "select count(*) n from rulings where marking_revision = $1 and attempt_id in (select id from attempts where assignment_id = $2) group by attempt_id",
        [revision, assignment],
      );
      expect(rows).toHaveLength(lanes);
      expect(rows.every(({ n }) => Number(n) === 1)).toBe(true);
    } finally {
      await another.close();
    }
  });

  it("two instructors at once: one revision, the other is told", async () => {
    const both = await Promise.all(
      [1, 2].map((n) =>
        instructor.call("POST", `/assignments/${assignment}/marking`, { ...draft, zeroAtMultiple: 4 + n }),
      ),
    );
    const statuses = both.map(({ status }) => status).sort((a, b) => a - b);
    // when they did not meet, they are two revisions one after the other
    expect([
      [202, 202],
      [202, 409],
    ]).toContainEqual(statuses);
    await finished();
    const { revisions } = await viewOf();
    expect(new Set(revisions.map(({ revision }) => revision)).size).toBe(revisions.length);
  });

  it("of another school changes nothing here: neither marking nor rulings nor what is shown of it", async () => {
    const second = await secondSchool(server, assignment);
    const before = await viewOf();
    const rulingsBefore = await count("select count(*) n from rulings");
    const theirs = await second.instructor.call<MarkingView>("GET", `/assignments/${second.assignment}/marking`);
    // they mark by what came with the exercise, and see nothing of what was made of it here
    expect(theirs.body.revisions.map(({ revision }) => revision)).toEqual([shelf]);
    expect(theirs.body.regrade).toBeNull();
    const begun = await second.instructor.call<RegradeProgress>("POST", `/assignments/${second.assignment}/marking`, {
      ...draft,
      zeroAtMultiple: 9,
    });
    expect([begun.status, begun.body.lanes, begun.body.revision]).toEqual([202, 0, shelf + 1]);
    // an assignment of ours is nobody's there
    expect((await second.instructor.call("POST", `/assignments/${assignment}/marking`, draft)).status).toBe(404);
    const ours = await one("select attempt_id id from rulings limit 1");
    expect((await second.instructor.call("GET", `/lanes/${ours}/ruling`)).status).toBe(404);
    expect(await count("select count(*) n from rulings")).toBe(rulingsBefore);
    expect(await viewOf()).toEqual(before);
  });
});

const SCHOOL = demoClass.school;
const count = async (query: string): Promise<number> =>
  Number((await server.pool.query<{ n: string }>(query)).rows[0]?.n ?? -1);

const one = async (query: string, values: unknown[] = []): Promise<string> =>
  (await server.pool.query<{ id: string }>(query, values)).rows[0]?.id ?? "";
