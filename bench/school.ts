import { execFileSync } from "node:child_process";
import { request } from "node:http";
import pg from "pg";
import { quantile, report } from "./measure";
import { agent, dropped, got, post, started } from "./server";

const PORT = 4474;
const [STUDENTS, ASSIGNMENTS, STORED, AT_WORK, CLICKS] = [200, 40, 100_000, 40, 60];

async function timed(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** A class of two hundred with forty assignments, every one of them handed in and ruled, like a lane of the demo. */
const CROWD = `
  with target as (select a.*, s.class_id from attempts a join assignments s on s.id = a.assignment_id
         join rulings r on r.attempt_id = a.id where a.handed_in_at is not null order by a.id limit 1),
       chosen as (select s.id, row_number() over (order by place) as n from assignments s, target where s.class_id = target.class_id limit ${ASSIGNMENTS}),
       people as (insert into users (login, name) select 'crowd' || n, 'Crowd Member ' || n from generate_series(1, ${STUDENTS}) n returning id),
       members as (insert into memberships (class_id, user_id, role) select target.class_id, people.id, 'student' from people, target),
       made as (insert into attempts (id, assignment_id, student_id, number, opened_at, handed_in_at)
         select gen_random_uuid(), chosen.id, people.id, 1, target.opened_at, target.handed_in_at from people, chosen, target returning id)
  insert into rulings (attempt_id, version, marking_revision, total, body)
    select made.id, r.version, r.marking_revision, r.total, r.body from made, target join lateral
      (select * from rulings where attempt_id = target.id order by made_at desc limit 1) r on true`;

/** So many more students of the demo's class, with its password. */
const WORKERS = `
  with people as (insert into users (login, name, password_hash)
         select 'worker' || n, 'Worker ' || n, u.password_hash from users u, generate_series(1, ${AT_WORK}) n
         where u.login = 'marrow' returning id)
  insert into memberships (class_id, user_id, role)
    select m.class_id, people.id, 'student' from people, memberships m join users u on u.id = m.user_id where u.login = 'marrow'`;

/** Lanes of years before, of a class that is archived: their first entry alone. */
const YEARS = `
  with source as (select e.* from lane_events e where e.seq = 1 limit 1),
       old as (insert into classes (name, school_name, archived_at) values ('Years ago', 'Fernhollow Instrument School', now()) returning id),
       one as (insert into assignments (class_id, exercise_id, exercise_version, place, is_coach_on, attempts_allowed)
         select old.id, s.exercise_id, s.exercise_version, 0, false, 5 from old, assignments s limit 1 returning id),
       people as (select id from users where login = 'sorrel'),
       made as (insert into attempts (id, assignment_id, student_id, number, opened_at)
         select gen_random_uuid(), one.id, people.id, n, now() from one, people, generate_series(1, ${STORED}) n returning id, student_id)
  insert into lane_events (attempt_id, seq, at, actor_id, writer, client_seq, event)
    select made.id, 1, source.at, made.student_id, source.writer, 0, source.event from made, source`;

/** Marks of a large class, how soon the wall hears of a click while forty work, and a start with many lanes stored. */
export async function benchSchool(): Promise<void> {
  const base = execFileSync("scripts/pg.sh", ["start"], {
    env: { ...process.env, PG_NAME: "test" },
    encoding: "utf8",
  }).trim();
  const name = `bench_school_${process.pid}`;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query(`create database ${name}`);
  const env = {
    DATABASE_URL: base.replace(/[^/]*$/, name),
    SESSION_SECRET: "bench bench bench bench bench bench bench",
    MIGRATIONS: "apps/server/db/migrations",
    NODE_ENV: "production",
    PORT: String(PORT),
  };
  const start = () => started(["dist/server/main.js"], env);
  let server = await start();
  const client = new pg.Client({ connectionString: env.DATABASE_URL });
  await client.connect();
  const stop = () => {
    server.removeAllListeners("exit");
    server.kill("SIGKILL");
  };
  try {
    const { cookie } = await post(PORT, "/api/session", { login: "marrow", password: "fernhollow" });
    await wall(client, cookie);
    await client.query(CROWD);
    await client.query("analyze");
    await got(PORT, "/api/marks", cookie);
    const marksMs = await timed(() => got(PORT, "/api/marks", cookie));
    const bareMs = await timed(() => client.query("select attempt_id, total from rulings"));
    const cells = STUDENTS * ASSIGNMENTS;
    report(
      `marks of ${cells} lanes`,
      `${marksMs.toFixed(0)} ms`,
      "goal < 1000 ms",
      `${(marksMs / bareMs).toFixed(1)} × reading their totals alone`,
    );
    stop();
    const fewMs = await timed(async () => (server = await start()));
    stop();
    await client.query(YEARS);
    await client.query("analyze");
    const manyMs = await timed(async () => (server = await start()));
    report(
      `start with ${STORED} lanes more`,
      `${(manyMs / 1000).toFixed(1)} s`,
      "goal < 10 s",
      `${(manyMs / fewMs).toFixed(2)} × a start with ${cells}`,
    );
  } finally {
    stop();
    await client.end();
    await dropped(admin, name);
    await admin.end();
    agent.destroy();
  }
}

/** Forty students click; from the answer to a click of one to the word of it on the instructor's stream. */
async function wall(client: pg.Client, cookie: string): Promise<void> {
  const { rows: assignments } = await client.query<{ id: string }>("select id from assignments order by place limit 1");
  await client.query(WORKERS);
  const lanes = await Promise.all(
    Array.from({ length: AT_WORK }, async (_, at) => {
      const own = (await post(PORT, "/api/session", { login: `worker${at + 1}`, password: "fernhollow" })).cookie;
      const made = await post(PORT, `/api/assignments/${assignments[0]?.id}/lanes`, {}, own);
      return { id: (JSON.parse(made.text) as { id: string }).id, own, turn: 1, seq: 0 };
    }),
  );
  const heard = new Map<string, () => void>();
  const stream = request({ port: PORT, host: "127.0.0.1", path: "/api/wall/stream", headers: { cookie } }, (reply) =>
    reply.on("data", (chunk: Buffer) => {
      for (const [, id = ""] of chunk.toString().matchAll(/data: (\S+)/g)) heard.get(id)?.();
    }),
  );
  stream.end();
  await new Promise((resolve) => stream.once("response", resolve));
  const click = async (lane: (typeof lanes)[number]) => {
    const command =
      lane.seq === 0 ? { type: "home" } : { type: "jog", axis: "x", direction: -1, clicks: 1, size: "coarse" };
    const reply = await post(
      PORT,
      `/api/lanes/${lane.id}/commands`,
      { writer: lane.id, afterTurn: lane.turn, commands: [{ clientSeq: ++lane.seq, command }] },
      lane.own,
    );
    if (reply.status !== 200) throw new Error(`a click of the crowd: ${reply.status} ${reply.text}`);
    lane.turn = (JSON.parse(reply.text) as { turn: number }).turn;
  };
  const [soon, whole]: [number[], number[]] = [[], []];
  for (let turn = 0; turn < CLICKS; turn++) {
    const watched = lanes[turn % lanes.length];
    if (!watched) break;
    const start = performance.now();
    const word = new Promise<number>((resolve) => heard.set(watched.id, () => resolve(performance.now() - start)));
    await Promise.all(lanes.map(click));
    soon.push(await word);
    heard.delete(watched.id);
    whole.push((await word) + (await timed(() => got(PORT, "/api/wall", cookie))));
  }
  stream.destroy();
  report(
    `wall, ${AT_WORK} lanes clicking at once`,
    `p95 ${quantile(whole, 0.95).toFixed(0)} ms`,
    "goal < 500 ms",
    `${(quantile(whole, 0.95) / quantile(soon, 0.95)).toFixed(1)} × the word of it alone`,
  );
}
