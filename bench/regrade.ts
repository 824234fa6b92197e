import { execFileSync } from "node:child_process";
import pg from "pg";
import { report } from "./measure";
import { agent, dropped, post, started } from "./server";

const LANES = 1000;
const PORT = 4473;
const LOOKS_EVERY_MS = 50;

/**
 * Marking a thousand lanes again through the queue, against reading the same logs from the database and doing nothing
 * with them.
 */
export async function benchRegrade(): Promise<void> {
  const base = execFileSync("scripts/pg.sh", ["start"], {
    env: { ...process.env, PG_NAME: "test" },
    encoding: "utf8",
  }).trim();
  const name = `bench_regrade_${process.pid}`;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query(`create database ${name}`);
  const DATABASE_URL = base.replace(/[^/]*$/, name);
  const server = await started(["dist/server/main.js"], {
    DATABASE_URL,
    SESSION_SECRET: "bench bench bench bench bench bench bench",
    MIGRATIONS: "apps/server/db/migrations",
    NODE_ENV: "production",
    PORT: String(PORT),
  });
  const client = new pg.Client({ connectionString: DATABASE_URL });
  await client.connect();
  try {
    await client.query(`
      with source as (select a.* from attempts a join assignments s on s.id = a.assignment_id where s.place = 0 and a.handed_in_at is not null order by a.id limit 5),
           copies as (insert into attempts (id, assignment_id, student_id, number, opened_at, handed_in_at)
             select gen_random_uuid(), assignment_id, student_id, 1000 + n, opened_at, handed_in_at from source, generate_series(1, ${LANES / 5}) n returning id, student_id)
      insert into lane_events (attempt_id, seq, at, actor_id, writer, client_seq, event)
        select copies.id, e.seq, e.at, e.actor_id, e.writer, e.client_seq, e.event from copies join source on source.student_id = copies.student_id join lane_events e on e.attempt_id = source.id`);
    const {
      rows: [assignment],
    } = await client.query<{ id: string }>("select id from assignments where place = 0");
    const {
      rows: [entries],
    } = await client.query<{ n: string }>(
      "select count(*) n from lane_events e join attempts a on a.id = e.attempt_id where a.number > 1000",
    );
    const { rows: lanes } = await client.query<{ id: string }>(
      "select id from attempts where assignment_id = $1 and handed_in_at is not null",
      [assignment?.id],
    );
    const readStart = performance.now();
    for (const { id } of lanes)
      await client.query("select seq, at, event from lane_events where attempt_id = $1 order by seq", [id]);
    const readMs = performance.now() - readStart;
    const { cookie } = await post(PORT, "/api/session", { login: "marrow", password: "fernhollow" });
    const {
      rows: [marking],
    } = await client.query<{ body: Record<string, unknown> }>(
      "select body from marking_revisions m join assignments s using (exercise_id, exercise_version) where s.id = $1 order by revision desc limit 1",
      [assignment?.id],
    );
    const { revision: _revision, ...draft } = marking?.body ?? {};
    const start = performance.now();
    const reply = await post(
      PORT,
      `/api/assignments/${assignment?.id}/marking`,
      { ...draft, zeroAtMultiple: 6 },
      cookie,
    );
    if (reply.status !== 202) throw new Error(`regrade: ${reply.status} ${reply.text}`);
    for (let isDone = false; !isDone;) {
      await new Promise((resolve) => setTimeout(resolve, LOOKS_EVERY_MS));
      const { rows } = await client.query<{ finished_at: Date | null }>("select finished_at from regrades");
      isDone = rows[0]?.finished_at != null;
    }
    const ms = performance.now() - start;
    report(
      `marking ${lanes.length} lanes again`,
      `${(ms / 1000).toFixed(1)} s`,
      "goal < 10 s on 2 cores",
      `${(ms / readMs).toFixed(1)} × reading their ${entries?.n} entries`,
    );
  } finally {
    server.removeAllListeners("exit");
    server.kill("SIGKILL");
    await client.end();
    await dropped(admin, name);
    await admin.end();
    agent.destroy();
  }
}
