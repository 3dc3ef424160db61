// Proves the preview of Tidebook in two browsers:
//
//   node preview.mjs CODREL FOLDER CHROMIUM FIREFOX
//
// FOLDER is a copy of the demo that may be changed. A save is on the open page, at the place
// where its reader is; the panel of findings can be folded and stays so; wrong settings are said;
// the contents of a guide follow the scroll; without scripts all but the reload works.
import { spawn } from "node:child_process";
import { createRequire } from "node:module";
import { readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import puppeteer from "puppeteer-core";

const [codrel, folder, chromium, firefox] = process.argv.slice(2);
const problems = [];
const file = (name) => path.join(folder, name);
const change = (name, from, to) => {
  const was = readFileSync(file(name), "utf8");
  if (!was.includes(from)) { throw new Error(`${name} has no ${from}`); }
  writeFileSync(file(name), was.replace(from, to));
};

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

function serve(...folders) {
  const program = spawn(codrel, ["serve", "--address", "localhost:0", ...folders], { stdio: ["ignore", "pipe", "inherit"] });
  return new Promise((done) => {
    let said = "";
    program.stdout.on("data", (data) => {
      said += data;
      const address = /http:\/\/\S+/.exec(said);
      if (address && said.includes("read in")) { done({ program, root: address[0] }); }
    });
  });
}

async function proves(name, launch, root) {
  const expect = (what, ok) => { if (!ok) { problems.push(what); console.log(`  ${name}: ${what}`); } };
  const browser = await puppeteer.launch(launch);
  const page = await browser.newPage();
  page.on("pageerror", (e) => expect(`no error: ${e}`, false));
  await page.setViewport({ width: 1280, height: 800 });
  let loads = 0;
  page.on("load", () => { loads++; });

  await page.goto(root + "guides/first-berth.html");
  const waits = (text) => page.waitForFunction((t) => document.body.textContent.includes(t), { timeout: 10000 }, text).then(() => true, () => false);
  await page.evaluate(() => scrollTo(0, 700));
  await new Promise((done) => setTimeout(done, 200));
  const here = () => page.evaluate(() => document.querySelector(".margin [aria-current]")?.textContent);
  expect(`the contents follow the scroll (${await here()})`, await here() === "From another language" || await here() === "Ask for a place");
  const before = await page.evaluate(() => scrollY);
  expect("it is scrolled", before > 300);
  const mark = `Saved for ${name}.`;
  change("docs/guides/first-berth.md", "## Ask for a place\n", `## Ask for a place\n\n${mark}\n`);
  expect("a save of the guide is on the page", await waits(mark));
  expect("the place of the reader is kept", await page.evaluate(() => scrollY) === before);
  expect("the page was not loaded again", loads === 1);
  expect("examples can be copied still", await page.evaluate(() => document.querySelectorAll(".excerpt .copy").length > 3));
  change("engine/berth/berth.go", "return v.Draught + UnderKeel }", `return v.Draught + UnderKeel } // ${name}`);
  expect("a save of the source is in the excerpt", await waits(`// ${name}`));

  await page.click(".preview summary");
  expect("the panel folds", await page.evaluate(() => !document.querySelector(".preview details").open));
  change("docs/guides/first-berth.md", mark, mark + " Again.");
  expect("a second save is on the page", await waits(mark + " Again."));
  expect("the panel stays folded", await page.evaluate(() => !document.querySelector(".preview details").open));
  await page.goto(root + "guides/predictions.html");
  await page.goto(root + "guides/first-berth.html");
  expect("it stays folded on another page", await page.evaluate(() => !document.querySelector(".preview details").open));

  const settings = readFileSync(file("codrel.yaml"), "utf8");
  writeFileSync(file("codrel.yaml"), "nmae: x\n" + settings);
  expect("wrong settings are said", await waits('has no key "nmae"'));
  expect("the last right ones hold", await waits("The pages are still those of before."));
  writeFileSync(file("codrel.yaml"), settings);
  expect("right ones end that", await page.waitForFunction(() => !document.body.textContent.includes("nmae"), { timeout: 10000 }).then(() => true, () => false));
  await browser.close();
  return expect;
}

// What the preview adds to pages, and its page of several projects, keep to the rules of an
// accessibility engine.
async function accessible(launch, addresses) {
  const browser = await puppeteer.launch(launch);
  for (const scheme of ["light", "dark"]) {
    for (const [width, height] of [[1280, 800], [360, 760]]) {
      for (const address of addresses) {
        const page = await browser.newPage();
        await page.setBypassCSP(true); // for the engine, which is put into the page
        await page.setViewport({ width, height });
        await page.emulateMediaFeatures([{ name: "prefers-color-scheme", value: scheme }]);
        await page.goto(address);
        await page.evaluate(axe);
        for (const v of (await page.evaluate(() => axe.run(document))).violations) {
          problems.push(v.id);
          console.log(`  ${address}, ${scheme}, ${width} px: ${v.id}: ${v.help}: ${v.nodes[0].html.slice(0, 160)}`);
        }
        await page.close();
      }
    }
  }
  await browser.close();
}

async function withoutScripts(launch, root, expect) {
  const browser = await puppeteer.launch(launch);
  const page = await browser.newPage();
  await page.goto(root + "guides/first-berth.html");
  expect("without scripts the panel is there", (await page.$(".preview summary")) !== null);
  expect("without scripts links lead on", (await page.$(".contents a[href='predictions.html']")) !== null);
  await browser.close();
}

const { program, root } = await serve(folder);
const flags = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"];
await proves("Chromium", { executablePath: chromium, args: flags }, root);
const expect = await proves("Firefox", { browser: "firefox", executablePath: firefox, headless: true }, root);
await withoutScripts({ browser: "firefox", executablePath: firefox, headless: true, extraPrefsFirefox: { "javascript.enabled": false } }, root, expect);
const several = await serve(folder, path.join(folder, "lockwatch"));
await accessible({ executablePath: chromium, args: flags }, [root + "guides/first-berth.html", root + "modules.html", several.root, several.root + "?q=plan"]);
several.program.kill("SIGINT");
const code = await new Promise((done) => { program.on("exit", done); program.kill("SIGINT"); });
if (code !== 0) { problems.push("the end"); console.log(`  the preview ended with ${code}`); }
console.log(problems.length === 0 ? "the preview holds in two browsers" : `${problems.length} problems`);
process.exit(problems.length === 0 ? 0 : 1);
