import type { AddressInfo } from "node:net";
import { randomBytes } from "node:crypto";
import type { Command } from "@probe-lane/core/bench";
import type { BatchReply, LaneView, MyLanes, StartedLane } from "@probe-lane/contract";
import pg from "pg";
import { buildApp } from "../app";
import { httpServer } from "../http";
import { migrateDatabase, openDatabase, openPool } from "../db/client";
import { loadDemo } from "../demoData";

const adminUrl = (): string => {
  const url = process.env["TEST_DATABASE_URL"];
  if (!url) throw new Error("TEST_DATABASE_URL is not set: run through vitest");
  return url;
};

async function admin(statement: string): Promise<void> {
  const client = new pg.Client({ connectionString: adminUrl() });
  await client.connect();
  try {
    await client.query(statement);
  } finally {
    await client.end();
  }
}

/** What PostgreSQL says while its own housekeeping is in a database: nobody but the superuser may send that away. */
const BUSY = "42501";
const MOST_TRIES = 200;

/** Drops a database once the housekeeping has left it. */
async function dropped(name: string): Promise<void> {
  for (let turn = 1; ; turn++) {
    try {
      return await admin(`drop database ${name} with (force)`);
    } catch (error) {
      if ((error as { code?: string }).code !== BUSY || turn >= MOST_TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}

export interface TestServer {
  url: string;
  pool: pg.Pool;
  databaseUrl: string;
  /** Builds a second application on the same database, as another process would. */
  another(): Promise<TestServer>;
  close(): Promise<void>;
}

async function serve(databaseUrl: string, firstCode: string | null = null): Promise<Omit<TestServer, "another">> {
  const pool = openPool(databaseUrl, 6);
  const { app, start, close } = buildApp({
    pool,
    sessionSecret: "a secret for tests only, never used elsewhere",
    webRoot: null,
    firstCode,
  });
  await start();
  const server = httpServer(app, 2500).listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}`,
    pool,
    databaseUrl,
    close: async () => {
      await close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await pool.end();
    },
  };
}

/** A server with the demo class on a database of its own; or, with a code, one that asks for its first instructor. */
export async function testServer({
  firstCode = null,
  hasDemo = true,
}: { firstCode?: string | null; hasDemo?: boolean } = {}): Promise<TestServer> {
  const name = `t_${randomBytes(6).toString("hex")}`;
  await admin(`create database ${name}`);
  const url = new URL(adminUrl());
  url.pathname = `/${name}`;
  const pool = openPool(url.href, 2);
  await migrateDatabase(pool, "apps/server/db/migrations");
  if (hasDemo) await loadDemo(openDatabase(pool), { reset: false, now: new Date() });
  await pool.end();
  const first = await serve(url.href, firstCode);
  return {
    ...first,
    another: async () => ({
      ...(await serve(url.href, firstCode)),
      another: () => Promise.reject(new Error("one is enough")),
    }),
    close: async () => {
      await first.close();
      await dropped(name);
    },
  };
}

export interface Reply<T> {
  status: number;
  body: T;
  text: string;
  headers: Headers;
}

/** A browser's worth of client: keeps its cookie, speaks JSON. */
export class TestClient {
  private readonly cookies = new Map<string, string>();
  constructor(readonly server: { url: string }) {}
  private get cookie(): string {
    return [...this.cookies].map(([name, value]) => `${name}=${value}`).join("; ");
  }

  async call<T = { error: { code: string; message: string; requestId?: string } }>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
    signal: AbortSignal | null = null,
  ): Promise<Reply<T>> {
    const response = await fetch(`${this.server.url}/api${path}`, {
      method,
      signal,
      headers: {
        cookie: this.cookie,
        ...(body === undefined ? {} : { "content-type": "application/json" }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: typeof body === "string" ? body : JSON.stringify(body) }),
    });
    for (const set of response.headers.getSetCookie()) {
      const [name = "", value = ""] = (set.split(";")[0] ?? "").split("=");
      this.cookies.set(name, value);
    }
    const text = await response.text();
    return {
      status: response.status,
      text,
      headers: response.headers,
      body: (text.startsWith("{") ? JSON.parse(text) : null) as T,
    };
  }
  /** The same cookie at another server process. */
  at(server: { url: string }): TestClient {
    const other = new TestClient(server);
    for (const [name, value] of this.cookies) other.cookies.set(name, value);
    return other;
  }
  async signIn(login: string, password = "fernhollow"): Promise<this> {
    const { status } = await this.call("POST", "/session", { login, password });
    if (status !== 200) throw new Error(`signIn: ${login}: ${status}`);
    return this;
  }
  async startLane(place = 0): Promise<string> {
    const { body } = await this.call<MyLanes>("GET", "/lanes");
    const { body: lane } = await this.call<StartedLane>(
      "POST",
      `/assignments/${body.assignments[place]?.id}/lanes`,
      {},
    );
    return lane.id;
  }
  view = async (id: string): Promise<LaneView> => (await this.call<LaneView>("GET", `/lanes/${id}`)).body;
}

/** A tab working one lane: counts its commands, knows the log's head. */
export class TestTab {
  private clientSeq = 0;
  constructor(
    readonly client: TestClient,
    readonly lane: string,
    public afterTurn: number,
    readonly writer = `tab-${randomBytes(6).toString("hex")}`,
  ) {}

  batch(commands: Command[]) {
    return {
      writer: this.writer,
      afterTurn: this.afterTurn,
      commands: commands.map((command) => ({ clientSeq: (this.clientSeq += 1), command })),
    };
  }
  post = (batch: unknown) => this.client.call<BatchReply>("POST", `/lanes/${this.lane}/commands`, batch);
  async do(...commands: Command[]): Promise<BatchReply> {
    const { status, body, text } = await this.post(this.batch(commands));
    if (status !== 200) throw new Error(`do: ${status} ${text}`);
    this.afterTurn = body.turn;
    return body;
  }
}
export const openTab = async (client: TestClient, lane: string): Promise<TestTab> =>
  new TestTab(client, lane, (await client.view(lane)).turn);

/** A class of another school with the same exercise as an assignment of the demo; instructor and student signed in. */
export async function secondSchool(
  server: TestServer,
  sameAs: string,
): Promise<{ instructor: TestClient; student: TestClient; assignment: string }> {
  const one = async (query: string, values: unknown[] = []): Promise<string> =>
    (await server.pool.query<{ id: string }>(query, values)).rows[0]?.id ?? "";
  const classId = await one(
    "insert into classes (name, school_name) values ('Friday Morning', 'Harrowgill Evening School') returning id",
  );
  const person = async (login: string, name: string, role: string): Promise<TestClient> => {
    const id = await one(
      "insert into users (login, name, password_hash) select $1, $2, password_hash from users where login = 'marrow' returning id",
      [login, name],
    );
    await server.pool.query("insert into memberships (class_id, user_id, role) values ($1, $2, $3)", [
      classId,
      id,
      role,
    ]);
    return new TestClient(server).signIn(login);
  };
  const assignment = await one(
    "insert into assignments (class_id, exercise_id, exercise_version, place, is_coach_on, attempts_allowed) select $1, exercise_id, exercise_version, 0, true, 3 from assignments where id = $2 returning id",
    [classId, sameAs],
  );
  return {
    instructor: await person("tessaly", "Oona Tessaly", "instructor"),
    student: await person("lowrie", "Piers Lowriegate", "student"),
    assignment,
  };
}
