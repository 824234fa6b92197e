import { expect } from "@playwright/test";
import type { KeyboardStudent } from "./keyboardStudent";

/** A typed change beyond this asks once more (the setting of the bench mill). */
const GUARD_MM = 10;

/**
 * Stock places as the drawing shows them: by the label of the plan and the daylight words a person finds them within a
 * few mm. The walk below needs no more: it closes in by what the loupe says.
 */
async function goBeside(student: KeyboardStudent, at: { x: number; y: number }, z: number): Promise<void> {
  await student.block("G53 G0 Z0");
  await student.block(`G53 G0 X${at.x.toFixed(0)} Y${at.y.toFixed(0)}`);
  await student.block(`G53 G0 Z${z.toFixed(0)}`);
}

/** Where an eye finds the blank: read from the drawing as it is drawn, to the millimetre. */
async function eyePlaces(student: KeyboardStudent) {
  const read = (name: string) =>
    student.page.locator(`[data-part=${name}]`).evaluate((element) => ({
      low: { u: Number(element.getAttribute("data-u0")), v: Number(element.getAttribute("data-v0")) },
      high: { u: Number(element.getAttribute("data-u1")), v: Number(element.getAttribute("data-v1")) },
    }));
  const plan = await read("plan-stock");
  await student.look("front");
  const elevation = await read("elevation-stock");
  return { left: plan.low.u, right: plan.high.u, front: plan.low.v, back: plan.high.v, top: elevation.high.v };
}

const heldLength = (student: KeyboardStudent): Promise<number> =>
  student.page.locator("[data-part=tool]").evaluate((element) => Number(element.getAttribute("data-length")));

async function findEdge(student: KeyboardStudent, axis: "x" | "y"): Promise<void> {
  const sheet = await student.sheet();
  const places = await eyePlaces(student);
  const isLow = axis === "x" ? sheet.left : sheet.front;
  const s = isLow ? 1 : -1;
  const r = sheet.tip / 2;
  const o = axis === "x" ? sheet.x : sheet.y;
  const [low, high] = axis === "x" ? [places.left, places.right] : [places.front, places.back];
  const face = isLow ? low : high;
  const start = face - s * (r + 4);
  const middle = { x: (places.left + places.right) / 2, y: (places.front + places.back) / 2 };
  await goBeside(
    student,
    axis === "x" ? { x: start, y: middle.y } : { x: middle.x, y: start },
    places.top + (await heldLength(student)) - 4,
  );
  const [plus, minus] = axis === "x" ? ["ArrowRight", "ArrowLeft"] : ["ArrowUp", "ArrowDown"];
  const [toward, away] = isLow ? [plus, minus] : [minus, plus];
  await student.look(axis === "x" ? "left" : "front");
  if (!(await student.page.getByRole("button", { name: /^Stop it/ }).count())) await student.startSpindle(600);
  for (let kick = 0; kick < 2; kick++) {
    if (kick > 0) {
      await student.size(1);
      await student.do(`Shift+${away}`);
      await student.do(`Shift+${away}`);
    }
    await student.do("w");
    await student.closeIn(toward);
  }
  const reading = await student.figure(`machine-${axis}`);
  const radius = s * r;
  await student.ledger(
    [{ kind: "tip radius", text: radius.toFixed(3) }, ...(o === 0 ? [] : [{ kind: "edge", text: (-o).toFixed(3) }])],
    reading + radius - o,
  );
  await student.setEdge(axis, r.toFixed(3), s === 1 ? "minus" : "plus", o.toFixed(3));
  await student.size(0);
  await student.do(away);
  await student.do(away);
  await student.block("G53 G0 Z0");
}

async function setLength(student: KeyboardStudent): Promise<void> {
  const sheet = await student.sheet();
  const places = await eyePlaces(student);
  await goBeside(
    student,
    { x: (places.left + places.right) / 2, y: (places.front + places.back) / 2 },
    places.top + (await heldLength(student)) + 2,
  );
  await student.do("o");
  await student.do("p");
  expect(await student.sensation()).toBe("paper slides freely");
  const lower = async (size: 2 | 3) => {
    await student.size(size);
    for (let turn = 0; turn < 60 && (await student.sensation()) === "paper slides freely"; turn++)
      await student.do(size === 2 ? "Shift+PageDown" : "PageDown");
  };
  await lower(2);
  await student.size(2);
  await student.press("PageUp");
  await student.settle();
  await student.press("PageUp");
  await student.settle();
  await lower(3);
  const reading = await student.figure("machine-z");
  const terms = [
    { kind: "paper", text: (-sheet.paper).toFixed(3) },
    ...(sheet.skin === 0 ? [] : [{ kind: "facing", text: (-sheet.skin).toFixed(3) }]),
  ];
  const off = terms.reduce((sum, { text }) => sum + Number(text), 0);
  await student.ledger(terms, reading + off);
  await student.press("c");
  await student.page.waitForFunction(() => document.activeElement?.textContent?.startsWith("Set H1"));
  await student.press("Enter");
  await student.settle();
  if (off !== 0) await student.typeRegister("H1 length", "Add", off.toFixed(3));
  const leftover = await student.figure("G54.z");
  if (leftover !== 0) await student.typeRegister("G54 Z", "Set", "0");
  // the machine asks once more only when a value moves by more than its guard
  if (Math.abs(leftover) > GUARD_MM) {
    await expect(student.page.getByRole("button", { name: "Yes, set it" })).toBeFocused();
    await student.press("Enter");
    await student.settle();
  }
  expect(await student.figure("G54.z")).toBe(0);
  await student.size(1);
  await student.do("Shift+PageUp");
  await student.do("p");
}

/** Says first how far off zero the point will stand, comes close, looks from two sides, and answers. */
async function lookOverZero(student: KeyboardStudent): Promise<void> {
  const dialog = student.page.getByRole("dialog");
  await student.press("x");
  await dialog.getByLabel("Which check").selectOption({ label: "Stand over zero and look" });
  await dialog.getByLabel("Expected").fill("0");
  await dialog.getByRole("button", { name: "I expect that" }).click();
  await dialog.getByRole("button", { name: "First bring it there" }).click();
  await student.block("G0 G54 X0 Y0");
  const { top } = await eyePlaces(student);
  await student.block(`G53 G0 Z${(top + (await heldLength(student)) + 4).toFixed(0)}`);
  await student.look("left");
  await student.look("front");
  await student.press("x");
  await dialog.getByRole("button", { name: "Look" }).click();
  await dialog.getByRole("button", { name: /^As I expected/ }).click();
  await student.settle();
}

/** The whole lane by the keyboard from the reference return to the ruling. */
export async function workLane(student: KeyboardStudent): Promise<void> {
  await student.do("h");
  await student.do("o");
  await student.do("b");
  await student.load("edge finder");
  await student.do("o");
  await findEdge(student, "x");
  await findEdge(student, "y");
  await student.do("s");
  await student.do("o");
  await student.load("tool 1");
  await student.do("o");
  await setLength(student);
  await student.do("o");
  await student.block("G53 G0 Z0");
  await student.do("o");
  await student.load("pointed tool");
  await student.do("o");
  await lookOverZero(student);
  await student.handIn();
}
