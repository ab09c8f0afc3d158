import { join } from "node:path";
import type { Browser } from "playwright-core";
import { launch, onPages } from "../support/browser";
import { commandHome } from "../support/command";
import { until } from "../support/desktop";
import { startHub, type HubProcess } from "../support/hub";
import { OpenedWindow } from "../support/window";

onPages("two windows of one person's, on two devices", () => {
  const desk = commandHome();
  const laptop = commandHome();
  let hub: HubProcess;
  let browser: Browser;
  beforeAll(async () => {
    hub = await startHub(["--port", "0", "--data", join(desk.folder, "hub")]);
    browser = await launch();
  });
  afterAll(async () => {
    await browser.close();
    await hub.stop();
  });

  beforeEach(() => {
    for (const device of [desk, laptop]) device.fresh();
  });

  test("meet by an invitation, and are in step: what is done in one stands in the other, and each tells its devices", async () => {
    await desk.drawer(["collect"], "First wheatear on the seawall");
    const opened = [await OpenedWindow.open(desk.home()), await OpenedWindow.open(laptop.home())];
    const [here, there] = [await opened[0]!.page(browser), await opened[1]!.page(browser)];
    await here.openPanel("This computer");
    await here.in("[name=hub]").fill(hub.address);
    await here.button("Invite a device").click();
    await here.in(".invited img").waitFor();
    if (process.env["SHOT"]) await here.page.screenshot({ path: process.env["SHOT"] });
    const invitation = await here.in(".invited .words").innerText();
    await there.openPanel("This computer");
    await there.in("[name=invitation]").fill(invitation);
    await there.button("Join").click();
    await there.shows("First wheatear on the seawall");
    await desk.drawer(["collect"], "Sandwich terns over the bar");
    await there.shows("First wheatear on the seawall", "Sandwich terns over the bar");
    await there.in('[data-position="1"] .position').click();
    await there.page.keyboard.press("Delete");
    await here.shows("Sandwich terns over the bar");
    // What is read of the devices is read when the panel is opened.
    await there.button("Back to the list").click();
    await there.openPanel("This computer");
    await until(
      () => there.in(".panel.computer").innerText(),
      (text) => /Your devices[^]*: heard now[^]*: this one/.test(text),
    );
    expect([here.complaints, there.complaints]).toEqual([[], []]);
    await Promise.all(browser.contexts().map((context) => context.close()));
    expect(await Promise.all(opened.map((window) => window.end()))).toEqual([0, 0]);
  });
});
