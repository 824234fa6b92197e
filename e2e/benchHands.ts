import { expect, type Page } from "@playwright/test";
import type { Command, CommandOf } from "@probe-lane/core/bench";
import {
  instrumentWords,
  questionWords,
  registerName,
  taskWords,
  thingWords,
  turnedFaceWords,
  checkWords,
  askName,
  partInstrumentWords,
  partSaidWords,
} from "@probe-lane/core/words";
import type { Machine } from "@probe-lane/core/exercises";
import { LaneDriver } from "@probe-lane/students";
import { KeyboardStudent } from "./keyboardStudent";

const SIZES = { rapid: 0, coarse: 1, middle: 2, fine: 3 } as const;
const TURNING_KEYS = { x: ["ArrowDown", "ArrowUp"], y: ["", ""], z: ["ArrowLeft", "ArrowRight"] } as const;
const KEYS = { x: ["ArrowLeft", "ArrowRight"], y: ["ArrowDown", "ArrowUp"], z: ["PageDown", "PageUp"] } as const;

/** A planned step: the command, and for clicks how many were made before something was felt. */
export interface Step {
  readonly command: Command;
  readonly clicks: number;
}

/** Keeps what a simulated student does on a copy of the lane, so that hands can do the same through the page. */
export class PlanningDriver extends LaneDriver {
  readonly steps: Step[] = [];
  override attempt(command: Command) {
    const before = this.log.length;
    const refusal = super.attempt(command);
    const clicks = this.log
      .slice(before)
      .reduce((sum, { event }) => sum + (event.type === "jogged" ? event.clicks : 0), 0);
    this.steps.push({ command, clicks });
    return refusal;
  }
}

/** Hands on the page: every command by the keys, buttons and boxes that a student has. */
export class BenchHands extends KeyboardStudent {
  constructor(
    page: Page,
    private readonly machine: Machine,
  ) {
    super(page);
  }
  private get isOnLathe(): boolean {
    return this.machine !== "mill";
  }
  private level = -1;

  /** After the page was loaded again it stands as it stands at first. */
  startOver(): void {
    this.level = -1;
  }

  private async dialog(open: () => Promise<void>, act: () => Promise<void>): Promise<void> {
    await open();
    const dialog = this.page.getByRole("dialog");
    await expect(dialog).toBeVisible();
    await act();
    await expect(dialog).toBeHidden();
    await this.settle();
  }
  private inDialog = (name: string | RegExp) => this.page.getByRole("dialog").getByRole("button", { name });
  private async button(name: string | RegExp): Promise<void> {
    await this.page.getByRole("region", { name: "What moves" }).getByRole("button", { name }).click();
    await this.settle();
    await this.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  }

  protected async jog({ axis, direction, size }: CommandOf<"jog">, clicks: number): Promise<void> {
    if (this.level !== SIZES[size]) await this.size(SIZES[size]);
    this.level = SIZES[size];
    const key = (this.isOnLathe ? TURNING_KEYS : KEYS)[axis][direction === 1 ? 1 : 0];
    for (let left = clicks; left > 0; left -= left >= 10 ? 10 : 1) await this.do(left >= 10 ? `Shift+${key}` : key);
  }

  private async askProbe({ question, axis, direction, directionY, size, depth }: CommandOf<"askProbe">): Promise<void> {
    await this.dialog(
      () => this.press("w"),
      async () => {
        const dialog = this.page.getByRole("dialog");
        await dialog.getByLabel("Question").selectOption({ label: questionWords[question].name });
        if (axis) await dialog.getByLabel(question === "angle" ? "The face runs along" : "Along").selectOption(axis);
        if (direction && question === "angle")
          await dialog.getByLabel("The face lies to the").selectOption(String(direction));
        if (direction && question === "face") await dialog.getByLabel("Toward the").selectOption(String(direction));
        if (directionY) {
          await dialog.getByLabel(/^Which corner/).selectOption(String(direction));
          await dialog.getByLabel("and of these").selectOption(String(directionY));
        }
        if (size) await dialog.getByLabel("Size").fill(size);
        if (depth) await dialog.getByLabel("Depth").fill(depth);
        await this.inDialog("Ask").click();
      },
    );
  }

  private async measure(command: CommandOf<"measure">): Promise<void> {
    const label = {
      toolDiameter: `diameter of tool ${command.tool ?? 0},`,
      toolReach: "from the nose to the tip",
      gapThing: "",
      stockX: "blank along X",
      stockY: "blank along Y",
      stockZ: "height of the blank",
      feature: "across the",
    }[command.what];
    await this.dialog(
      () => this.press("y"),
      async () => {
        await this.inDialog(instrumentWords(command.by)).click();
        await this.inDialog(new RegExp(`^${label}`)).click();
      },
    );
  }

  private async ledger_(register: string, kind: string | null, text: string): Promise<void> {
    await this.page.getByLabel("Ledger register").selectOption(register);
    if (kind === null) {
      await this.page.getByRole("button", { name: /^Take reading L/ }).click();
    } else {
      await this.page.getByLabel("Kind of line").selectOption(kind);
      await this.page.getByLabel("Amount with its sign").fill(text);
      await this.enterLine();
    }
    await this.settle();
  }

  /** What was put into the ledger's box becomes a line. */
  protected async enterLine(): Promise<void> {
    await this.page.keyboard.press("Enter");
  }

  private async type_({ register, text, how }: CommandOf<"typeRegister">): Promise<void> {
    const panel = this.page.getByRole("form", { name: "Set a register" });
    await panel.getByText("Typed value").click();
    await panel.getByLabel("Register").selectOption(register);
    await panel.getByLabel("How").selectOption(how);
    await panel.getByLabel("Value to type").fill(text);
    await panel.getByRole("button", { name: `Set ${registerName(register, this.machine)}` }).click();
    await this.settle();
    const confirm = panel.getByRole("button", { name: "Yes, set it" });
    if (await confirm.isVisible()) await confirm.click();
    await this.settle();
  }

  private async capture({ register, asText }: CommandOf<"captureRegister">): Promise<void> {
    const panel = this.page.getByRole("form", { name: "Set a register" });
    await panel.getByText("From where it stands").click();
    await panel.getByLabel("Register").selectOption(register);
    if (this.isOnLathe) await panel.getByLabel("What the display must read here").fill(asText);
    else if (register.includes(".")) {
      await panel.getByLabel("Distance from the spindle axis to the edge").fill("0");
      await panel.getByLabel("Work coordinate of the edge").fill(asText);
    }
    await panel.getByRole("button", { name: `Set ${registerName(register, this.machine)}` }).click();
    await this.settle();
  }

  /** The dialog of the axis height stays open between its steps. */
  private async openAxis(): Promise<void> {
    if (!(await this.page.getByRole("dialog").isVisible())) await this.press("w");
    await expect(this.page.getByRole("dialog")).toBeVisible();
  }

  /** The program lies where the ledger lay. */
  /** Turns to ledger, program or part: the button says what comes next. */
  private async atDesk(desk: "Program" | "Part", shows: string): Promise<void> {
    const turn = this.page.getByRole("button", { name: /^(Ledger|Program|Part) A$/ });
    const there = this.page.getByRole("region", { name: shows, exact: true });
    for (let turns = 0; turns < 3 && !(await there.isVisible()); turns++) {
      const isNext = (await turn.textContent())?.startsWith(desk) === true;
      await this.press("a");
      if (isNext) break;
    }
    await expect(there).toBeVisible();
  }
  private atProgram(): Promise<void> {
    return this.atDesk("Program", "Looked up by you");
  }
  private atPart(): Promise<void> {
    return this.atDesk("Part", "Measure");
  }

  private async takeProgram(command: CommandOf<"loadProgram" | "takeProgram">): Promise<void> {
    await this.atProgram();
    await this.page
      .getByRole("button", { name: /^Load (a program )?…$/ })
      .first()
      .click();
    const dialog = this.page.getByRole("dialog");
    await expect(dialog).toBeVisible();
    if (command.type === "loadProgram") await this.inDialog(new RegExp(`^Load ${command.number}`)).click();
    else {
      await dialog.getByLabel(/^Or one of your own/).fill(command.text);
      await this.inDialog("Take it").click();
    }
    await expect(dialog).toBeHidden();
    await this.settle();
  }

  private async lookUp({ ask, tool, text, isSound }: CommandOf<"lookUp">): Promise<void> {
    await this.atProgram();
    const name = askName({ ask, tool: tool ?? null });
    const row = this.page.getByRole("region", { name: "Looked up by you" });
    const form = row.getByRole("form", { name, exact: true });
    if (!(await form.isVisible())) await row.getByRole("button", { name: new RegExp(`^\\S* ?${name}`) }).click();
    if (ask === "units" || ask === "hangs") await form.getByLabel("Answer").selectOption(text);
    else if (ask === "matters") {
      const [of = "", place] = text.split(" ");
      await form.getByLabel("Tool", { exact: true }).selectOption(of);
      if (place !== undefined) await form.getByLabel("Over what").selectOption(place);
    } else if (ask === "spindle") {
      const [way = "", speed = ""] = text.split(" ");
      await form.getByLabel("Direction").selectOption(way);
      if (speed !== "") await form.getByLabel("Speed in rev/min").fill(speed);
    } else await form.getByLabel("Answer").fill(text);
    if (ask !== "matters") await form.getByLabel(isSound ? "as it should be" : "a fault").check();
    await form.getByRole("button", { name: "Answer" }).click();
    await this.settle();
  }

  /** Goes to a line with the keys, and changes it in the box below. */
  private async mendLine({ line, text }: CommandOf<"mendLine">): Promise<void> {
    await this.atProgram();
    await this.page.getByRole("textbox", { name: "Program" }).focus();
    await this.page.keyboard.press("Control+Home");
    for (let at = 1; at < line; at++) await this.page.keyboard.press("ArrowDown");
    // the first line is where the cursor stood already
    if (line === 1) {
      await this.page.keyboard.press("ArrowDown");
      await this.page.keyboard.press("ArrowUp");
    }
    const form = this.page.getByRole("form", { name: "Change a line" });
    await expect(form).toContainText(`line ${line}`);
    await form.getByRole("textbox").fill(text);
    await form.getByRole("button", { name: "Change" }).click();
    await this.settle();
  }

  private async setPace({ type: _type, feedPercent, rapidPercent, ...flags }: CommandOf<"setPace">): Promise<void> {
    await this.atProgram();
    const words = { isSingle: "single block", stopsAtOptional: "optional stop", passesSlash: "pass over /" } as const;
    for (const [flag, isOn] of Object.entries(flags) as [keyof typeof words, boolean][]) {
      const button = this.page.getByRole("button", { name: words[flag], exact: true });
      if ((await button.getAttribute("aria-pressed")) !== String(isOn)) await button.click();
      await expect(button).toHaveAttribute("aria-pressed", String(isOn));
    }
    if (rapidPercent !== undefined)
      await this.page
        .getByRole("group", { name: "rapid %" })
        .getByRole("button", { name: String(rapidPercent), exact: true })
        .click();
    if (feedPercent !== undefined) await this.page.getByRole("slider").fill(String(feedPercent));
    await this.settle();
  }

  /** Strikes one line of the ledger. */
  private async strike(line: number): Promise<void> {
    await this.page
      .locator(`li[data-line="${line}"]`)
      .getByRole("button", { name: /^Strike this line/ })
      .click();
    await this.settle();
  }

  /** Does one step through the page. */
  async perform({ command, clicks }: Step): Promise<void> {
    switch (command.type) {
      case "home":
        return this.do("h");
      case "jog":
        return this.jog(command, clicks);
      case "setDoor":
        return this.do("o");
      case "load":
        return this.dialog(
          () => this.press("d"),
          () => this.inDialog(new RegExp(`^Load the ${thingWords(command.thing)}`)).click(),
        );
      case "unload":
        return this.dialog(
          () => this.press("d"),
          () => this.inDialog(/^Take the/).click(),
        );
      case "swapPockets":
        return this.dialog(
          () => this.press("d"),
          () => this.inDialog(`Change pockets ${command.a} and ${command.b} round`).click(),
        );
      case "startSpindle":
        return this.startSpindle(command.rpm ?? null);
      case "stopSpindle":
        return this.do("s");
      case "lookFrom":
        await this.page.getByRole("button", { name: `from the ${command.side}` }).click();
        return this.settle();
      case "setWobbling":
      case "trueTaster":
      case "sweep":
        return this.do("w");
      case "turnSpindle":
        return this.button("Turn by hand");
      case "placePaper":
      case "pullPaper":
        return this.do("p");
      case "feelPaper":
        return this.do("q");
      case "tryBlock":
      case "pullBlock":
        return this.do("j");
      case "wipeBlocks":
        return this.button("Wipe the blocks");
      case "standLamp":
        return this.button("Stand the height gauge");
      case "takeLamp":
        return this.button("Take the gauge away");
      case "blowTip":
        return this.button("Blow the tip clean");
      case "askProbe":
        return this.askProbe(command);
      case "askSetter":
        return this.dialog(
          () => this.button("Ask the setter …"),
          async () => {
            const dialog = this.page.getByRole("dialog");
            await dialog.getByLabel("What to measure").selectOption(command.what);
            await dialog.getByLabel("Length, about").fill(command.about);
            await dialog.getByLabel("Off the middle by").fill(command.offset);
            await dialog.getByLabel(/turning slowly/).setChecked(command.isTurning);
            await this.inDialog("Ask").click();
          },
        );
      case "askBeam":
        return this.dialog(
          () => this.button("Ask the beam …"),
          async () => {
            const dialog = this.page.getByRole("dialog");
            await dialog.getByLabel("What to measure").selectOption(command.what);
            await dialog.getByLabel("Speed of the measurement").fill(String(command.rpm));
            await dialog.getByLabel(/stepped over the edge/).setChecked(command.isAtEdge);
            await this.inDialog("Ask").click();
          },
        );
      case "askPresetter":
        return this.dialog(
          () => this.press("y"),
          async () => {
            await this.inDialog("presetter").click();
            await this.inDialog(new RegExp(`^tool ${command.tool},`)).click();
          },
        );
      case "measure":
        return this.measure(command);
      case "doTask":
      case "dressBurr": {
        // one thing to do is done at once, of several one is chosen
        const act = taskWords[command.type === "doTask" ? command.task : "dressBurr"].act;
        if (!(await this.page.getByRole("button", { name: /^(Get ready|Sweep or tap the vise) …/ }).isVisible()))
          return this.do("b");
        return this.dialog(
          () => this.press("b"),
          () => this.inDialog(act).click(),
        );
      }
      case "captureRegister":
        return this.capture(command);
      case "typeRegister":
        return this.type_(command);
      case "runBlock":
        return this.block(command.text);
      case "takeReading":
        if (command.from === undefined) return this.ledger_(command.register, null, "");
        await this.page.getByLabel("Ledger register").selectOption(command.register);
        await this.page.getByRole("button", { name: `Take reading ${command.from} into the ledger` }).click();
        return this.settle();
      case "writeTerm":
        return this.ledger_(command.register, command.term, command.text);
      case "writeSum":
        return this.ledger_(command.register, "sum", command.text);
      case "expectCheck":
        await this.press("x");
        await this.page.getByLabel("Which check").selectOption({ label: checkWords[command.check].name });
        await this.page.getByLabel("Expected").fill(command.text);
        await this.inDialog("I expect that").click();
        // said, the machine is brought there first
        await this.inDialog("First bring it there").click();
        return this.settle();
      case "lookCheck":
        await this.press("x");
        await this.inDialog("Look").click();
        return this.settle();
      case "judgeCheck":
        await this.inDialog(command.isAsExpected ? /^As I expected/ : /^Not as I expected/).click();
        return this.settle();
      case "judgeSetup":
        await this.press("z");
        await this.page
          .getByRole("group", { name: "What you say of the setup" })
          .getByRole("button", { name: command.isSound ? "was sound" : "was faulty" })
          .click();
        await this.settle();
        return this.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      case "recall":
        return this.dialog(
          () => this.press("q"),
          () =>
            this.inDialog(command.row === null ? "Recall no row" : new RegExp(`^Recall row ${command.row}`)).click(),
        );
      case "sightEdge":
      case "slideTool":
        return this.do("w");
      case "loosenTool":
        return this.do("b");
      case "turnFeed":
      case "switchOff":
        return this.do("q");
      case "changeTool":
        return this.dialog(
          () => this.press("w"),
          async () => {
            await this.page.getByLabel("Overhang by rule").fill(command.overhang);
            await this.inDialog("Change it").click();
          },
        );
      case "tightenTool":
        return this.dialog(
          () => this.press("b"),
          () =>
            this.inDialog(
              command.how === "inTurn" ? "A little each, in turn" : "One right down, then the other",
            ).click(),
        );
      case "runCone":
        return this.do(command.isHeld ? "q" : "w");
      case "loadProgram":
      case "takeProgram":
        return this.takeProgram(command);
      case "lookUp":
        return this.lookUp(command);
      case "mendLine":
        return this.mendLine(command);
      case "judgeDeepest":
        await this.atProgram();
        await this.page.getByLabel("Tool at its deepest").selectOption(String(command.tool));
        await this.page
          .getByRole("button", { name: command.outcome === "clear" ? "stays clear" : "would hit", exact: true })
          .click();
        return this.settle();
      case "setPace":
        return this.setPace(command);
      case "askSignature":
        await this.atProgram();
        await this.page.getByRole("button", { name: "Ask for it" }).click();
        return this.settle();
      case "startCycle":
        await this.atProgram();
        await this.page.getByRole("button", { name: "×20" }).click();
        if (command.fromTool === undefined) return this.do(".");
        await this.page.getByLabel("Start at").selectOption(String(command.fromTool));
        await this.page.getByRole("button", { name: /^Start cycle/ }).click();
        return this.settle();
      case "resumeCycle":
        return this.do(".");
      case "holdCycle":
        return this.do(",");
      case "runOn":
        // the page takes it on by itself, to where it stands or ends
        return expect(this.page.getByTestId("run-state")).not.toHaveText("running", { timeout: 90_000 });
      case "sayGap":
        await this.page.getByLabel("Gap seen").fill(command.text);
        await this.page
          .getByRole("button", { name: command.isAlike ? "They agree" : "They do not", exact: true })
          .click();
        return this.settle();
      case "measurePart":
        await this.atPart();
        await this.page.getByLabel("Feature", { exact: true }).selectOption(command.feature);
        await this.page
          .getByRole("group", { name: "Instruments" })
          .getByRole("button", { name: new RegExp(`^${partInstrumentWords[command.with]} `) })
          .click();
        return this.settle();
      case "tryGauge": {
        await this.atPart();
        await this.page.getByLabel("Feature", { exact: true }).selectOption(command.feature);
        const name = partInstrumentWords[command.with];
        const size = this.page.getByLabel(`Size of the ${name === "plug" ? "plug" : "stack"}`);
        if (!(await size.isVisible())) await this.page.getByRole("button", { name: new RegExp(`^${name}`) }).click();
        await size.fill(command.text);
        await this.page.getByRole("button", { name: "Try it" }).click();
        return this.settle();
      }
      case "letCool":
        await this.atPart();
        await this.page.getByRole("button", { name: "Let it cool" }).click();
        return this.settle();
      case "judgePart":
        await this.atPart();
        await this.page
          .getByRole("group", { name: "What this part is" })
          .getByRole("button", { name: partSaidWords[command.verdict], exact: true })
          .click();
        return this.settle();
      case "saveSetup":
        await this.atPart();
        await this.page.getByLabel("Initials").fill(command.initials);
        await this.page.getByRole("button", { name: "Keep this setup" }).click();
        return this.settle();
      case "nameStale": {
        await this.page.getByRole("button", { name: "Compare with today …" }).click();
        const sheet = this.page.getByRole("dialog", { name: /^Setup kept by/ });
        for (const register of command.registers)
          await sheet.getByLabel(`${registerName(register, this.machine)} is touch again`).check();
        await sheet.getByRole("button", { name: /^Say: / }).click();
        await sheet.getByText("Said.", { exact: true }).waitFor();
        await sheet.getByRole("button", { name: "Close" }).click();
        return this.settle();
      }
      case "takeSetupBack":
        await this.page.getByRole("button", { name: "Take it back" }).click();
        return this.settle();
      case "takeBlank":
        await this.atPart();
        await this.page.getByRole("button", { name: /^Take the next blank/ }).click();
        return this.settle();
      case "zeroCounter":
        await this.page.getByRole("button", { name: `Zero the ${command.axis.toUpperCase()} counter` }).click();
        return this.settle();
      case "tryStack": {
        await this.openAxis();
        await this.page.getByLabel("Stack of blocks").fill(command.text);
        await this.page.getByRole("radio", { name: command.under }).check();
        await this.inDialog("Try the stack").click();
        return this.settle();
      }
      case "zeroGauge":
        await this.openAxis();
        await this.inDialog("Zero it on the slide").click();
        return this.settle();
      case "readGauge":
        await this.openAxis();
        await this.inDialog(
          command.from === "below" ? "Past the crest, raise to the mark" : "Bring it down onto the crest",
        ).click();
        return this.settle();
      case "stateHeight": {
        await this.openAxis();
        const box = this.page.getByLabel(
          command.what === "axisHeight" ? "Height of the axis" : "Error of the setting gauge",
        );
        await box.fill(command.text);
        await box.press("Enter");
        await this.settle();
        await this.page.keyboard.press("Escape");
        return this.settle();
      }
      case "stateFit":
        if (!(await this.page.getByRole("dialog").isVisible())) await this.press("w");
        await this.inDialog(`Tool ${command.tool} ${command.fits ? "fits" : "does not fit"}`).click();
        return this.settle();
      case "strikeLine":
        return this.strike(command.line);
      case "index":
        if (this.machine === "readout")
          return this.dialog(
            () => this.press("d"),
            () => this.inDialog(`Put tool ${command.station} on the post`).click(),
          );
        return this.dialog(
          () => this.press("d"),
          () =>
            this.inDialog(
              command.withOffset ? `Tool ${command.station} with its offset` : `Tool ${command.station} without offset`,
            ).click(),
        );
      case "placeGap":
      case "tryGap":
        // one pin in the drawer is tried at once
        if (command.type === "tryGap" && (await this.page.getByRole("button", { name: /^Try gauge pin/ }).isVisible()))
          return this.do("j");
        return this.dialog(
          () => this.press(command.type === "placeGap" ? "p" : "j"),
          async () => {
            if (command.type === "placeGap" && command.hand)
              await this.page
                .getByLabel(command.hand === "post" ? "on the tool post, to be steady" : "clear of the machine")
                .check();
            await this.inDialog(
              new RegExp(
                `^${command.id === "straightEdge" ? "straight edge on" : command.id === "paper" ? "paper .* at" : "gauge pin .* at"} the ${turnedFaceWords[command.on]}${command.type === "placeGap" && command.side === "behind" ? ", the blade" : "$"}`,
              ),
            ).click();
          },
        );
      case "pullGap": {
        const isThin = await this.page.getByRole("button", { name: /^Pull it out/ }).isVisible();
        return this.do(isThin ? "p" : "j");
      }
      case "swingArm":
        return this.do("w");
      case "changeInsert":
        await this.page.getByRole("button", { name: /^Change the (chipped )?insert$/ }).click();
        return this.settle();
      case "keepPoint":
        await this.page.getByRole("button", { name: "Keep this point" }).click();
        return this.settle();
      case "setFromPoints":
        await this.page.getByRole("button", { name: `${command.axis.toUpperCase()} from its point` }).click();
        return this.settle();
      case "calibrate": {
        const labels = {
          ring: "Calibrate in the ring",
          block: "Calibrate on the block",
          probe: "Calibrate the setter by it",
          nose: "Calibrate the setter by the nose",
          pin: "Calibrate the setter by the master pin",
        };
        await this.page.getByRole("button", { name: labels[command.by] }).click();
        return this.settle();
      }
      case "raiseToGauge":
        await this.page
          .getByRole("button", { name: command.from === "below" ? /^Raise to the setting gauge/ : /^Let down onto/ })
          .click();
        return this.settle();
      case "turnChuck":
        return this.do("b");
      case "shimTool":
        return this.dialog(
          () => this.press("q"),
          async () => {
            await this.page.getByLabel("Raise the tool by", { exact: true }).fill(command.text);
            await this.inDialog("Shim it").click();
          },
        );
      case "measureTurned":
        return this.dialog(
          () => this.press("y"),
          () =>
            this.inDialog(
              new RegExp(`^${instrumentWords(command.by)} ${command.what === "pip" ? "over the pip" : ""}`),
            ).click(),
        );
      case "handIn":
        if (await this.page.getByRole("dialog").isVisible()) await this.page.keyboard.press("Escape");
        return this.handIn();
      case "reset":
        return this.do("Escape");
      case "raiseHand":
      case "lowerHand":
        return this.do("r");
      case "undoRegister":
        return this.do("u");
      case "changeParallels":
        return this.dialog(
          () => this.press("b"),
          () => this.inDialog(new RegExp(`^Parallels .* ${command.byMm > 0 ? "higher" : "lower"}$`)).click(),
        );
      case "tapPart":
        return this.dialog(
          () => this.press("b"),
          () =>
            this.inDialog(
              `Tap ${command.strength === "hard" ? "hard" : "lightly"}, ${command.direction === 1 ? "counter-clockwise" : "clockwise"}`,
            ).click(),
        );
      case "takeInRegisters":
        return this.dialog(
          () => this.page.getByRole("button", { name: "In and out" }).click(),
          async () => {
            const rows = command.rows.map(({ register, text }) => `${register},${text}`);
            await this.page.getByLabel(/Take in/).fill(rows.join("\n"));
            await this.inDialog(/^Take in/).click();
          },
        );
    }
  }
}
