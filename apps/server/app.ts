import { randomUUID } from "node:crypto";
import { patternOf } from "@probe-lane/core/patterns";
import { skillsShown } from "@probe-lane/core/skills";
import express, { type Express, type RequestHandler } from "express";
import helmet from "helmet";
import type pg from "pg";
import { pino, type Logger } from "pino";
import { authRouter } from "./areas/auth/router";
import { authStore } from "./areas/auth/store";
import { firstRouter } from "./areas/first/router";
import { FirstInstructor } from "./areas/first/service";
import { firstStore } from "./areas/first/store";
import { classRouter } from "./areas/classes/router";
import { classStore } from "./areas/classes/store";
import { LaneCache } from "./areas/lanes/laneCache";
import { laneRouter } from "./areas/lanes/router";
import { LaneService } from "./areas/lanes/service";
import { floorRouter } from "./areas/floor/router";
import { floorStore } from "./areas/floor/store";
import { laneStore } from "./areas/lanes/store";
import { planRouter } from "./areas/plan/router";
import { planStore } from "./areas/plan/store";
import { policyIn } from "./areas/marks/policy";
import { marksRouter } from "./areas/marks/router";
import { reachRouter, type Reach } from "./areas/reach/router";
import { regradeRouter } from "./areas/regrade/router";
import { RegradeService } from "./areas/regrade/service";
import { regradeStore } from "./areas/regrade/store";
import { reviewRouter } from "./areas/review/router";
import { reviewStore } from "./areas/review/store";
import { patternsRouter } from "./areas/patterns/router";
import { PatternService } from "./areas/patterns/service";
import { RulingBook } from "./areas/lanes/rulingBook";
import { skillsRouter } from "./areas/skills/router";
import { SkillService } from "./areas/skills/service";
import { archiveRouter } from "./areas/archive/router";
import { audited, auditRouter } from "./areas/audit/router";
import { auditStore } from "./areas/audit/store";
import { ClassesNow } from "./areas/together/classesNow";
import { Demonstrations } from "./areas/together/demonstrations";
import { togetherRouter } from "./areas/together/router";
import { togetherStore } from "./areas/together/store";
import { ChangeListener, ChangeSender, CLASS, FLOOR, PERSON } from "./areas/wall/changes";
import { rosterRouter } from "./areas/roster/router";
import { rosterStore } from "./areas/roster/store";
import { wallRouter } from "./areas/wall/router";
import { openDatabase } from "./db/client";
import { errorHandler, notFoundHandler } from "./errors";
import { fairShare } from "./fairness";
import { sameSiteOnly } from "./guards";
import { JobQueue } from "./jobs/queue";
import { WorkPool } from "./jobs/workPool";
import { writableOnly } from "./limits";
import { sessionHandler } from "./sessions";

export interface AppOptions {
  pool: pg.Pool;
  sessionSecret: string;
  /** Folder of the built web app; null serves the API alone. */
  webRoot: string | null;
  logger?: Logger;
  /** The code that the first instructor of an empty school begins with; null where there is one. */
  firstCode?: string | null;
  /** How it is reached; without it, by nobody else. */
  reach?(): Reach;
  now?(): Date;
}

const YEAR_SECONDS = 31_536_000;

const apiHeaders: RequestHandler = (_req, res, next) => {
  res.setHeader("cache-control", "no-store");
  res.setHeader("content-security-policy", "default-src 'none'; frame-ancestors 'none'");
  res.setHeader("x-content-type-options", "nosniff");
  next();
};

/** The whole application without a port: build it here, listen elsewhere. */
export function buildApp({
  pool,
  sessionSecret,
  webRoot,
  logger = pino({ level: "silent" }),
  firstCode = null,
  reach = () => ({ isShared: false, urls: [], fingerprint: null }),
  now = () => new Date(),
}: AppOptions): {
  app: Express;
  start(): Promise<void>;
  close(): Promise<void>;
} {
  const db = openDatabase(pool);
  const store = laneStore(db);
  const people = authStore(db);
  const floor = floorStore(db);
  const cache = new LaneCache(store);
  const processId = randomUUID();
  const sender = new ChangeSender((laneIds) => store.notify(processId, laneIds));
  const changes = new ChangeListener(pool, logger, processId);
  const sessions = sessionHandler(pool, sessionSecret);
  changes.listenPeople((userId) => sessions.forget(userId));
  // a sign-out and a reset bite at once, in this process and in the others
  const ended = (userId: string) => {
    sessions.forget(userId);
    void pool.query("select pg_notify('lane', $1)", [`${processId} ${userId} ${PERSON}`]).catch(() => undefined);
  };
  // what another process wrote is folded anew
  changes.listen((laneId, isOwn) => {
    if (!isOwn) cache.drop(laneId);
  });
  const first = new FirstInstructor(firstStore(db), firstCode, now);
  const reviews = reviewStore(db);
  const threads = new WorkPool();
  const together = togetherStore(db);
  const classesNow = new ClassesNow(together);
  changes.listenClasses((classId) => void classesNow.heard(classId).catch(() => undefined));
  const changed = (laneId: string) => sender.changed(laneId);
  const held = classStore(db);
  const policyOf = policyIn(held);
  const skills = new SkillService({ store, floor, book: new RulingBook(store, skillsShown), policyOf, now });
  const demonstrations = new Demonstrations({ store, cache, classesNow, changed, now });
  const lanes = new LaneService({
    skills,
    demonstrations,
    store,
    reviews,
    cache,
    threads,
    changed,
    classesNow,
    policyOf,
    now,
  });
  const nameOf = async (id: string) => (await people.nameOf(id)) ?? "an instructor";
  const queue = new JobQueue(pool, logger);
  const regrade = new RegradeService({
    store: regradeStore(db),
    lanes: store,
    notify: (laneIds) => store.notify(processId, laneIds),
    pool,
    threads,
    queue,
    nameOf,
  });

  const app = express();
  app.disable("x-powered-by");
  // replies of the API are never cached, so a digest of each would be work for nothing
  app.set("etag", false);
  app.use((_req, res, next) => {
    res.locals["requestId"] = randomUUID();
    next();
  });
  const pageHeaders = helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", "data:"],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        baseUri: ["'self'"],
        formAction: ["'self'"],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
  });
  const api = express.Router();
  // replies are data: they may not be framed, sniffed, kept or run; the long list of a page's headers is for pages
  api.use(apiHeaders);
  api.get("/ping", (_req, res) => res.json({ ok: true }));
  // a list of students comes as its file; everything else is small
  const [small, large] = [express.json({ limit: "64kb" }), express.json({ limit: "640kb" })];
  const json: express.RequestHandler = (req, res, next) =>
    (req.path.startsWith("/class/roster") ? large : small)(req, res, next);
  api.use(sameSiteOnly, json, writableOnly, sessions.handler, fairShare());
  const kept = auditStore(db);
  api.use(audited({ store: kept, nameOf, now, logger }));
  api.use(auditRouter(kept));
  api.use(firstRouter(first));
  api.use(authRouter(people, sessionSecret, { ended, now }));
  api.use(reachRouter(reach));
  const roster = rosterStore(db);
  const said = async (id: string, of: typeof CLASS | typeof FLOOR) =>
    void (await pool.query("select pg_notify('lane', $1)", [`${processId} ${id} ${of}`]));
  const tell = (classId: string) => said(classId, CLASS);
  const tellLane = (laneId: string) => said(laneId, FLOOR);
  api.use(archiveRouter({ lanes: store, reviews, floor, classes: held, now }));
  api.use(classRouter({ store: held, roster, ended, tell, now }));
  api.use(rosterRouter(roster, held, ended));
  // the lanes come first: a class at work asks for little else
  const isStudent = async (userId: string, classId: string) =>
    (await store.studentsOfClass(classId)).some(({ id, isRemoved }) => id === userId && !isRemoved);
  api.use("/floor", floorRouter({ store: floor, now, changes, tell, tellLane, isStudent }));
  api.use(planRouter(planStore(db), lanes));
  api.use(laneRouter(lanes));
  api.use(reviewRouter({ lanes, store, reviews, people, noted: tell, now }));
  api.use(togetherRouter({ store: together, classesNow, lanes, demonstrations, reviews, changes, tell, nameOf, now }));
  const nameOfClass = async (classId: string) => (await held.classOf(classId))?.name ?? "";
  api.use(skillsRouter(skills, nameOfClass));
  api.use(
    patternsRouter(new PatternService({ store, floor, book: new RulingBook(store, patternOf), threads }), nameOfClass),
  );
  api.use(regradeRouter(regrade));
  api.use(wallRouter({ store, floor, cache, people, changes, pausedBy: classesNow.pausedBy, now }));
  api.use(marksRouter({ store, floor, policyOf, reviews, now }));
  api.use(notFoundHandler);
  app.use("/api", api);
  app.use(pageHeaders);
  if (webRoot) {
    app.use(
      "/assets",
      express.static(`${webRoot}/assets`, { immutable: true, maxAge: YEAR_SECONDS * 1000, fallthrough: false }),
    );
    app.use(express.static(webRoot, { index: false, maxAge: 0 }));
    // an empty school asks for its instructor first, whatever page is opened
    app.get(/^\/(sign-in|join)?$/, (_req, res, next) => (first.isOpen ? res.redirect("/first") : next()));
    app.get("/{*path}", (_req, res) =>
      res.sendFile("index.html", { root: webRoot, headers: { "cache-control": "no-cache" } }),
    );
  }
  app.use(errorHandler(logger));
  return {
    app,
    start: async () => {
      await changes.start();
      await classesNow.start();
      await queue.start({ regrade: (id) => regrade.work(id), trial: (id) => regrade.tryOut(id) });
      await regrade.takeUp();
    },
    close: async () => {
      sender.close();
      changes.close();
      sessions.close();
      await queue.close();
      await threads.close();
    },
  };
}
