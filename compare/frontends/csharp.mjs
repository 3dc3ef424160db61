// Lists what C# files declare, as the tree-sitter grammar of the language has it, one JSON
// object a line. Paths are read from the input. With "time" it only parses them, and
// prints the seconds. What the grammar refuses, wholly or in part, is left out.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { pathToFileURL } from "node:url";

const [mode, folder] = process.argv.slice(2);
const find = createRequire(folder + "/");
const { Parser, Language } = await import(pathToFileURL(find.resolve("web-tree-sitter")));
await Parser.init();
const parser = new Parser();
parser.setLanguage(await Language.load(find.resolve("tree-sitter-c-sharp/tree-sitter-c_sharp.wasm")));
const paths = readFileSync(0, "utf8").split("\n").filter(Boolean);

const types = new Set(["class_declaration", "struct_declaration", "interface_declaration", "enum_declaration", "record_declaration", "record_struct_declaration"]);
const doc = /^(\/\/\/(?!\/)|\/\*\*(?![*\/]))/;

let file, text, leaves, comments, lines;

function gather(node) {
  if (node.type === "comment") {
    comments.push([node.startIndex, node.endIndex, node.text]);
    return;
  }
  if (node.type.startsWith("preproc_") && !node.type.startsWith("preproc_if") && !node.type.startsWith("preproc_el")) return; // a directive
  if (node.childCount === 0) {
    if (!node.type.startsWith("#")) leaves.push(node.endIndex);
    return;
  }
  for (let i = 0; i < node.childCount; i++) {
    const child = node.child(i);
    if (node.type.startsWith("preproc_") && node.childForFieldName("condition")?.id === child.id) continue;
    gather(child);
  }
}

function last(list, offset) { // how many are at or below an offset
  let low = 0, high = list.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (list[mid] <= offset) low = mid + 1; else high = mid;
  }
  return low;
}

function documented(node) {
  const n = last(leaves, node.startIndex);
  const from = n ? leaves[n - 1] : 0;
  return comments.some(([start, end, words]) => start >= from && end <= node.startIndex && doc.test(words) && /[^\s*\/]/.test(words));
}

function write(node, at, name, scope, params, open) {
  process.stdout.write(JSON.stringify({ file, line: at.startPosition.row + 1, name: name.replace(/^@/, ""), scope, params, documented: documented(node), public: open }) + "\n");
}

const words = (node) => node.children.filter((c) => c.type === "modifier").map((c) => c.text);

function names(list) {
  if (!list) return null;
  const out = list.children.filter((c) => c.type === "parameter").map((c) => c.childForFieldName("name")?.text.replace(/^@/, "") ?? "");
  const rest = list.childForFieldName("name"); // of "params"
  if (rest) out.push(rest.text.replace(/^@/, ""));
  return out;
}

function visit(node, scope, open, contract) {
  const kind = node.type;
  const mods = words(node);
  const shown = open && (mods.includes("public") || mods.includes("protected") && !mods.includes("private") || contract && !mods.includes("private"));
  const name = node.childForFieldName("name");
  if (types.has(kind)) {
    const list = node.children.find((c) => c.type === "parameter_list");
    write(node, name, name.text, scope, names(list), shown);
    const inner = scope ? scope + "." + name.text.replace(/^@/, "") : name.text.replace(/^@/, "");
    if (list && kind.startsWith("record")) {
      for (const p of list.children) {
        const part = p.type === "parameter" && p.childForFieldName("name");
        if (part) write({ startIndex: -1 }, part, part.text, inner, null, shown);
      }
    }
    const body = node.childForFieldName("body");
    if (body) for (const c of body.children) visit(c, inner, shown, kind === "interface_declaration" || kind === "enum_declaration");
    return;
  }
  const explicit = node.children.some((c) => c.type === "explicit_interface_specifier");
  const seen = shown && !explicit;
  switch (kind) {
    case "delegate_declaration":
    case "method_declaration":
    case "constructor_declaration":
      return write(node, name, name.text, scope, names(node.childForFieldName("parameters")), seen);
    case "destructor_declaration":
      return write(node, name, "~" + name.text, scope, [], false);
    case "operator_declaration": {
      const word = node.children.find((c) => c.type === "operator");
      const checked = node.children.some((c) => c.type === "checked");
      return write(node, word, "operator " + (checked ? "checked " : "") + node.childForFieldName("operator").text, scope, names(node.childForFieldName("parameters")), seen);
    }
    case "conversion_operator_declaration": {
      const word = node.children.find((c) => c.type === "operator");
      const way = node.children.find((c) => c.type === "implicit" || c.type === "explicit");
      const checked = node.children.some((c) => c.type === "checked");
      return write(node, word, way.type + " operator" + (checked ? " checked" : ""), scope, names(node.childForFieldName("parameters")), seen);
    }
    case "indexer_declaration": {
      const list = node.childForFieldName("parameters");
      return write(node, node.children.find((c) => c.type === "this"), "this[]", scope, names(list), seen);
    }
    case "property_declaration":
    case "event_declaration":
    case "enum_member_declaration":
      return write(node, name, name.text, scope, null, kind === "enum_member_declaration" ? open : seen);
    case "field_declaration":
    case "event_field_declaration": {
      const list = node.children.find((c) => c.type === "variable_declaration");
      for (const d of list.children) {
        if (d.type === "variable_declarator") {
          const at = d.childForFieldName("name") ?? d.child(0);
          write(node, at, at.text, scope, null, seen);
        }
      }
      return;
    }
    case "namespace_declaration":
    case "file_scoped_namespace_declaration":
    case "declaration_list":
    case "compilation_unit":
      for (const c of node.children) visit(c, scope, open, contract);
      return;
  }
  if (kind.startsWith("preproc_if") || kind.startsWith("preproc_el")) {
    for (const c of node.children) visit(c, scope, open, contract);
  }
}

const texts = paths.map((path) => readFileSync(path, "utf8").replace(/^\uFEFF/, ""));
const begun = performance.now();
for (let i = 0; i < paths.length; i++) {
  [file, text] = [paths[i], texts[i]];
  const tree = parser.parse(text);
  if (mode !== "time") {
    if (tree.rootNode.hasError) {
      process.stdout.write(JSON.stringify({ file, refused: true }) + "\n");
    } else {
      [leaves, comments] = [[], []];
      gather(tree.rootNode);
      visit(tree.rootNode, "", true, false);
    }
  }
  tree.delete();
}
if (mode === "time") console.log((performance.now() - begun) / 1000);
