// Search and the switch of schemes. Everything else works without this script.
// It is a classic script and loads its data as classic scripts, because a page
// that is opened from disk may load nothing else. The rules of the search are
// those of package search; one table of queries is run against both.
"use strict";
(function () {
  var me = document.currentScript, root = me.getAttribute("data-root"), library = me.getAttribute("data-library");
  var store = {
    get: function (key) { try { return localStorage.getItem("codrel-" + key); } catch (e) { return null; } },
    set: function (key, value) { try { localStorage.setItem("codrel-" + key, value); } catch (e) { /* a page on disk may not keep anything */ } }
  };

  /* What is said, unless the site has texts of its own */
  var texts = {
    "find": "Search", "found": "Search results", "slash": "press / to search", "scheme": "Scheme: {scheme}", "auto": "auto", "light": "light", "dark": "dark",
    "deprecated": "deprecated", "in-module": "in {module}", "not-loaded": "The search data could not be loaded; the A to Z list has every name.",
    "not-found": "Nothing found for “{query}” among {n} names.", "nearest": "Nearest: {names}.", "name.one": "1 name", "name.many": "{n} names",
    "copy": "Copy", "copied": "Copied", "copy-marked": "Selected: copy it with the keyboard"
  };
  function say(key, values) {
    var text = (window.codrelTexts || texts)[key];
    Object.keys(values || {}).forEach(function (name) { text = text.split("{" + name + "}").join(values[name]); });
    return text;
  }

  /* The scheme */
  var schemes = ["auto", "light", "dark"], page = document.documentElement;
  function scheme() { var s = store.get("scheme"); return schemes.indexOf(s) < 0 ? "auto" : s; }
  function applyScheme(s) { if (s === "auto") { page.removeAttribute("data-scheme"); } else { page.setAttribute("data-scheme", s); } }
  applyScheme(scheme());

  /* What a name is made of */
  function isUpper(c) { return c !== undefined && c !== c.toLowerCase(); }
  function isLower(c) { return c !== undefined && c !== c.toUpperCase(); }
  function isDigit(c) { return /\p{Nd}/u.test(c); }
  function starts(name) {
    var out = [], c = Array.from(name);
    for (var i = 0; i < c.length; i++) {
      var up = isUpper(c[i]);
      if (i === 0 || up && !isUpper(c[i - 1]) || up && isLower(c[i + 1]) || isDigit(c[i]) && !isDigit(c[i - 1]) || !/[_ ]/.test(c[i]) && /[_ ]/.test(c[i - 1])) { out.push(i); }
    }
    return out;
  }
  function alongHumps(name, term) {
    var low = Array.from(name.toLowerCase()), want = Array.from(term), begin = starts(name);
    if (want.length < 2 || want.length > 32 || low.length > 128) { return false; }
    var failed = {};
    function along(i, j) {
      if (j === want.length) { return true; }
      if (failed[i + " " + j]) { return false; }
      var w = want[j].toLowerCase(), capital = isUpper(want[j]) && j > 0;
      if (i < low.length && low[i] === w && (!capital || begin.includes(i)) && along(i + 1, j + 1)) { return true; }
      for (var k = i + 1; k < low.length && j > 0; k++) {
        if (begin.indexOf(k) >= 0 && low[k] === w && along(k + 1, j + 1)) { return true; }
      }
      failed[i + " " + j] = true;
      return false;
    }
    return along(0, 0);
  }
  function distance(a, b, most) {
    a = Array.from(a); b = Array.from(b);
    if (Math.abs(a.length - b.length) >= most) { return most; }
    var before = [], last = [], row = [], i, j;
    for (j = 0; j <= b.length; j++) { last[j] = j; }
    for (i = 1; i <= a.length; i++) {
      row = [i];
      for (j = 1; j <= b.length; j++) {
        var d = Math.min(row[j - 1] + 1, last[j] + 1, last[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1));
        if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) { d = Math.min(d, before[j - 2] + 1); }
        row[j] = d;
      }
      before = last; last = row;
    }
    return Math.min(last[b.length], most);
  }
  var common = {};
  ("about been does each from have into only returns than that their them then they this used when where whether which will with").split(" ").forEach(function (w) { common[w] = true; });
  function summaryWords(text) {
    return text.toLowerCase().split(/[^\p{L}\p{Nd}]+/u).filter(function (w) { return Array.from(w).length >= 4 && !common[w]; });
  }
  function isText(e) { return /^guide/.test(e.kind); }
  function anyStarts(list, start) { return list.some(function (w) { return w.toLowerCase().indexOf(start) === 0; }); }

  /* Queries */
  var NONE = 8;
  function parse(text) {
    var q = { name: "", qualifier: [], kind: "", "in": "", takes: "", gives: "" }, rest = [];
    text.split(/\s+/).forEach(function (word) {
      var m = /^(kind|in|takes|gives):(?!:)(.*)$/.exec(word);
      if (m) { q[m[1]] = m[2].toLowerCase(); } else if (word) { rest.push(word); }
    });
    var parts = rest.join(".").replace(/::|->|[#\/]/g, ".").replace(/\(\)$/, "").split(".");
    q.name = parts.pop();
    q.qualifier = parts.filter(Boolean).map(function (p) { return p.toLowerCase(); });
    return q;
  }
  function matchName(e, term, slips) {
    var name = e.name.toLowerCase(), low = term.toLowerCase(), n = Array.from(low).length;
    if (slips) { return n >= 4 && distance(low, name, (n >= 8 ? 2 : 1) + 1) <= (n >= 8 ? 2 : 1) ? 7 : NONE; }
    if (e.name === term || name === term) { return 0; }
    if (name === low) { return 1; }
    if (alongHumps(e.name, term)) { return name.indexOf(low) === 0 ? 2 : 3; }
    if (name.indexOf(low) === 0) { return innerCapital(term) ? 4 : 2; }
    var letters = Array.from(name);
    if (starts(e.name).some(function (s) { return s > 0 && letters.slice(s).join("").indexOf(low) === 0; })) { return 4; }
    if (anyStarts(e.words, low)) { return isText(e) ? 6 : 5; }
    if (n >= 4 && anyStarts(summaryWords(e.summary), low)) { return 6; }
    return NONE;
  }
  function innerCapital(term) {
    var small = false;
    return Array.from(term).some(function (c) {
      var found = small && isUpper(c);
      small = small || isLower(c);
      return found;
    });
  }
  function within(e, module, place) {
    module = "/" + module.toLowerCase().replace(/\./g, "/");
    place = "/" + place.replace(/\./g, "/");
    return "/" + e.library.toLowerCase() === place || module.slice(-place.length) === place || module.indexOf(place + "/") >= 0 ||
      module.slice(module.lastIndexOf("/")).indexOf(place) === 0;
  }
  // The module, of those that an entry is known in, that a query asks for.
  function placed(e, q) {
    return [e.module].concat(e.also).filter(function (module) {
      if (q["in"] && !within(e, module, q["in"])) { return false; }
      if (!q.qualifier.length) { return true; }
      var path = (module + "." + e.scope).toLowerCase().split(/[.\/]+/).filter(Boolean).slice(-q.qualifier.length);
      return path.length === q.qualifier.length && q.qualifier.every(function (w, i) { return path[i].indexOf(w) === 0; }) ||
        isText(e) && q.qualifier.every(function (w) { return anyStarts(e.name.split(" ").concat(e.words), w); });
    })[0];
  }
  function match(e, q, slips) {
    if (q.kind && e.kind.indexOf(q.kind) !== 0 || placed(e, q) == null ||
        q.takes && !anyStarts(e.takes, q.takes) || q.gives && !anyStarts(e.gives, q.gives)) { return NONE; }
    return q.name ? matchName(e, q.name, slips) : 2;
  }
  var ranks = { module: 0, "function": 2, macro: 2, method: 3, constructor: 3, operator: 3, property: 3, constant: 4, variable: 4, guide: 4, "enum-member": 4, field: 5, "guide-section": 5 };
  function rank(kind) { return ranks.hasOwnProperty(kind) ? ranks[kind] : 1; }
  function word(a, b) { return a < b ? -1 : a > b ? 1 : 0; }
  function last(h) { return h.entry.deprecated && h.klass > 1 ? 1 : 0; }
  function compare(a, b) {
    var x = a.entry, y = b.entry;
    return last(a) - last(b) || a.klass - b.klass || (a.slips || 0) - (b.slips || 0) || x.deprecated - y.deprecated || (x.library !== library) - (y.library !== library) || rank(x.kind) - rank(y.kind) ||
      Array.from(x.name).length - Array.from(y.name).length || word(x.name.toLowerCase(), y.name.toLowerCase()) || word(x.name, y.name) ||
      word(x.module, y.module) || word(x.scope, y.scope);
  }
  function find(entries, q, limit) {
    var hits = [], good = 0;
    if (!q.name && !q.qualifier.length && !q.kind && !q["in"] && !q.takes && !q.gives) { return hits; }
    entries.forEach(function (e) {
      var c = match(e, q, false);
      if (c < NONE) { hits.push({ entry: e, klass: c }); if (c <= 4) { good++; } }
    });
    if (good < 5 && q.name) {
      var seen = hits.map(function (h) { return h.entry; });
      entries.forEach(function (e) {
        if (!seen.includes(e) && match(e, q, true) === 7) { hits.push({ entry: e, klass: 7, slips: distance(q.name.toLowerCase(), e.name.toLowerCase(), 3) }); }
      });
    }
    var shown = {};
    return hits.sort(compare).filter(function (h) {
      var key = isText(h.entry) ? h.entry.address + h.entry.name : "";
      return !key || !shown[key] && (shown[key] = true);
    }).slice(0, limit);
  }

  function nearest(entries, q) {
    var term = q.name.toLowerCase(), most = Math.floor(Array.from(term).length / 2) + 1, names = [];
    entries.map(function (e) { return { entry: e, klass: 7, slips: distance(term, e.name.toLowerCase(), most) }; })
      .filter(function (h) { return h.slips < most; }).sort(compare)
      .forEach(function (h) { if (names.length < 3 && names.indexOf(h.entry.name) < 0) { names.push(h.entry.name); } });
    return names;
  }

  /* Shards */
  var index = null, nodes = {}, waiting = {}, loaded = {};
  function load(file, done) {
    if (waiting[file]) { waiting[file].push(done); return; }
    waiting[file] = [done];
    var s = document.createElement("script");
    s.src = root + "search/" + file + ".js";
    s.onload = s.onerror = function () { var list = waiting[file]; waiting[file] = []; list.forEach(function (f) { f(); }); };
    document.head.appendChild(s);
  }
  window.codrelIndex = function (data) {
    var before = "";
    index = data;
    index.modules = [];
    data.runs.forEach(function (run) {
      run.modules.forEach(function (m) {
        m = [].concat(m);
        before = before.slice(0, parseInt(m[0][0], 36)) + m[0].slice(1);
        index.modules.push([before, run.library, run.folder + (m.length > 1 ? m[1] : before + "/"), m[2]]);
      });
    });
    data.nodes.split(" ").forEach(function (n) { nodes[n] = true; });
  };
  window.codrelShard = function (name, rows) {
    loaded[name] = rows.map(function (r) {
      var m = index.modules[r[2]];
      return {
        name: r[0], scope: r[1], module: m[0], library: m[1], kind: r[3], address: root + m[2] + r[4], summary: r[5] || "", deprecated: r[6] || 0,
        takes: (r[7] || "").split(" ").filter(Boolean), gives: (r[8] || "").split(" ").filter(Boolean), words: (r[9] || "").split(" ").filter(Boolean),
        also: (r[10] || "").split(" ").filter(Boolean).map(function (i) { return index.modules[i][0]; })
      };
    });
  };
  function shardFile(name) {
    return "k-" + Array.from(name).map(function (c) { return /[a-z0-9]/.test(c) ? c : "~" + c.codePointAt(0).toString(16) + "~"; }).join("");
  }
  function nodeOf(text) {
    var best = "", letters = Array.from(text);
    for (var i = 1; i <= letters.length; i++) {
      var name = letters.slice(0, i).join("");
      if (!nodes[name]) { break; }
      best = name;
    }
    return best;
  }
  // At most three shards a key stroke: of the word, of its humps, and of the
  // word with its first two letters the other way round.
  function wanted(q) {
    var low = (q.name || q.takes || q.gives).toLowerCase(), letters = Array.from(low), out = [nodeOf(low)];
    var humps = Array.from(q.name).filter(function (c, i) { return i === 0 || isUpper(c); }).join("").toLowerCase();
    if (humps.length > 1 && humps !== low) { out.push(nodeOf(humps)); }
    if (letters.length > 3) { out.push(nodeOf(letters[1] + letters[0] + letters.slice(2).join(""))); }
    out = out.filter(function (n, i) { return out.indexOf(n) === i; }).slice(0, 3);
    // Those that are called so, where they are many; a place asks for all of them.
    for (var whole = low + "\u0001"; nodes[whole]; whole += "\u0001") {
      out.push(whole);
      if (!q.qualifier.length && !q["in"]) { break; }
    }
    return out;
  }
  // A place alone leads to no shard, but all modules are known.
  function modules(known) {
    var seen = {};
    known.forEach(function (e) { seen[e.address] = true; });
    return index.modules.filter(function (m) { return !m[3] && !seen[root + m[2] + "index.html"]; }).map(function (m) {
      return { name: m[0].split("/").pop(), scope: "", module: m[0], library: m[1], also: [], kind: "module", address: root + m[2] + "index.html", summary: "", deprecated: 0, takes: [], gives: [], words: [] };
    });
  }
  function search(text, limit, done) {
    if (!index) { load("index", function () { if (index) { search(text, limit, done); } else { done(null); } }); return; }
    var q = parse(text), names = wanted(q), missing = names.filter(function (n) { return !loaded[n]; });
    var left = missing.length;
    function ready() {
      var entries = [], seen = {};
      names.forEach(function (n) {
        (loaded[n] || []).forEach(function (e) {
          var key = [e.address, e.name, e.module, e.words[0]] + "";
          if (!seen[key]) { seen[key] = true; entries.push(e); }
        });
      });
      if (!q.name && q["in"]) { entries = entries.concat(modules(entries)); }
      var hits = find(entries, q, limit);
      done(hits, q, hits.length || !q.name ? [] : nearest(entries, q));
    }
    if (!left) { ready(); }
    missing.forEach(function (n) { load(shardFile(n), function () { if (--left === 0) { ready(); } }); });
  }
  window.codrelSearch = search;

  /* The page */
  function make(tag, attributes, text) {
    var e = document.createElement(tag);
    Object.keys(attributes || {}).forEach(function (k) { e.setAttribute(k, attributes[k]); });
    if (text) { e.textContent = text; }
    return e;
  }
  function marked(e, q) {
    var name = e.name, out = isText(e) ? make("span", {}) : make("code", { translate: "no" }), low = name.toLowerCase(), want = Array.from((q.name || "").toLowerCase());
    var at = low.indexOf(want.join("")), letters = Array.from(name), begin = starts(name), j = 0;
    letters.forEach(function (c, i) {
      var hit = at >= 0 ? want.length > 0 && i >= at && i < at + want.length : j < want.length && c.toLowerCase() === want[j] && (j > 0 && i > 0 && letters[i - 1].toLowerCase() === want[j - 1] || begin.includes(i));
      if (hit && at < 0) { j++; }
      out.appendChild(hit ? make("mark", {}, c) : document.createTextNode(c));
    });
    return out;
  }
  // Brings the page's own line of the contents into sight.
  function showPlace() {
    var here = document.querySelector(".contents [aria-current]"), nav = here && here.closest("nav");
    if (nav && nav.scrollHeight > nav.clientHeight) { nav.scrollTop += here.getBoundingClientRect().top - nav.getBoundingClientRect().top - nav.clientHeight / 3; }
  }
  // A copied example has neither the prompts nor the output of a session in a shell.
  function withoutPrompts(text) {
    var lines = text.replace(/\n$/, "").split("\n"), prompt = /^(\$|>>>|\.\.\.) ?/;
    if (!prompt.test(lines[0]) || lines[0].indexOf("...") === 0) { return lines.join("\n") + "\n"; }
    return lines.filter(function (l) { return prompt.test(l); }).map(function (l) { return l.replace(prompt, ""); }).join("\n") + "\n";
  }
  function copyButtons() {
    document.querySelectorAll(".prose pre, .plate").forEach(function (pre) {
      var button = make("button", { type: "button", "class": "copy" }, say("copy")), holder = pre;
      if (pre.matches(".plate pre")) { return; }
      if (pre.tagName === "PRE") {
        holder = make("div", { "class": "copied" });
        pre.parentNode.insertBefore(holder, pre);
        holder.appendChild(pre);
      }
      holder.appendChild(button);
      if (pre.scrollWidth > pre.clientWidth) { pre.tabIndex = 0; } // who cannot point must be able to scroll
      function text() {
        return holder === pre ? Array.from(pre.querySelectorAll("pre"), function (p) { return p.textContent.trim() + "\n"; }).join("") : withoutPrompts(pre.textContent);
      }
      function mark() { // where the clipboard is blocked, the reader copies what is marked
        getSelection().selectAllChildren(pre.querySelector("pre") || pre);
        button.textContent = say("copy-marked");
      }
      button.addEventListener("click", function () {
        if (!navigator.clipboard) { mark(); return; }
        navigator.clipboard.writeText(text()).then(function () { button.textContent = say("copied"); }, mark);
      });
    });
  }
  // A click on a line's number gives the line's address.
  function lineNumbers() {
    var code = document.querySelector("ol.code");
    if (!code) { return; }
    code.addEventListener("click", function (event) {
      var line = event.target;
      if (line.tagName === "LI" && event.clientX - line.getBoundingClientRect().left < parseFloat(getComputedStyle(line).paddingLeft)) { location.hash = line.id; }
    });
  }
  function dress() {
    copyButtons();
    lineNumbers();
  }
  addEventListener("codrel", dress); // the text was put in anew
  function start() {
    showPlace();
    dress();
    var head = document.querySelector(".head");
    var button = make("button", { type: "button", "class": "scheme" });
    function label() { button.textContent = say("scheme", { scheme: say(scheme()) }); }
    button.addEventListener("click", function () {
      var s = schemes[(schemes.indexOf(scheme()) + 1) % schemes.length];
      store.set("scheme", s); applyScheme(s); label();
    });
    label();
    var box = make("div", { "class": "search", role: "search" });
    var field = make("input", { type: "search", id: "codrel-field", placeholder: say("find"), "aria-label": say("find"), role: "combobox", "aria-expanded": "false", "aria-controls": "codrel-hits", "aria-autocomplete": "list", autocomplete: "off", spellcheck: "false" });
    var panel = make("div", { "class": "hits", hidden: "" }), list = make("ul", { id: "codrel-hits", role: "listbox", "aria-label": say("found") });
    var status = make("p", { "class": "status", role: "status" }), keys = make("label", { "class": "keys" }), slash = make("input", { type: "checkbox" });
    slash.checked = store.get("slash") !== "off";
    slash.addEventListener("change", function () { store.set("slash", slash.checked ? "on" : "off"); });
    keys.appendChild(slash); keys.appendChild(document.createTextNode(" " + say("slash")));
    panel.appendChild(status); panel.appendChild(list); panel.appendChild(keys);
    box.appendChild(field); box.appendChild(panel);
    head.appendChild(box); head.appendChild(button);
    // On a narrow screen the field alone stays in sight: what stands above it scrolls away.
    (onresize = function () { head.style.setProperty("--fold", 6 - box.offsetTop + "px"); })();

    var hits = [], chosen = -1, came = null, asked = "";
    function choose(i) {
      chosen = i;
      Array.from(list.children).forEach(function (li, k) { li.setAttribute("aria-selected", k === i ? "true" : "false"); });
      if (i >= 0) { field.setAttribute("aria-activedescendant", "codrel-hit-" + i); list.children[i].scrollIntoView({ block: "nearest" }); } else { field.removeAttribute("aria-activedescendant"); }
    }
    function show(found, q, text, near) {
      if (text !== asked) { return; }
      list.textContent = "";
      hits = found || [];
      hits.forEach(function (h, i) {
        var e = h.entry, at = placed(e, q), li = make("li", { id: "codrel-hit-" + i, role: "option", "aria-selected": "false" }), a = make("span", { "class": "name" });
        if (e.scope) { a.appendChild(make("code", { translate: "no", "class": "scope" }, e.scope + ".")); }
        a.appendChild(marked(e, q));
        if (e.deprecated) { a.className = "name gone"; }
        li.appendChild(a);
        li.appendChild(make("span", { "class": "place" }, " " + e.kind.replace("-", " ") + (e.deprecated ? ", " + say("deprecated") + "," : "") + " " + (e.kind === "module" || !at ? e.module : say("in-module", { module: at }))));
        if (e.summary) { li.appendChild(make("span", { "class": "summary" }, e.summary)); }
        li.addEventListener("mouseup", function (event) {
          if (event.button === 1 || event.ctrlKey || event.metaKey) { window.open(e.address, "_blank", "noopener"); } else if (event.button === 0) { location.href = e.address; }
        });
        list.appendChild(li);
      });
      status.textContent = found === null ? say("not-loaded") :
        hits.length === 0 ? say("not-found", { query: text, n: index.names }) + (near.length ? " " + say("nearest", { names: near.join(", ") }) : "") :
        hits.length === 1 ? say("name.one") : say("name.many", { n: hits.length });
      choose(-1);
      panel.hidden = false;
      field.setAttribute("aria-expanded", "true");
    }
    function ask() {
      var text = field.value.trim();
      asked = text;
      if (!text) { close(); return; }
      search(text, 30, function (found, q, near) { show(found, q, text, near); });
    }
    function close() { panel.hidden = true; field.setAttribute("aria-expanded", "false"); hits = []; choose(-1); }
    function go() {
      var exact = hits.filter(function (h) { return h.klass <= 1; });
      var h = chosen >= 0 ? hits[chosen] : exact.length === 1 ? exact[0] : hits[0];
      if (h) { location.href = h.entry.address; }
    }
    field.addEventListener("input", ask);
    field.addEventListener("focus", function () { if (field.value.trim()) { ask(); } });
    field.addEventListener("keydown", function (event) {
      if (event.key === "ArrowDown" || event.key === "ArrowUp") {
        event.preventDefault();
        if (hits.length) { choose((chosen + (event.key === "ArrowDown" ? 1 : chosen < 0 ? 0 : -1) + hits.length) % hits.length); }
      } else if (event.key === "Enter") { event.preventDefault(); go(); } else if (event.key === "Escape") {
        event.preventDefault(); close(); field.value = ""; field.blur();
        if (came) { came.focus(); window.scrollTo(0, came.codrelTop || window.scrollY); came = null; }
      }
    });
    document.addEventListener("keydown", function (event) {
      var t = event.target;
      if (event.key !== "/" || event.ctrlKey || event.metaKey || event.altKey || !slash.checked || /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName) || t.isContentEditable) { return; }
      event.preventDefault();
      came = document.activeElement && document.activeElement !== document.body ? document.activeElement : null;
      if (came) { came.codrelTop = window.scrollY; }
      field.focus();
      field.select();
    });
    document.addEventListener("click", function (event) { if (!box.contains(event.target)) { close(); } });
    var m = /[?&]q=([^&]*)/.exec(location.search);
    if (m) { field.value = decodeURIComponent(m[1].replace(/\+/g, " ")); field.focus(); ask(); }
  }
  if (document.readyState === "loading") { document.addEventListener("DOMContentLoaded", start); } else { start(); }
})();
