import { execFileSync, spawn } from "node:child_process";
import { Agent, request } from "node:http";
import pg from "pg";
import { millLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../demo";
import { quantile, report } from "./measure";

const LANES = 40;
const PER_SECOND = 10;
const SECONDS = 8;
const WARM_SECONDS = 2;
const [SERVER_PORT, BARE_PORT] = [4471, 4472];
export const agent = new Agent({ keepAlive: true, maxSockets: LANES });

interface Answer {
  status: number;
  text: string;
  cookie: string;
}

export function post(port: number, path: string, body: unknown, cookie = ""): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const data = JSON.stringify(body);
    const call = request(
      {
        port,
        host: "127.0.0.1",
        path,
        method: "POST",
        agent,
        headers: { "content-type": "application/json", "content-length": Buffer.byteLength(data), cookie },
      },
      (reply) => {
        let text = "";
        reply.on("data", (chunk: Buffer) => (text += chunk.toString()));
        reply.on("end", () =>
          resolve({
            status: reply.statusCode ?? 0,
            text,
            cookie: reply.headers["set-cookie"]?.find((one) => one.startsWith("probe-lane="))?.split(";")[0] ?? cookie,
          }),
        );
      },
    );
    call.on("error", reject);
    call.end(data);
  });
}

/** The text of an address, by a session. */
export const got = (port: number, path: string, cookie: string): Promise<string> =>
  new Promise((resolve, reject) => {
    const call = request({ port, host: "127.0.0.1", path, agent, headers: { cookie } }, (reply) => {
      let text = "";
      reply.on("data", (chunk: Buffer) => (text += chunk.toString()));
      reply.on("end", () => resolve(text));
    });
    call.on("error", reject);
    call.end();
  });

export async function started(command: string[], env: Record<string, string>) {
  const child = spawn("node", command, { env: { ...process.env, ...env }, stdio: ["ignore", "pipe", "inherit"] });
  await new Promise<void>((resolve, reject) => {
    child.stdout.on("data", (chunk: Buffer) => chunk.toString().includes("is open at") && resolve());
    child.on("exit", (code) => reject(new Error(`bench server ended with ${code}`)));
  });
  return child;
}

/** What PostgreSQL says while its own housekeeping is in a database: only the superuser may send that away. */
const BUSY = "42501";
/** Drops a database once the housekeeping has left it. */
export async function dropped(admin: pg.Client, name: string): Promise<void> {
  for (let turn = 1; ; turn++) {
    try {
      await admin.query(`drop database ${name} with (force)`);
      return;
    } catch (error) {
      if ((error as { code?: string }).code !== BUSY || turn > 100) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}

/** As fast as answers come, from so many clients at once, for so long: answers a second. */
async function saturate(clients: number, seconds: number, one: (client: number) => Promise<void>): Promise<number> {
  const end = performance.now() + seconds * 1000;
  let answers = 0;
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      while (performance.now() < end) {
        await one(client);
        answers += 1;
      }
    }),
  );
  return answers / seconds;
}

/** Every client at its own steady pace, spread over the second: how long each answer took, ms. */
export async function paced(
  clients: number,
  perSecond: number,
  seconds: number,
  one: (client: number) => Promise<void>,
): Promise<number[]> {
  const times: number[] = [];
  const begin = performance.now();
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      for (let turn = 0; turn < perSecond * seconds; turn++) {
        const due = begin + (turn * 1000) / perSecond + (client * 1000) / perSecond / clients;
        await new Promise((resolve) => setTimeout(resolve, Math.max(0, due - performance.now())));
        const start = performance.now();
        await one(client);
        times.push(performance.now() - start);
      }
    }),
  );
  return times;
}

/**
 * Jog batches against a bare Express handler with one INSERT: rate at saturation, and p95 at a class's pace. Needs `npm
 * run build:server`.
 */
export async function benchServer(): Promise<void> {
  const base = execFileSync("scripts/pg.sh", ["start"], {
    env: { ...process.env, PG_NAME: "test" },
    encoding: "utf8",
  }).trim();
  const name = `bench_${process.pid}`;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query(`create database ${name}`);
  const DATABASE_URL = base.replace(/[^/]*$/, name);
  const env = {
    DATABASE_URL,
    SESSION_SECRET: "bench bench bench bench bench bench bench",
    MIGRATIONS: "apps/server/db/migrations",
    NODE_ENV: "production",
  };
  const server = await started(["dist/server/main.js"], { ...env, PORT: String(SERVER_PORT) });
  const bare = await started(["--import", "tsx", "bench/bareExpress.ts"], { ...env, PORT: String(BARE_PORT) });
  try {
    const opened = await openLanes(DATABASE_URL, SERVER_PORT, LANES + 1);
    const [prover, ...lanes] = opened.reverse();
    if (!prover) throw new Error("no lane to prove on");
    const jog = async (client: number): Promise<void> => {
      const lane = lanes[client % lanes.length];
      if (!lane) throw new Error("no lane");
      lane.clientSeq += 1;
      const body = {
        writer: lane.writer,
        afterTurn: lane.turn,
        commands: [
          {
            clientSeq: lane.clientSeq,
            command: { type: "jog", axis: "x", direction: lane.clientSeq % 2 ? -1 : 1, clicks: 1, size: "fine" },
          },
        ],
      };
      const { status, text } = await post(SERVER_PORT, `/api/lanes/${lane.id}/commands`, body, lane.cookie);
      if (status !== 200) throw new Error(`jog: ${status} ${text.slice(0, 200)}`);
      // the head of the reply is enough here; reading the rest is a browser's work, not the server's
      lane.turn = Number(/"turn":(\d+)/.exec(text.slice(0, 40))?.[1]);
    };
    const insert = async (client: number): Promise<void> => {
      const { status } = await post(BARE_PORT, "/insert", {
        lane: client,
        writer: "bench-bench",
        commands: [{ clientSeq: 1, command: { type: "jog", axis: "x", direction: 1, clicks: 1, size: "fine" } }],
      });
      if (status !== 200) throw new Error(`insert: ${status}`);
    };
    await saturate(lanes.length, WARM_SECONDS, jog);
    await saturate(lanes.length, WARM_SECONDS, insert);
    const bareRate = await saturate(lanes.length, SECONDS, insert);
    const jogRate = await saturate(lanes.length, SECONDS, jog);
    const bareTimes = await paced(lanes.length, PER_SECOND, SECONDS, insert);
    const jogTimes = await paced(lanes.length, PER_SECOND, SECONDS, jog);
    const proofs = proveMeanwhile(prover);
    const besideTimes = await paced(lanes.length, PER_SECOND, SECONDS, jog);
    const { done, moves } = await proofs();
    report(
      `the same beside programs proved`,
      `${quantile(besideTimes, 0.95).toFixed(1)} ms`,
      "goal < 50",
      `${(quantile(besideTimes, 0.95) / quantile(jogTimes, 0.95)).toFixed(2)} × without; ${done} of ${moves} moves each meanwhile`,
    );
    const pictures = await drawMeanwhile(DATABASE_URL);
    const drawnTimes = await paced(lanes.length, PER_SECOND, SECONDS, jog);
    const drawn = await pictures();
    report(
      "the same beside parts drawn",
      `${quantile(drawnTimes, 0.95).toFixed(1)} ms`,
      "goal < 50",
      `${(quantile(drawnTimes, 0.95) / quantile(jogTimes, 0.95)).toFixed(2)} × without; ${drawn} of ${CUT_PARTS} drawn meanwhile`,
    );
    report(
      "jog batches at saturation",
      `${Math.round(jogRate)} /s`,
      "goal ≥ 0.6 × bare",
      `${(jogRate / bareRate).toFixed(2)} × bare Express + INSERT (${Math.round(bareRate)} /s)`,
    );
    report(
      `p95, ${lanes.length} lanes at ${PER_SECOND}/s`,
      `${quantile(jogTimes, 0.95).toFixed(1)} ms`,
      "goal < 25",
      `${(quantile(jogTimes, 0.95) / quantile(bareTimes, 0.95)).toFixed(2)} × bare (${quantile(bareTimes, 0.95).toFixed(1)} ms)`,
    );
  } finally {
    server.removeAllListeners("exit");
    bare.removeAllListeners("exit");
    server.kill("SIGKILL");
    bare.kill("SIGKILL");
    await dropped(admin, name);
    await admin.end();
    agent.destroy();
  }
}

const PROVED_MOVES = 50_000;
/** A program of so many moves in few characters: to and fro high over the blank, in the machine's frame. */
const LONG_PROGRAM = [
  "G21 G90 T1 M6 M3 S2000",
  "G1 F500",
  "#1=0",
  `WHILE [#1 LT ${PROVED_MOVES / 10}] DO1`,
  ...Array.from({ length: 10 }, (_, i) => `G53 X[-200 - ${i * 9} - #1 MOD 50] Y[-100 - ${i * 7}] Z[-10 - #1/200]`),
  "#1=#1+1",
  "END1",
  "M30",
].join("\n");

/** Programs proved one after another on a lane that was handed in, until it is asked how many. */
function proveMeanwhile(lane: BenchLane): () => Promise<{ done: number; moves: number }> {
  let isOver = false;
  let done = 0;
  const running = (async () => {
    const handIn = {
      writer: lane.writer,
      afterTurn: lane.turn,
      commands: [{ clientSeq: 2, command: { type: "handIn" } }],
    };
    await post(SERVER_PORT, `/api/lanes/${lane.id}/commands`, handIn, lane.cookie);
    while (!isOver) {
      const { status, text } = await post(
        SERVER_PORT,
        `/api/lanes/${lane.id}/prove`,
        { program: LONG_PROGRAM },
        lane.cookie,
      );
      if (status !== 200) throw new Error(`prove: ${status} ${text.slice(0, 200)}`);
      if (done === 0) process.stderr.write(`a proof says ${text.slice(0, 120)}\n`);
      done += 1;
    }
  })();
  return async () => {
    isOver = true;
    await running;
    return { done, moves: PROVED_MOVES };
  };
}

const CUT_PARTS = 60;

/** Parts that were cut, drawn one after another as an instructor has them, until it is asked how many. */
async function drawMeanwhile(databaseUrl: string): Promise<() => Promise<number>> {
  const { exercise } = findDemoExercise("clamp-first-part");
  const lane = millLane(exercise, "bench");
  workLane(lane, { measuresNothing: true });
  const log = lane.log.filter(({ event }) => event.type !== "handedIn").map(({ seq, event }) => ({ seq, event }));
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ id: string }>(
    `with given as (select id from assignments where exercise_id = $1 limit 1),
          who as (select id from users where login = 'bench1'),
          made as (insert into attempts (id, assignment_id, student_id, number)
            select gen_random_uuid(), given.id, who.id, 5000 + n from given, who, generate_series(1, ${CUT_PARTS}) n
            returning id, student_id),
          entries as (insert into lane_events (attempt_id, seq, at, actor_id, writer, client_seq, event)
            select made.id, (one->>'seq')::int, now(), made.student_id, 'bench', 0, one->'event'
            from made, jsonb_array_elements($2::jsonb) one)
     select id from made`,
    [exercise.id, JSON.stringify(log)],
  );
  await client.end();
  const { cookie } = await post(SERVER_PORT, "/api/session", { login: "marrow", password: "fernhollow" });
  let isOver = false;
  let drawn = 0;
  const running = (async () => {
    for (const { id } of rows) {
      if (isOver) return;
      const text = await got(SERVER_PORT, `/api/lanes/${id}/part`, cookie);
      if (!text.includes('"relief"')) throw new Error(`a part: ${text.slice(0, 200)}`);
      drawn += 1;
    }
  })();
  return async () => {
    isOver = true;
    const meanwhile = drawn;
    await running;
    return meanwhile;
  };
}

/** Forty lanes of forty students: the demo class has twelve, so it is copied within the bench's own database. */
export interface BenchLane {
  id: string;
  cookie: string;
  writer: string;
  clientSeq: number;
  turn: number;
}
export async function openLanes(databaseUrl: string, port: number, count: number): Promise<BenchLane[]> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await client.query(
    `insert into users (login, name, password_hash) select 'bench' || n, 'Bench ' || n, (select password_hash from users limit 1) from generate_series(1, ${count}) n`,
  );
  await client.query(
    "insert into memberships (class_id, user_id) select (select id from classes limit 1), id from users where login like 'bench%'",
  );
  const {
    rows: [row],
  } = await client.query<{ id: string }>("select id from assignments order by place limit 1");
  await client.end();
  const lanes = [];
  for (let n = 1; n <= count; n++) {
    const { cookie } = await post(port, "/api/session", { login: `bench${n}`, password: "fernhollow" });
    const { text } = await post(port, `/api/assignments/${row?.id}/lanes`, {}, cookie);
    const lane = {
      id: (JSON.parse(text) as { id: string }).id,
      cookie,
      writer: `bench-tab-${n}`,
      clientSeq: 1,
      turn: 1,
    };
    const home = await post(
      port,
      `/api/lanes/${lane.id}/commands`,
      { writer: lane.writer, afterTurn: 1, commands: [{ clientSeq: 1, command: { type: "home" } }] },
      cookie,
    );
    lane.turn = (JSON.parse(home.text) as { turn: number }).turn;
    lanes.push(lane);
  }
  return lanes;
}
