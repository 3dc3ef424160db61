// Lists what users can name of a folder of C#, as the tree-sitter grammar of the language has
// it: the public types of each namespace, and the public and protected members that they
// declare, in all their parts. Files that the grammar refuses are left out.
import { readFileSync, readdirSync } from "node:fs";
import { createRequire } from "node:module";
import { pathToFileURL } from "node:url";
import { basename, join } from "node:path";

const find = createRequire(process.argv[2] + "/");
const { Parser, Language } = await import(pathToFileURL(find.resolve("web-tree-sitter")));
await Parser.init();
const parser = new Parser();
parser.setLanguage(await Language.load(find.resolve("tree-sitter-c-sharp/tree-sitter-c_sharp.wasm")));

const types = new Set(["class_declaration", "struct_declaration", "interface_declaration", "enum_declaration", "record_declaration", "record_struct_declaration", "delegate_declaration"]);
const words = (node) => node.children.filter((c) => c.type === "modifier").map((c) => c.text);
const open = (mods) => (mods.includes("public") || mods.includes("protected")) && !mods.includes("private");
const plain = (text) => text.replace(/^@/, "");

function said(node) { // whether a comment with a summary stands right above
  for (let at = node.previousSibling; at && (at.type === "comment" || at.type.startsWith("preproc_")); at = at.previousSibling) {
    if (/^\/\/\/(?!\/)/.test(at.text) && /<summary>\s*[^<\s]|^\/\/\/\s*[^<\s]/.test(at.text)) return true;
  }
  return false;
}

function memberNames(node) {
  switch (node.type) {
    case "method_declaration": case "property_declaration": case "event_declaration":
      return node.children.some((c) => c.type === "explicit_interface_specifier") ? [] : [node.childForFieldName("name").text];
    case "constructor_declaration": return words(node).includes("static") ? [] : [node.childForFieldName("name").text];
    case "enum_member_declaration": return [node.childForFieldName("name").text];
    case "indexer_declaration": return node.children.some((c) => c.type === "explicit_interface_specifier") ? [] : ["this[]"];
    case "field_declaration": case "event_field_declaration":
      return node.children.find((c) => c.type === "variable_declaration").children.filter((c) => c.type === "variable_declarator").map((c) => (c.childForFieldName("name") ?? c.child(0)).text);
  }
  return types.has(node.type) ? [node.childForFieldName("name").text] : [];
}

function* flat(node) {
  for (const c of node?.children ?? []) {
    if (c.type.startsWith("preproc_if") || c.type.startsWith("preproc_el") || c.type === "declaration_list") yield* flat(c);
    else yield c;
  }
}

function type(node, out) {
  const name = plain(node.childForFieldName("name").text);
  const known = out.get(name) ?? { name, kind: node.type.replace("_declaration", ""), text: false, open: false, params: null, members: new Map() };
  out.set(name, known);
  known.open ||= words(node).includes("public");
  known.text ||= said(node);
  const all = node.type === "interface_declaration" || node.type === "enum_declaration";
  for (const m of flat(node.childForFieldName("body"))) {
    const mods = words(m);
    if (!open(mods) && !(all && !mods.includes("private") && !mods.includes("internal"))) continue;
    for (const n of memberNames(m)) {
      const was = known.members.get(plain(n)) ?? { name: plain(n), text: false, inherited: false };
      known.members.set(plain(n), was);
      was.text ||= said(m) && !types.has(m.type);
    }
  }
}

function visit(node, space, out) {
  let rest = space;
  for (const c of flat(node)) {
    if (c.type === "file_scoped_namespace_declaration") {
      rest = c.childForFieldName("name").text;
      visit(c, rest, out);
    } else if (c.type === "namespace_declaration") {
      const name = c.childForFieldName("name").text;
      visit(c.childForFieldName("body"), rest ? rest + "." + name : name, out);
    } else if (types.has(c.type) && rest) {
      if (!out.has(rest)) out.set(rest, new Map());
      type(c, out.get(rest));
    }
  }
}

for (const folder of readFileSync(0, "utf8").split("\n").filter(Boolean)) {
  const out = new Map();
  for (const e of readdirSync(folder, { recursive: true, withFileTypes: true })) {
    const path = join(e.parentPath ?? e.path, e.name);
    if (!e.isFile() || !e.name.endsWith(".cs") || /[/\\](tests?|bin|obj|[^/\\]*\.Tests?)[/\\]|Tests\.cs$|\.(g|Designer|generated)\.cs$/i.test(path.slice(folder.length))) continue;
    const tree = parser.parse(readFileSync(path, "utf8").replace(/^\uFEFF/, ""));
    if (!tree.rootNode.hasError) visit(tree.rootNode, "", out);
    tree.delete();
  }
  const entries = [...out].map(([as, names]) => ({ as, names: [...names.values()].filter((n) => n.open).map((n) => ({ ...n, members: [...n.members.values()] })) }));
  console.log(JSON.stringify({ folder, name: basename(folder), entries }));
}
