//! Lists what users of a crate can name, as the parser that most tools of the language use has its source:
//! the names of each module that can be reached from the crate, with what `pub use` hands on, and the
//! members of types. Folders with a crate each come on standard input; one JSON object is printed for each.

#![allow(warnings)]

use std::collections::{BTreeMap, BTreeSet};
use std::io::{self, BufRead};
use std::path::{Path, PathBuf};

struct Item {
    kind: &'static str,
    name: String,
    public: bool,
    text: bool,
    params: Option<Vec<String>>,
    members: Vec<(String, bool)>,
    inside: Vec<usize>,    // the variants of an enum
    target: Option<usize>, // the module that a "mod" is
}

struct Use {
    public: bool,
    path: Vec<String>,
    name: Option<String>, // none for all of it
}

#[derive(Default)]
struct Module {
    parent: Option<usize>,
    items: Vec<usize>,
    uses: Vec<Use>,
    impls: Vec<(Vec<String>, Vec<(String, bool)>)>,
}

#[derive(Default)]
struct Crate {
    items: Vec<Item>,
    modules: Vec<Module>,
    macros: Vec<usize>,
}

fn meta_of(attrs: &[syn::Attribute], name: &str) -> Vec<String> {
    attrs.iter().filter(|a| a.path.is_ident(name)).map(|a| a.tokens.to_string().replace(' ', "")).collect()
}

fn hidden(attrs: &[syn::Attribute]) -> bool {
    meta_of(attrs, "doc").iter().any(|t| t.starts_with("(hidden")) || meta_of(attrs, "cfg").iter().any(|t| t == "(test)" || t.starts_with("(all(test,"))
}

fn documented(attrs: &[syn::Attribute]) -> bool {
    meta_of(attrs, "doc").iter().any(|t| t.starts_with('=') && t.trim_matches(|c| c == '=' || c == '"').trim() != "")
}

fn is_public(vis: &syn::Visibility) -> bool {
    matches!(vis, syn::Visibility::Public(_))
}

fn params(sig: &syn::Signature) -> Vec<String> {
    sig.inputs
        .iter()
        .filter_map(|input| match input {
            syn::FnArg::Typed(t) => match &*t.pat {
                syn::Pat::Ident(i) => Some(i.ident.to_string().trim_start_matches("r#").to_string()),
                _ => None,
            },
            _ => None,
        })
        .collect()
}

/// The items that a macro is given: all of it, or those of each branch of "if #[cfg(a)] { } else { }".
fn items_of(tokens: proc_macro2::TokenStream) -> Vec<Vec<syn::Item>> {
    if let Ok(file) = syn::parse2::<syn::File>(tokens.clone()) {
        return vec![file.items];
    }
    let trees: Vec<_> = tokens.into_iter().collect();
    if !matches!(trees.first(), Some(proc_macro2::TokenTree::Ident(i)) if i == "if") {
        return vec![];
    }
    trees
        .into_iter()
        .filter_map(|t| match t {
            proc_macro2::TokenTree::Group(g) if g.delimiter() == proc_macro2::Delimiter::Brace => syn::parse2::<syn::File>(g.stream()).ok().map(|f| f.items),
            _ => None,
        })
        .collect()
}

impl Crate {
    fn put(&mut self, module: usize, kind: &'static str, ident: &syn::Ident, public: bool, attrs: &[syn::Attribute]) -> Option<usize> {
        if hidden(attrs) {
            return None;
        }
        let name = ident.to_string().trim_start_matches("r#").to_string();
        self.items.push(Item { kind, name, public, text: documented(attrs), params: None, members: vec![], inside: vec![], target: None });
        self.modules[module].items.push(self.items.len() - 1);
        Some(self.items.len() - 1)
    }

    /// Reads the items of a module; `below` is the folder of the files of modules in it.
    fn read(&mut self, module: usize, items: Vec<syn::Item>, file: &Path, below: &Path) {
        for item in items {
            match item {
                syn::Item::Mod(m) => self.module(module, m, file, below),
                syn::Item::Struct(s) => {
                    if let Some(at) = self.put(module, "struct", &s.ident, is_public(&s.vis), &s.attrs) {
                        self.items[at].members = fields(&s.fields);
                    }
                }
                syn::Item::Union(u) => {
                    if let Some(at) = self.put(module, "union", &u.ident, is_public(&u.vis), &u.attrs) {
                        self.items[at].members = fields(&syn::Fields::Named(u.fields));
                    }
                }
                syn::Item::Enum(e) => {
                    if let Some(at) = self.put(module, "enum", &e.ident, is_public(&e.vis), &e.attrs) {
                        for v in &e.variants {
                            if hidden(&v.attrs) {
                                continue;
                            }
                            self.items[at].members.push((v.ident.to_string(), documented(&v.attrs)));
                            self.items.push(Item { kind: "variant", name: v.ident.to_string(), public: true, text: documented(&v.attrs), params: None, members: vec![], inside: vec![], target: None });
                            let id = self.items.len() - 1;
                            self.items[at].inside.push(id);
                        }
                    }
                }
                syn::Item::Trait(t) => {
                    if let Some(at) = self.put(module, "trait", &t.ident, is_public(&t.vis), &t.attrs) {
                        for i in &t.items {
                            let (ident, attrs) = match i {
                                syn::TraitItem::Method(m) => (&m.sig.ident, &m.attrs),
                                syn::TraitItem::Type(t) => (&t.ident, &t.attrs),
                                syn::TraitItem::Const(c) => (&c.ident, &c.attrs),
                                _ => continue,
                            };
                            if !hidden(attrs) {
                                self.items[at].members.push((ident.to_string(), documented(attrs)));
                            }
                        }
                    }
                }
                syn::Item::Fn(f) => {
                    if let Some(at) = self.put(module, "fn", &f.sig.ident, is_public(&f.vis), &f.attrs) {
                        self.items[at].params = Some(params(&f.sig));
                    }
                }
                syn::Item::Const(c) => drop(self.put(module, "const", &c.ident, is_public(&c.vis) && c.ident != "_", &c.attrs)),
                syn::Item::Static(s) => drop(self.put(module, "static", &s.ident, is_public(&s.vis), &s.attrs)),
                syn::Item::Type(t) => drop(self.put(module, "type", &t.ident, is_public(&t.vis), &t.attrs)),
                syn::Item::Use(u) if !hidden(&u.attrs) => self.uses(module, &u.tree, vec![], is_public(&u.vis)),
                syn::Item::Impl(i) if i.trait_.is_none() && !hidden(&i.attrs) => {
                    let path = match &*i.self_ty {
                        syn::Type::Path(p) if p.qself.is_none() => p.path.segments.iter().map(|s| s.ident.to_string()).collect(),
                        _ => continue,
                    };
                    let mut members = vec![];
                    let mut take = |items: Vec<syn::ImplItem>| {
                        for i in items {
                            let (ident, vis, attrs) = match &i {
                                syn::ImplItem::Method(m) => (&m.sig.ident, &m.vis, &m.attrs),
                                syn::ImplItem::Const(c) => (&c.ident, &c.vis, &c.attrs),
                                _ => continue,
                            };
                            if is_public(vis) && !hidden(attrs) {
                                members.push((ident.to_string().trim_start_matches("r#").to_string(), documented(attrs)));
                            }
                        }
                    };
                    take(i.items);
                    self.modules[module].impls.push((path, members));
                }
                syn::Item::Macro(m) => match &m.ident {
                    Some(ident) if m.mac.path.is_ident("macro_rules") => {
                        if m.attrs.iter().any(|a| a.path.is_ident("macro_export")) && !hidden(&m.attrs) {
                            self.items.push(Item { kind: "macro", name: ident.to_string(), public: true, text: documented(&m.attrs), params: None, members: vec![], inside: vec![], target: None });
                            self.macros.push(self.items.len() - 1);
                        }
                    }
                    _ => {
                        // what reads as items is taken for items
                        for items in items_of(m.mac.tokens) {
                            self.read(module, items, file, below);
                        }
                    }
                },
                _ => {}
            }
        }
    }

    fn module(&mut self, module: usize, m: syn::ItemMod, file: &Path, below: &Path) {
        let name = m.ident.to_string().trim_start_matches("r#").to_string();
        let Some(at) = self.put(module, "mod", &m.ident, is_public(&m.vis), &m.attrs) else { return };
        self.modules.push(Module { parent: Some(module), ..Module::default() });
        let target = self.modules.len() - 1;
        self.items[at].target = Some(target);
        if let Some((_, items)) = m.content {
            return self.read(target, items, file, &below.join(&name));
        }
        let given = m.attrs.iter().filter(|a| a.path.is_ident("path")).find_map(|a| match a.parse_meta() {
            Ok(syn::Meta::NameValue(v)) => match v.lit {
                syn::Lit::Str(s) => Some(s.value()),
                _ => None,
            },
            _ => None,
        });
        let candidates: Vec<PathBuf> = match given {
            Some(path) => vec![file.parent().unwrap().join(path)],
            None => vec![below.join(format!("{}.rs", name)), below.join(&name).join("mod.rs")],
        };
        for path in candidates {
            let Ok(text) = std::fs::read_to_string(&path) else { continue };
            let Ok(parsed) = syn::parse_file(&text) else { continue };
            if documented(&parsed.attrs) {
                self.items[at].text = true;
            }
            let inner = if path.file_name().unwrap() == "mod.rs" { path.parent().unwrap().to_path_buf() } else { path.with_extension("") };
            return self.read(target, parsed.items, &path, &inner);
        }
    }

    fn uses(&mut self, module: usize, tree: &syn::UseTree, mut path: Vec<String>, public: bool) {
        let plain = |i: &syn::Ident| i.to_string().trim_start_matches("r#").to_string();
        match tree {
            syn::UseTree::Path(p) => {
                path.push(plain(&p.ident));
                self.uses(module, &p.tree, path, public);
            }
            syn::UseTree::Group(g) => g.items.iter().for_each(|t| self.uses(module, t, path.clone(), public)),
            syn::UseTree::Glob(_) => self.modules[module].uses.push(Use { public, path, name: None }),
            syn::UseTree::Name(n) if n.ident == "self" => {
                let name = path.last().cloned();
                self.modules[module].uses.push(Use { public, path, name });
            }
            syn::UseTree::Name(n) => {
                path.push(plain(&n.ident));
                self.modules[module].uses.push(Use { public, path, name: Some(plain(&n.ident)) });
            }
            syn::UseTree::Rename(r) => {
                if r.ident != "self" {
                    path.push(plain(&r.ident));
                }
                self.modules[module].uses.push(Use { public, path, name: Some(plain(&r.rename)) });
            }
        }
    }

    /// What a name means in a module, in all name spaces.
    fn look(&self, module: usize, name: &str, seen: &mut BTreeSet<(usize, String)>) -> Vec<usize> {
        if !seen.insert((module, name.to_string())) {
            return vec![];
        }
        let mut out: Vec<usize> = self.modules[module].items.iter().copied().filter(|&i| self.items[i].name == name).collect();
        for u in &self.modules[module].uses {
            match &u.name {
                Some(n) if n == name => out.extend(self.resolve(module, &u.path, seen)),
                _ => {}
            }
        }
        if out.is_empty() {
            for u in self.modules[module].uses.iter().filter(|u| u.name.is_none()) {
                for t in self.resolve(module, &u.path, seen) {
                    match self.items[t].target {
                        Some(m) => out.extend(self.look(m, name, seen)),
                        None => out.extend(self.items[t].inside.iter().copied().filter(|&i| self.items[i].name == name)),
                    }
                }
            }
        }
        out
    }

    /// What a path means that is written in a module.
    fn resolve(&self, module: usize, path: &[String], seen: &mut BTreeSet<(usize, String)>) -> Vec<usize> {
        let mut at = module;
        let mut rest = path;
        let mut rooted = false;
        while let Some(first) = rest.first() {
            match first.as_str() {
                "crate" | "$crate" => at = 0,
                "self" => {}
                "super" => at = self.modules[at].parent.unwrap_or(0),
                _ => break,
            }
            rooted = true;
            rest = &rest[1..];
        }
        let Some(first) = rest.first() else {
            // the module itself: what stands for it
            return self.items.iter().enumerate().filter(|(_, i)| i.target == Some(at)).map(|(n, _)| n).collect();
        };
        let mut found = self.look(at, first, &mut seen.clone());
        if found.is_empty() && !rooted && at != 0 {
            found = self.look(0, first, &mut seen.clone()); // as paths began once
        }
        if found.is_empty() {
            found = self.macros.iter().copied().filter(|&i| self.items[i].name == *first).collect();
        }
        for name in &rest[1..] {
            let mut next = vec![];
            for i in found {
                match self.items[i].target {
                    Some(m) => next.extend(self.look(m, name, &mut seen.clone())),
                    None => next.extend(self.items[i].inside.iter().copied().filter(|&i| self.items[i].name == *name)),
                }
            }
            found = next;
        }
        found
    }

    /// What a module gives to all, by name.
    fn exports(&self, module: usize, seen: &mut BTreeSet<usize>) -> BTreeMap<String, BTreeSet<usize>> {
        let mut out: BTreeMap<String, BTreeSet<usize>> = BTreeMap::new();
        if !seen.insert(module) {
            return out;
        }
        for &i in &self.modules[module].items {
            if self.items[i].public {
                out.entry(self.items[i].name.clone()).or_default().insert(i);
            }
        }
        for u in self.modules[module].uses.iter().filter(|u| u.public) {
            let found = self.resolve(module, &u.path, &mut BTreeSet::new());
            match &u.name {
                Some(name) => found.into_iter().filter(|&i| self.items[i].public).for_each(|i| drop(out.entry(name.clone()).or_default().insert(i))),
                None => {
                    for i in found {
                        match self.items[i].target {
                            Some(m) => self.exports(m, seen).into_iter().for_each(|(name, list)| {
                                // a module of its own, which it keeps, stands before one that comes with everything
                                let own = self.modules[module].items.iter().any(|&o| self.items[o].name == name && !self.items[o].public && self.items[o].target.is_some());
                                let list: Vec<usize> = list.into_iter().filter(|&i| !own || self.items[i].target.is_none()).collect();
                                if !list.is_empty() {
                                    out.entry(name).or_default().extend(list)
                                }
                            }),
                            None => self.items[i].inside.iter().for_each(|&v| drop(out.entry(self.items[v].name.clone()).or_default().insert(v))),
                        }
                    }
                }
            }
        }
        out
    }
}

fn fields(fields: &syn::Fields) -> Vec<(String, bool)> {
    fields
        .iter()
        .filter(|f| is_public(&f.vis) && !hidden(&f.attrs))
        .filter_map(|f| f.ident.as_ref().map(|i| (i.to_string().trim_start_matches("r#").to_string(), documented(&f.attrs))))
        .collect()
}

fn main() {
    for folder in io::stdin().lock().lines().map_while(Result::ok) {
        let root = Path::new(&folder);
        let manifest = std::fs::read_to_string(root.join("Cargo.toml")).unwrap_or_default();
        let named = |section: &str| {
            let rest = manifest.split(&format!("[{}]", section)).nth(1)?;
            let line = rest.lines().take_while(|l| !l.starts_with('[')).find(|l| l.starts_with("name"))?;
            Some(line.split('"').nth(1)?.to_string())
        };
        let name = named("lib").or_else(|| named("package")).unwrap_or_default().replace('-', "_");
        let file = root.join("src/lib.rs");
        let Ok(parsed) = std::fs::read_to_string(&file).map_err(drop).and_then(|t| syn::parse_file(&t).map_err(drop)) else { continue };
        let mut all = Crate::default();
        all.modules.push(Module::default());
        all.read(0, parsed.items, &file, &root.join("src"));
        let mut methods: Vec<(usize, Vec<(String, bool)>)> = vec![];
        for (n, m) in all.modules.iter().enumerate() {
            for (path, members) in &m.impls {
                for i in all.resolve(n, path, &mut BTreeSet::new()) {
                    if matches!(all.items[i].kind, "struct" | "enum" | "union") {
                        methods.push((i, members.clone()));
                    }
                }
            }
        }
        for (i, members) in methods {
            all.items[i].members.extend(members);
        }
        println!("{}", surface(&all, &folder, &name));
    }
}

fn surface(all: &Crate, folder: &str, name: &str) -> String {
    let mut entries = vec![];
    // modules where they are declared come before those that are handed on
    let mut queue = std::collections::VecDeque::from([(0usize, name.to_string())]);
    let mut handed = std::collections::VecDeque::new();
    let mut seen = BTreeSet::new();
    while let Some((module, path)) = queue.pop_front().or_else(|| handed.pop_front()) {
        if !seen.insert(module) {
            continue;
        }
        let mut names = vec![];
        let mut exports = all.exports(module, &mut BTreeSet::new());
        if module == 0 {
            for &m in &all.macros {
                exports.entry(all.items[m].name.clone()).or_default().insert(m);
            }
        }
        for (name, list) in exports {
            for i in list {
                let item = &all.items[i];
                if let Some(target) = item.target {
                    let own = all.modules[module].items.contains(&i);
                    if own { &mut queue } else { &mut handed }.push_back((target, format!("{}::{}", path, name)));
                    continue;
                }
                let members: BTreeMap<&String, bool> = item.members.iter().map(|(n, t)| (n, *t)).collect();
                let members: Vec<String> = members.iter().map(|(n, t)| format!("{{\"name\":{:?},\"text\":{}}}", n, t)).collect();
                let params = item.params.as_ref().map_or("null".to_string(), |p| format!("{:?}", p));
                names.push(format!("{{\"name\":{:?},\"kind\":{:?},\"text\":{},\"params\":{},\"members\":[{}]}}", name, item.kind, item.text, params, members.join(",")));
            }
        }
        entries.push(format!("{{\"as\":{:?},\"names\":[{}]}}", path, names.join(",")));
    }
    format!("{{\"folder\":{:?},\"name\":{:?},\"entries\":[{}]}}", folder, name, entries.join(","))
}
