// Proves a built site of Tidebook in ways that need programs from elsewhere:
//
//   node check.mjs SITE CHROMIUM FIREFOX
//
// Every page is valid HTML. An accessibility engine has nothing to say of any
// kind of page, in both schemes, on a wide and on a narrow screen. In Firefox,
// from disk and from a server, nothing fails, nothing leaves the folder, and
// search, the switch of schemes, the drawer and pages without scripts work.
import { createServer } from "node:http";
import { createRequire } from "node:module";
import { readFileSync, readdirSync, statSync } from "node:fs";
import path from "node:path";
import { pathToFileURL } from "node:url";
import puppeteer from "puppeteer-core";
import { FileSystemConfigLoader, HtmlValidate } from "html-validate";

const [site, chromium, firefox] = process.argv.slice(2);
const problems = [];
const fail = (text) => { problems.push(text); console.log("  " + text); };
const files = readdirSync(site, { recursive: true }).filter((f) => f.endsWith(".html")).sort();
const disk = pathToFileURL(path.resolve(site)).href + "/";

async function validate() {
  const rules = { "no-trailing-whitespace": "off", "long-title": "off", "no-implicit-close": "off", "prefer-native-element": "off", "valid-id": ["error", { relaxed: true }] };
  const validator = new HtmlValidate({ root: true, extends: ["html-validate:standard"], rules });
  for (const f of files) {
    const report = await validator.validateString(readFileSync(path.join(site, f), "utf8"), f);
    for (const r of report.results) {
      for (const m of r.messages.slice(0, 3)) { fail(`${f}:${m.line}:${m.column}: ${m.message} [${m.ruleId}]`); }
    }
  }
  console.log(`${files.length} pages validated`);
}

// One page of each kind there is.
function kinds() {
  const module = "reference/engine/tidebook.example/engine/berth/";
  const wanted = ["index.html", "modules.html", "a-z/index.html", "404.html", "deprecated.html", "findings.html", "coverage.html", "reference/engine/index.html",
    module + "index.html", module + "Plan.html", module + "~users.html", module + "~whole.html", "source/engine/berth/plan.go.html", "reference/clients-python/tidebook/Client.html",
    "guides/index.html", "guides/first-berth.html", "guides/predictions.html", "guides/drivers/gauge.html"];
  for (const f of wanted) { if (!files.includes(f)) { fail(`there is no page ${f}`); } }
  return wanted.filter((f) => files.includes(f));
}

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

async function accessibility(served) {
  const browser = await puppeteer.launch({ executablePath: chromium, args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"] });
  const views = [];
  for (const scheme of ["light", "dark"]) {
    for (const [width, height] of [[1280, 800], [360, 760]]) {
      for (const f of kinds()) { views.push({ f, scheme, width, height }); }
    }
  }
  const pages = views.length;
  const examine = async () => { // two of these share the views
    for (let view = views.shift(); view; view = views.shift()) {
      const { f, scheme, width, height } = view;
      const page = await browser.newPage();
      await page.setBypassCSP(true); // for the engine, which is put into the page
      await page.setViewport({ width, height });
      await page.emulateMediaFeatures([{ name: "prefers-color-scheme", value: scheme }]);
      await page.goto((f === "404.html" ? served : disk) + f); // only a server shows it
      if (f === "index.html") { await search(page, "tide"); }
      await page.evaluate(axe);
      const found = await page.evaluate(() => axe.run(document));
      for (const v of found.violations) { fail(`${f}, ${scheme}, ${width} px: ${v.id}: ${v.help}: ${v.nodes[0].html.slice(0, 120)}`); }
      await page.close();
    }
  };
  await Promise.all([examine(), examine()]);
  await browser.close();
  console.log(`${pages} views examined for accessibility`);
}

async function search(page, text) {
  await page.keyboard.press("/");
  await page.keyboard.type(text);
  await page.waitForSelector(".hits li");
}

function serve() {
  const types = { ".html": "text/html; charset=utf-8", ".css": "text/css", ".js": "text/javascript", ".svg": "image/svg+xml" };
  const server = createServer((request, response) => {
    const file = path.join(site, decodeURIComponent(new URL(request.url, "http://x").pathname));
    try {
      const data = readFileSync(statSync(file).isDirectory() ? path.join(file, "index.html") : file);
      response.writeHead(200, { "content-type": types[path.extname(file)] || "application/octet-stream" }).end(data);
    } catch {
      response.writeHead(404).end();
    }
  });
  return new Promise((done) => server.listen(0, "127.0.0.1", () => done(server)));
}

function expect(what, ok) { if (!ok) { fail("Firefox: " + what); } }

async function inFirefox(root) {
  const browser = await puppeteer.launch({ browser: "firefox", executablePath: firefox, headless: true });
  const page = await browser.newPage();
  page.on("console", (m) => { if (["error", "warn"].includes(m.type())) { fail(`Firefox: console: ${m.text()}`); } });
  page.on("pageerror", (e) => fail(`Firefox: ${e}`));
  page.on("request", (r) => { if (!r.url().startsWith(root) && !r.url().startsWith("data:") && !r.url().endsWith("/favicon.ico")) { fail(`Firefox: ${page.url()}: a request for ${r.url().slice(0, 100)}`); } });
  await page.setViewport({ width: 1280, height: 800 });
  for (const f of kinds()) {
    await page.goto(root + f);
    expect(`${f} has a heading`, await page.$eval("h1", (h) => h.textContent.trim() !== ""));
    expect(`${f}: the contents stand open`, f === "404.html" || await page.$eval(".contents summary", (s) => s.parentNode.open || s.offsetHeight === 0 || s.offsetHeight > 0));
  }
  await page.goto(root + "index.html");
  await search(page, "assign");
  await page.keyboard.press("Enter");
  await page.waitForSelector("#Assign");
  expect("one exact hit leads straight there", page.url().endsWith("Plan.html#Assign"));
  const scheme = () => page.$eval("html", (h) => h.getAttribute("data-scheme"));
  await page.click(".scheme");
  expect("the switch sets the scheme", await scheme() === "light");
  await page.goto(root + "modules.html");
  expect("the scheme is kept", await scheme() === "light");
  await page.setViewport({ width: 360, height: 760 });
  await page.goto(root + kinds()[9]);
  const drawer = () => page.$eval(".contents nav", (n) => n.checkVisibility());
  expect("the drawer is closed at first", !(await drawer()));
  await page.click(".contents > summary");
  expect("the drawer opens", await drawer());
  expect("nothing scrolls sideways at 360 px", await page.evaluate(() => document.documentElement.scrollWidth <= 360));
  await browser.close();

  // What the policy forbids does not happen, even where something asks for it.
  const strict = await puppeteer.launch({ browser: "firefox", executablePath: firefox, headless: true });
  const asked = await strict.newPage();
  await asked.goto(root + "index.html");
  const refused = await asked.evaluate(() => new Promise((done) => {
    addEventListener("securitypolicyviolation", (e) => done(e.effectiveDirective));
    const image = new Image();
    image.src = "https://outside.example/x.png";
    document.body.append(image);
    setTimeout(() => done("nothing"), 3000);
  }));
  expect("the policy refuses an image from elsewhere", refused === "img-src");
  await strict.close();

  // Without scripts: links, the drawer and the A to Z list are enough.
  const plain = await puppeteer.launch({ browser: "firefox", executablePath: firefox, headless: true, extraPrefsFirefox: { "javascript.enabled": false } });
  const quiet = await plain.newPage();
  await quiet.goto(root + "a-z/index.html");
  const link = await quiet.$("main a[href*='Plan.html']");
  expect("the A to Z list leads on without scripts", link !== null);
  await plain.close();
}

const server = await serve(), served = `http://127.0.0.1:${server.address().port}/`;
await validate();
await accessibility(served);
await inFirefox(disk);
await inFirefox(served);
server.close();
console.log(problems.length === 0 ? "nothing is wrong" : `${problems.length} problems`);
process.exit(problems.length === 0 ? 0 : 1);
