import { describe, expect, it } from "vitest";
import type { ExercisePatternsView, PatternsView } from "@probe-lane/contract";
import { TestClient, testServer } from "./testServer";

describe("what a class gets wrong", () => {
  it("is told of all its ruled lanes, and of one exercise with the pace of its gates", async () => {
    const server = await testServer();
    try {
      const instructor = await new TestClient(server).signIn("marrow");
      const read = async () => (await instructor.call<PatternsView>("GET", "/patterns")).body;
      const { exercises, lanes, patterns, className } = await read();
      expect(className).toBe("Tuesday Evening Setup");
      const touched = exercises.find(({ title }) => title === "Five tools touched on the part");
      expect(touched?.lanes).toBe(8);
      const names = (hrefs: readonly string[]) =>
        hrefs.map((href) => lanes.find((one) => one.href === href)?.studentName).sort();
      const paper = patterns.mistakes.find(({ id }) => id === "paperForgotten");
      expect(names(paper?.made ?? [])).toEqual([
        "Ivo Dunmarrow",
        "Pelham Fennimore",
        "Theodric Okonjo-Vale",
        "Ysolde Tamblin",
      ]);
      const of = async (id: string) => instructor.call<ExercisePatternsView>("GET", `/patterns/${id}`);
      const one = (await of(touched?.id ?? "")).body;
      expect(one.lanes).toHaveLength(8);
      expect(one.patterns.values.map(({ target }) => target.id)).toEqual(["H1", "H2", "H3", "H4", "H5", "workZ"]);
      for (const { dots } of one.patterns.values) expect(dots).toHaveLength(8);
      expect(one.patterns.values[0]?.lines.map(({ id, lanes: count }) => [id, count])).toEqual([
        ["paperForgotten", 3],
        ["facingForgotten", 2],
        ["paperWrongWay", 2],
      ]);
      expect(one.pace.map(({ kind, lanes: count }) => [kind, count])).toEqual([
        ["machineReady", 8],
        ...["tool", "tool", "tool", "tool", "tool"].map((kind) => [kind, 8]),
        ["verified", 8],
        ["handIn", 8],
      ]);
      // read again it is the same, and a lane that is at work is not in it
      expect((await of(touched?.id ?? "")).body).toEqual(one);
      expect(lanes.some(({ studentName }) => studentName === "Sunniva Lindqvare")).toBe(false);
      // who is taken off the class is not told of any more
      const { body: held } = await instructor.call<{ students: { id: string; name: string }[] }>("GET", "/class");
      const ivo = held.students.find(({ name }) => name === "Ivo Dunmarrow")?.id ?? "";
      expect((await instructor.call("DELETE", `/class/students/${ivo}?lanes=keep`)).status).toBeLessThan(300);
      expect((await read()).lanes.some(({ studentName }) => studentName === "Ivo Dunmarrow")).toBe(false);
      expect((await of(touched?.id ?? "")).body.lanes).toHaveLength(7);
    } finally {
      await server.close();
    }
  });
});
