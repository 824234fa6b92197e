import { execFileSync } from "node:child_process";
import { X509Certificate } from "node:crypto";
import { readFileSync } from "node:fs";
import { networkInterfaces } from "node:os";
import { expect, test, type Page } from "@playwright/test";
import { accessible } from "./accessible";
import { card, check, enter } from "./floorHands";
import { onShared, OwnServer } from "./server";

/** An address by which others find this machine; null where it is in no network. */
const outerAddress = (): string | null =>
  Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    .find(({ internal, family }) => !internal && family === "IPv4")?.address ?? null;

async function emptyDatabase(name: string): Promise<string> {
  await onShared(`create database ${name}`);
  return Object.assign(new URL(process.env["DATABASE_URL"] ?? ""), { pathname: `/${name}` }).href;
}

async function fillIn(page: Page, form: Record<string, string>): Promise<void> {
  for (const [label, text] of Object.entries(form)) await page.getByLabel(new RegExp(`^${label}`)).fill(text);
}

test("an empty school is begun with the code of the terminal, reached in secret from a phone, and signs its first floor lane", async ({
  browser,
}, { outputDir }) => {
  test.setTimeout(120_000);
  const tls = `${outputDir}/tls`;
  execFileSync("node", ["dist/server/makeCertificate.js", tls], { stdio: "ignore" });
  const server = new OwnServer(
    {
      DATABASE_URL: await emptyDatabase(`school_${process.pid}`),
      HOST: "0.0.0.0",
      TLS_CERT: `${tls}/certificate.pem`,
      TLS_KEY: `${tls}/key.pem`,
    },
    ["--empty"],
  );
  await server.start();
  expect(server.said).not.toContain("Demo accounts");
  const code = /begin with the code ([A-Z0-9]{8})/.exec(server.said)?.[1] ?? "";
  const outer = outerAddress();
  const address = `${outer ?? "127.0.0.2"}:${server.port}`;
  const url = `https://${address}`;
  // a machine in no network tells the address by which it finds itself
  const told = outer === null ? `https://127.0.0.1:${server.port}` : url;
  // this machine's own certificate is none that a browser knows
  const desk = await browser.newContext({ ignoreHTTPSErrors: true, baseURL: url });
  const page = await desk.newPage();

  // typed without its "https", it is found all the same; and whatever page is opened, the school is begun first
  await page.goto(`http://${address}/sign-in`);
  await expect(page).toHaveURL(`${url}/first`);
  const form = {
    "Code, as the terminal shows it": "AAAA AAAA",
    School: "Hollowbrook Workshop School",
    Class: "First Year",
    "Sign-in name": "Thistlewood",
    "Your name, as students know it": "Ada Thistlewood",
    "A password of your own, at least 10 characters": "thistlewood1",
  };
  await fillIn(page, form);
  const begin = page.getByRole("button", { name: "Begin" });
  await begin.click();
  await expect(page.getByRole("alert")).toContainText("not the code that the terminal shows");
  await fillIn(page, { "Code, as the terminal shows it": `${code.slice(0, 4)} ${code.slice(4)}`.toLowerCase() });
  await begin.click();
  await expect(page.getByRole("alert")).toContainText("too easy to guess");
  await expect(page.getByLabel("School", { exact: true })).toHaveValue("Hollowbrook Workshop School");
  await accessible(page);
  await fillIn(page, { "A password of your own, at least 10 characters": "granite and blue dye" });
  await begin.click();
  await expect(page.getByRole("heading", { name: "First Year" })).toBeVisible();
  await expect(page.getByText("Nobody yet.")).toBeVisible();
  // where it is found, and by which certificate
  await expect(page.getByTestId("address").first()).toHaveText(told);
  const { fingerprint256 } = new X509Certificate(readFileSync(`${tls}/certificate.pem`));
  await expect(page.getByTestId("fingerprint")).toHaveText(fingerprint256);
  await expect(page.getByRole("img", { name: `Code to scan: opens ${told}/join` })).toBeVisible();
  await accessible(page);
  const [cookie] = (await desk.cookies()).filter(({ name }) => name === "probe-lane");
  expect(cookie).toMatchObject({ secure: true, httpOnly: true });
  const joinCode = (await page.getByTestId("join-code").innerText()).replace(/\s/g, "");

  // an exercise at the real machine
  await page.getByRole("link", { name: "Floor" }).click();
  await page.getByLabel("Title").fill("Clamp, one tool");
  await page.getByLabel("Tools to set").fill("1");
  await page.getByRole("button", { name: "Give it to the class" }).click();
  await expect(page.getByRole("region", { name: "Clamp, one tool" })).toContainText("Nobody has begun");
  // its sheet of paper has a code that opens the lane
  await page.getByRole("link", { name: "Worksheet" }).click();
  await expect(page.getByRole("img", { name: `Code to scan: opens this lane at ${address}` })).toBeVisible();
  const scanned = new URL(page.url()).pathname.replace(/worksheet$/, "lane");
  await page.goBack();

  // a phone beside the machine
  const hand = await browser.newContext({
    ignoreHTTPSErrors: true,
    baseURL: url,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  });
  const phone = await hand.newPage();
  await phone.goto("/first");
  await expect(phone).toHaveURL(`${url}/sign-in`);
  await phone.goto("/join");
  await fillIn(phone, {
    "Code, from your instructor": joinCode,
    "Sign-in name": "marlpit",
    "Your name, as the class knows it": "Edda Marlpit",
    "A password of your own, at least 10 characters": "parallels and jaws",
  });
  await phone.getByRole("button", { name: "Join the class" }).click();
  await expect(phone.getByRole("heading", { name: "Practice" })).toBeVisible();
  await expect(phone.getByText(/^You have a new account: Edda Marlpit, in First Year/)).toBeVisible();
  await phone.goto(scanned);
  await phone.getByRole("button", { name: "I have read these" }).click();
  await phone.getByRole("button", { name: "All registers on one page" }).click();
  const values = { "G54 X": "-329.667", "G54 Y": "-191.119", "H1 length": "-250.781" };
  await enter(phone, "G54 X", "Enter register", values["G54 X"]);
  await hand.setOffline(true);
  await enter(phone, "G54 Y", "Enter register", values["G54 Y"]);
  await enter(phone, "H1 length", "Enter register", values["H1 length"]);
  await expect(phone.getByText(/entries wait on this device/)).toBeVisible();
  await hand.setOffline(false);
  await expect(phone.getByText(/wait on this device/)).toBeHidden({ timeout: 20_000 });

  await page.reload();
  await page.getByRole("link", { name: "Edda Marlpit" }).click();
  // touched and found good: one act for all of them, and no figure
  const together = page.getByRole("button", { name: /within tolerance, by my own touch$/ });
  await expect(together).toBeDisabled();
  for (const name of ["G54 X", "G54 Y", "H1 length"]) await page.getByRole("checkbox", { name }).check();
  await page.getByRole("checkbox", { name: "H1 length" }).uncheck();
  await page.getByRole("button", { name: "These 2 are within tolerance, by my own touch" }).click();
  await expect(card(page, "G54 X")).toContainText("touched, and −329.667 found within");
  await check(page, { "H1 length": values["H1 length"] });
  await accessible(page);
  await page.getByRole("button", { name: "Sign this setup" }).click();
  await expect(phone.getByText(/^Signed by Ada Thistlewood \(AT\)/)).toBeVisible({ timeout: 15_000 });
  await phone.getByRole("button", { name: "Hand in" }).click();
  await phone.getByRole("button", { name: "Yes, hand in" }).click();
  await expect(phone.getByText("G54 X is within its tolerance.")).toBeVisible({ timeout: 15_000 });

  // the next start asks for nobody, and brings no demo
  await server.kill();
  await server.start();
  expect(server.said).not.toMatch(/begin with the code|Demo accounts/);
  await page.goto("/first");
  await expect(page.getByRole("heading", { name: "First Year" })).toBeVisible();
  await server.kill();
});
