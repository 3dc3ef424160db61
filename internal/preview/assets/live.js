// Shows a page anew when it has changed, at the place where its reader is. Everything else of
// the preview works without this script.
"use strict";
(function () {
  var events = null, place = "codrel-place", fold = "codrel-panel";
  function kept(of, key, value) {
    try {
      if (value === undefined) { return of.getItem(key); }
      of.setItem(key, value);
    } catch (e) { /* a browser may keep nothing */ }
    return null;
  }
  function reload() {
    kept(sessionStorage, place, location.pathname + " " + scrollX + " " + scrollY);
    location.reload();
  }
  // What a page loads: where that changes, the page is loaded again.
  function loads(doc) {
    return Array.from(doc.querySelectorAll("head link, head script, body > script"), function (e) { return e.getAttribute("href") || e.getAttribute("src"); }).join(" ");
  }
  var parts = ["main", ".columns > .contents nav", ".head nav", ".foot", ".preview"];
  // Puts what is new into the page; the rest of it, and the place of its reader, stay.
  function put(text) {
    var now = new DOMParser().parseFromString(text, "text/html");
    if (loads(now) !== loads(document) || !parts.every(function (p) { return !document.querySelector(p) === !now.querySelector(p); })) { reload(); return; }
    document.title = now.title;
    parts.forEach(function (p) {
      var was = document.querySelector(p), is = now.querySelector(p);
      if (was && was.innerHTML !== is.innerHTML) {
        var top = was.scrollTop;
        was.innerHTML = is.innerHTML;
        was.scrollTop = top;
      }
    });
    script().setAttribute("data-events", now.querySelector("script[data-events]").getAttribute("data-events"));
    dress();
    dispatchEvent(new Event("codrel"));
    listen(true);
  }
  function anew() {
    fetch(location.pathname, { headers: { Accept: "text/html" } }).then(function (answer) { return answer.text(); }).then(put, reload);
  }
  function script() { return document.querySelector("script[data-events]"); }
  // A page that nobody sees holds no connection: browsers have few of them for one server.
  function listen(again) {
    if ((document.hidden || again === true) && events) { events.close(); events = null; }
    if (!document.hidden && !events) {
      events = new EventSource(script().getAttribute("data-events"));
      events.addEventListener("changed", anew);
    }
  }
  function dress() {
    var panel = document.querySelector(".preview details");
    if (panel) {
      panel.open = kept(localStorage, fold) !== "folded";
      panel.addEventListener("toggle", function () { kept(localStorage, fold, panel.open ? "open" : "folded"); });
    }
    document.querySelectorAll(".preview [data-copy]").forEach(function (button) {
      button.hidden = !navigator.clipboard;
      button.addEventListener("click", function () {
        navigator.clipboard.writeText(button.getAttribute("data-copy")).then(function () { button.textContent = "Copied"; });
      });
    });
  }
  var was = (kept(sessionStorage, place) || "").split(" ");
  if (was[0] === location.pathname) {
    kept(sessionStorage, place, "");
    history.scrollRestoration = "manual";
    scrollTo(+was[1], +was[2]);
    addEventListener("load", function () { scrollTo(+was[1], +was[2]); history.scrollRestoration = "auto"; });
  }
  dress();
  document.addEventListener("visibilitychange", listen);
  addEventListener("beforeunload", function () { if (events) { events.close(); } });
  listen();
})();
