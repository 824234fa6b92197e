import { readFileSync } from "node:fs";
import pg from "pg";
import { openLanes, paced, type BenchLane } from "../../bench/server";
import { quantile, report } from "../../bench/measure";
import { batchOf, freePort, ground, send, smallDisk, stop, type Ground, type Server } from "./servers";

const jog = async (lane: BenchLane, port: number, isPatient = false): Promise<number> => {
  lane.clientSeq += 1;
  const batch = batchOf(lane, lane.clientSeq);
  for (;;) {
    const { status, turn } = await send(lane, port, batch);
    lane.turn = turn;
    // a page sends the same batch again where a busy machine says that it cannot now
    if (!isPatient || status !== 503) return status;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
};

/** Forty lanes at ten commands a second: p95, and everything that was not answered as it should be. */
export async function load(seconds: number): Promise<boolean> {
  const on = await ground();
  const port = await freePort();
  const server = await on.serve(port);
  try {
    const lanes = await openLanes(on.url, port, 40);
    let errors = 0;
    const times = await paced(lanes.length, 10, seconds, async (client) => {
      const lane = lanes[client];
      if (lane && (await jog(lane, port)) !== 200) errors += 1;
    });
    const p95 = quantile(times, 0.95);
    report(`40 lanes × 10/s, ${seconds} s`, `p95 ${p95.toFixed(1)} ms`, "goal < 30 ms", `${errors} errors`);
    return errors === 0;
  } finally {
    await stop(server);
    on.end();
  }
}

/** What the log says of the lanes against what was acknowledged: nothing lost, nothing done twice. */
async function held(url: string, lanes: readonly BenchLane[], acknowledged: ReadonlyMap<string, ReadonlySet<number>>) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  let [lost, doubled] = [0, 0];
  for (const { id, writer } of lanes) {
    const { rows } = await client.query<{ seq: number; n: string }>(
      "select client_seq seq, count(*) n from lane_events where attempt_id = $1 and writer = $2 group by client_seq",
      [id, `tab:${writer}`],
    );
    const stored = new Map(rows.map(({ seq, n }) => [seq, Number(n)]));
    // each of these is one click in the air, and one entry
    for (const seq of acknowledged.get(id) ?? []) {
      if (!stored.has(seq)) lost += 1;
      if ((stored.get(seq) ?? 0) > 1) doubled += 1;
    }
  }
  await client.end();
  return { lost, doubled };
}

/** What befalls a house at work: its server, and how often it said that it cannot now. */
interface Befallen {
  server: Server;
  readonly port: number;
  /** Answers so far that the server cannot now. */
  readonly cannot: () => number;
}

/** Lanes at work while something befalls them again and again; every batch is sent until it is answered. */
async function stood(
  what: string,
  rounds: number,
  on: Ground,
  befall: (house: Befallen) => void | Promise<void>,
): Promise<boolean> {
  const port = await freePort();
  let refusals = 0;
  const house: Befallen = { server: await on.serve(port), port, cannot: () => refusals };
  try {
    const lanes = await openLanes(on.url, port, 8);
    const acknowledged = new Map(lanes.map(({ id }) => [id, new Set<number>()]));
    const answered = () => [...acknowledged.values()].reduce((sum, set) => sum + set.size, 0);
    let conflicts = 0;
    let isOver = false;
    const work = lanes.map(async (lane) => {
      while (!isOver) {
        lane.clientSeq += 1;
        const body = batchOf(lane, lane.clientSeq);
        for (;;) {
          const answer = await send(lane, port, body).catch(() => null);
          if (answer?.status === 409) conflicts += 1;
          if (answer?.status === 503) refusals += 1;
          if (answer?.status === 200) {
            lane.turn = answer.turn;
            acknowledged.get(lane.id)?.add(lane.clientSeq);
          }
          if (answer?.status === 200 || answer?.status === 409) break;
          await new Promise((resolve) => setTimeout(resolve, 40));
        }
      }
    });
    for (let round = 0; round < rounds; round++) {
      const before = answered();
      while (answered() - before < 60) await new Promise((resolve) => setTimeout(resolve, 5));
      await befall(house);
    }
    // it goes on after the last one
    const before = answered();
    while (answered() - before < 20) await new Promise((resolve) => setTimeout(resolve, 5));
    isOver = true;
    await Promise.all(work);
    const { lost, doubled } = await held(on.url, lanes, acknowledged);
    report(
      what,
      `${lost} lost, ${doubled} doubled`,
      "goal 0, 0",
      `${conflicts} false 409, ${answered()} acknowledged, ${refusals} told to wait`,
    );
    return lost === 0 && doubled === 0 && conflicts === 0;
  } finally {
    await stop(house.server);
    on.end();
  }
}

/** The server, or every process of its database, killed in the middle of commands. */
export async function kills(what: "server" | "database", rounds: number): Promise<boolean> {
  const on = await ground();
  return stood(`${rounds} kills of the ${what}`, rounds, on, async (house) => {
    if (what === "database") return on.killDatabase();
    await stop(house.server);
    house.server = await on.serve(house.port);
  });
}

/** The disk under the database runs full, and is given room again. It takes a disk of its own, so it takes root. */
export async function fullDisk(rounds: number): Promise<boolean> {
  const disk = smallDisk(160);
  if (!disk) {
    report("a full disk", "not tried", "goal 0, 0", "only root can have a small disk made");
    return true;
  }
  try {
    return await stood(`${rounds} times a full disk`, rounds, await ground(disk.home), async (house) => {
      const before = house.cannot();
      disk.fill();
      while (house.cannot() - before < 20) await new Promise((resolve) => setTimeout(resolve, 5));
      disk.clear();
    });
  } finally {
    disk.end();
  }
}

/** Two processes on one database behind a round robin. */
export async function two(seconds: number): Promise<boolean> {
  const on = await ground();
  const port = await freePort();
  const second = await freePort();
  const servers = [await on.serve(port), await on.serve(second)];
  try {
    const lanes = await openLanes(on.url, port, 20);
    const acknowledged = new Map(lanes.map(({ id }) => [id, new Set<number>()]));
    let wrong = 0;
    let turn = 0;
    await paced(lanes.length, 10, seconds, async (client) => {
      const lane = lanes[client];
      if (!lane) return;
      const status = await jog(lane, turn++ % 2 === 0 ? port : second, true);
      if (status === 200) acknowledged.get(lane.id)?.add(lane.clientSeq);
      else wrong += 1;
    });
    const { lost, doubled } = await held(on.url, lanes, acknowledged);
    report(
      `two processes, 20 lanes × 10/s, ${seconds} s`,
      `${lost} lost, ${doubled} doubled`,
      "goal 0, 0",
      `${wrong} not answered by 200`,
    );
    return lost === 0 && doubled === 0 && wrong === 0;
  } finally {
    await Promise.all(servers.map((server) => stop(server)));
    on.end();
  }
}

/** One account floods with the largest batches it may send; what its neighbors wait for, against a quiet hour. */
export async function flood(seconds: number): Promise<boolean> {
  const on = await ground();
  const port = await freePort();
  const server = await on.serve(port);
  try {
    const [attacker, ...lanes] = await openLanes(on.url, port, 11);
    if (!attacker) throw new Error("flood: nobody to flood");
    const neighbors = () =>
      paced(lanes.length, 10, seconds, async (client) => {
        const lane = lanes[client];
        if (lane && (await jog(lane, port)) !== 200) throw new Error("a neighbor was not answered");
      });
    const quiet = quantile(await neighbors(), 0.95);
    let isOver = false;
    let sent = 0;
    const floods = Array.from({ length: 8 }, async () => {
      while (!isOver) {
        sent += 1;
        const first = (attacker.clientSeq += 20) - 19;
        const commands = Array.from({ length: 20 }, (_, i) => ({
          clientSeq: first + i,
          command: { type: "jog", axis: "x", direction: i % 2 ? 1 : -1, clicks: 1, size: "middle" },
        }));
        await send(attacker, port, { writer: attacker.writer, afterTurn: 1_000_000, commands }).catch(() => null);
      }
    });
    // past what an account may have at once
    await new Promise((resolve) => setTimeout(resolve, 4000));
    const flooded = quantile(await neighbors(), 0.95);
    isOver = true;
    await Promise.all(floods);
    const factor = flooded / quiet;
    report(
      "a flood beside ten lanes",
      `p95 × ${factor.toFixed(2)}`,
      "goal < 2",
      `${quiet.toFixed(1)} → ${flooded.toFixed(1)} ms, ${sent} batches of 20`,
    );
    return factor < 2;
  } finally {
    await stop(server);
    on.end();
  }
}

const heldMb = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;

/** Lanes at work for a long time: what the server holds at the end, against what it held once it was warm. */
export async function soak(minutes: number): Promise<boolean> {
  const on = await ground();
  const port = await freePort();
  const server = await on.serve(port);
  try {
    const lanes = await openLanes(on.url, port, 20);
    const held: number[] = [];
    let errors = 0;
    for (let minute = 0; minute < minutes; minute++) {
      await paced(lanes.length, 4, 60, async (client) => {
        const lane = lanes[client];
        if (lane && (await jog(lane, port)) !== 200) errors += 1;
      });
      held.push(heldMb(server.pid ?? 0));
    }
    // the middle of the minutes after warm-up: one of them could be a peak, and everything would be flat beside it
    const later = held.slice(Math.floor(minutes / 6));
    const warm = quantile(later, 0.5);
    const most = Math.max(...later);
    process.stdout.write(`MB by the minute: ${held.map((mb) => mb.toFixed(0)).join(" ")}\n`);
    report(
      `20 lanes × 4/s, ${minutes} minutes`,
      `${warm.toFixed(0)} → ${held.at(-1)?.toFixed(0)} MB`,
      "goal within 20 %",
      `most ${(most / warm).toFixed(2)} × warm, ${errors} errors`,
    );
    return errors === 0 && most <= warm * 1.2;
  } finally {
    await stop(server);
    on.end();
  }
}
