// Marks in the contents of a guide's text which part of it is being read.
"use strict";
(function () {
  var links = [], heads = [], waits = false;
  function mark() {
    waits = false;
    var here = -1, bottom = innerHeight + scrollY >= document.documentElement.scrollHeight - 2;
    heads.forEach(function (h, i) {
      if (h && h.getBoundingClientRect().top < (bottom ? innerHeight : innerHeight / 4)) { here = i; }
    });
    links.forEach(function (a, i) {
      if (i === here) { a.setAttribute("aria-current", "location"); } else { a.removeAttribute("aria-current"); }
    });
  }
  function soon() {
    if (!waits) { waits = true; requestAnimationFrame(mark); }
  }
  function start() {
    links = Array.from(document.querySelectorAll(".margin .contents a"));
    heads = links.map(function (a) { return document.getElementById(decodeURIComponent(a.hash.slice(1))); });
    mark();
  }
  addEventListener("scroll", soon, { passive: true });
  addEventListener("resize", soon);
  addEventListener("codrel", start); // the text was put in anew
  if (document.readyState === "loading") { document.addEventListener("DOMContentLoaded", start); } else { start(); }
})();
