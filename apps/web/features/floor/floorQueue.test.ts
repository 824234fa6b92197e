import { describe, expect, it } from "vitest";
import { FloorQueue, merged, shelfOf, typedShelf, type PendingEntry } from "./floorQueue";

function device() {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  };
  const server = new Map<string, PendingEntry>();
  let link: "up" | "down" | "reply lost" = "up";
  const send = async (entries: PendingEntry[]): Promise<void> => {
    if (link === "down") throw new Error("no link");
    if (entries.some(({ entry: one }) => one.type === "handedIn")) throw new Error("refused");
    for (const one of entries) server.set(one.id, one);
    if (link === "reply lost") throw new Error("no answer");
  };
  let n = 0;
  const open = () =>
    new FloorQueue(
      shelfOf("lane", storage),
      send,
      () => undefined,
      (error) => error instanceof Error && error.message === "refused",
    );
  return { kept, server, open, newId: () => `id-${(n += 1)}`, set: (state: typeof link) => (link = state) };
}
const entry = (mm: number) => ({ type: "reading" as const, register: "H1", mm });

describe("entries on their way", () => {
  it("survive a lost link and a closed browser, and arrive once each", async () => {
    const { server, open, newId, set, kept } = device();
    set("down");
    const first = open();
    first.add([entry(1), entry(2)], 1000, newId);
    await expect(first.flush()).rejects.toThrow("no link");
    const afterClosing = open();
    expect(afterClosing.pending().map(({ entry: one }) => one)).toEqual([entry(1), entry(2)]);
    set("reply lost");
    await expect(afterClosing.flush()).rejects.toThrow("no answer");
    expect(server.size).toBe(2);
    set("up");
    afterClosing.add([entry(3)], 2000, newId);
    await afterClosing.flush();
    expect([...server.values()].map(({ entry: one }) => one)).toEqual([entry(1), entry(2), entry(3)]);
    expect(kept.size).toBe(0);
  });
  it("a refused entry does not take the others with it", async () => {
    const { server, open, newId } = device();
    const queue = open();
    queue.add([entry(1), { type: "handedIn" }, entry(2)], 1000, newId);
    await expect(queue.flush()).rejects.toThrow("refused");
    expect([...server.values()].map(({ entry: one }) => one)).toEqual([entry(1), entry(2)]);
    expect(queue.pending()).toEqual([]);
  });
  it("what waits here is shown with what the server has, each once", () => {
    const stored = [{ id: "a", atMs: 1, by: "x", entry: entry(1) }];
    expect(
      merged(stored, [
        { id: "a", atMs: 1, entry: entry(1) },
        { id: "b", atMs: 2, entry: entry(2) },
      ]).map(({ id }) => id),
    ).toEqual(["a", "b"]);
  });
  it("a damaged shelf is an empty one", () => {
    expect(
      shelfOf("x", { getItem: () => "{broken", setItem: () => undefined, removeItem: () => undefined }).read(),
    ).toEqual([]);
  });
});

describe("figures that are typed and not entered", () => {
  it("are there again when the page is opened again, each lane's its own, and gone once entered", () => {
    const kept = new Map<string, string>();
    const storage = {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
    };
    const [here, other] = [typedShelf("a", storage), typedShelf("b", storage)];
    expect(here.read()).toBeNull();
    here.write({ H1: { sum: "-250" } });
    expect(typedShelf("a", storage).read()).toEqual({ H1: { sum: "-250" } });
    expect(other.read()).toBeNull();
    here.write({});
    expect(kept.size).toBe(0);
    kept.set("probe-lane.floor.b.typed", "{nonsense");
    expect(other.read()).toBeNull();
  });
});
