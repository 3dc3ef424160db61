//! Lists what the parser that most tools of the language use finds in files, or times it.
//!
//! Paths come on standard input, one a line. "declarations" prints one JSON object a declaration;
//! "time" prints the seconds that parsing takes for all of them.

use std::io::{self, BufRead, Read};
use syn::spanned::Spanned;

struct Walk {
    file: String,
}

fn quoted(text: &str) -> String {
    let mut out = String::from("\"");
    for c in text.chars() {
        match c {
            '"' => out.push_str("\\\""),
            '\\' => out.push_str("\\\\"),
            c if (c as u32) < 0x20 => out.push_str(&format!("\\u{:04x}", c as u32)),
            c => out.push(c),
        }
    }
    out.push('"');
    out
}

/// Whether comments or attributes say something of an item, before it and not within it.
fn documented(attrs: &[syn::Attribute]) -> bool {
    attrs.iter().any(|a| {
        if !matches!(a.style, syn::AttrStyle::Outer) || !a.path.is_ident("doc") {
            return false;
        }
        match a.parse_meta() {
            Ok(syn::Meta::NameValue(v)) => match v.lit {
                syn::Lit::Str(s) => !s.value().trim().is_empty(),
                _ => false,
            },
            _ => false,
        }
    })
}

/// The items of each branch, where a macro is given "if #[cfg(a)] { } else { }".
fn branches(tokens: proc_macro2::TokenStream) -> Option<Vec<syn::File>> {
    let trees: Vec<_> = tokens.into_iter().collect();
    if !matches!(trees.first(), Some(proc_macro2::TokenTree::Ident(i)) if i == "if") {
        return None;
    }
    let groups = trees.into_iter().filter_map(|t| match t {
        proc_macro2::TokenTree::Group(g) if g.delimiter() == proc_macro2::Delimiter::Brace => Some(g.stream()),
        _ => None,
    });
    groups.map(|g| syn::parse2::<syn::File>(g).ok()).collect()
}

fn is_public(vis: &syn::Visibility) -> bool {
    matches!(vis, syn::Visibility::Public(_))
}

fn joined(scope: &str, name: &str) -> String {
    if scope.is_empty() { name.to_string() } else { format!("{}.{}", scope, name) }
}

/// The name of the type that something is implemented for, without its path and arguments.
fn type_name(t: &syn::Type, generics: &syn::Generics) -> String {
    let name = match t {
        syn::Type::Path(p) => p.path.segments.last().map(|s| s.ident.to_string()).unwrap_or_default(),
        syn::Type::TraitObject(o) => match o.bounds.first() {
            Some(syn::TypeParamBound::Trait(b)) => b.path.segments.last().map(|s| s.ident.to_string()).unwrap_or_default(),
            _ => String::new(),
        },
        syn::Type::Paren(p) => return type_name(&p.elem, generics),
        syn::Type::Group(p) => return type_name(&p.elem, generics),
        _ => String::new(),
    };
    if name.is_empty() || generics.type_params().any(|p| p.ident == name) { "_".to_string() } else { name }
}

fn params(sig: &syn::Signature) -> Vec<String> {
    let mut out = Vec::new();
    for input in &sig.inputs {
        out.push(match input {
            syn::FnArg::Receiver(_) => "self".to_string(),
            syn::FnArg::Typed(t) => match &*t.pat {
                syn::Pat::Ident(i) if i.subpat.is_none() => i.ident.to_string(),
                _ => "_".to_string(),
            },
        });
    }
    if sig.variadic.is_some() {
        out.push("...".to_string());
    }
    out
}

impl Walk {
    fn say(&self, name: &syn::Ident, scope: &str, params: Option<Vec<String>>, attrs: &[syn::Attribute], public: bool) {
        let params = match params {
            None => String::new(),
            Some(list) => format!(",\"params\":[{}]", list.iter().map(|p| quoted(p)).collect::<Vec<_>>().join(",")),
        };
        println!(
            "{{\"file\":{},\"line\":{},\"name\":{},\"scope\":{}{},\"documented\":{},\"public\":{}}}",
            quoted(&self.file), name.span().start().line, quoted(&name.to_string()), quoted(scope), params, documented(attrs), public
        );
    }

    fn fields(&self, fields: &syn::Fields, scope: &str, inherited: bool) {
        if let syn::Fields::Named(named) = fields {
            for f in &named.named {
                if let Some(name) = &f.ident {
                    self.say(name, scope, None, &f.attrs, inherited || is_public(&f.vis));
                }
            }
        }
    }

    /// Says that nothing is known of what some lines declare.
    fn leave_out(&self, span: proc_macro2::Span) {
        println!("{{\"file\":{},\"off\":[{},{}]}}", quoted(&self.file), span.start().line, span.end().line);
    }

    fn items(&self, items: &[syn::Item]) {
        for item in items {
            self.item(item);
        }
    }

    fn item(&self, item: &syn::Item) {
        use syn::Item::*;
        match item {
            Fn(i) => self.say(&i.sig.ident, "", Some(params(&i.sig)), &i.attrs, is_public(&i.vis)),
            Struct(i) => {
                self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis));
                self.fields(&i.fields, &i.ident.to_string(), false);
            }
            Union(i) => {
                self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis));
                self.fields(&syn::Fields::Named(i.fields.clone()), &i.ident.to_string(), false);
            }
            Enum(i) => {
                self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis));
                for v in &i.variants {
                    self.say(&v.ident, &i.ident.to_string(), None, &v.attrs, true);
                    self.fields(&v.fields, &joined(&i.ident.to_string(), &v.ident.to_string()), true);
                }
            }
            Trait(i) => {
                self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis));
                let scope = i.ident.to_string();
                for item in &i.items {
                    match item {
                        syn::TraitItem::Const(c) => self.say(&c.ident, &scope, None, &c.attrs, true),
                        syn::TraitItem::Method(m) => self.say(&m.sig.ident, &scope, Some(params(&m.sig)), &m.attrs, true),
                        syn::TraitItem::Type(t) => self.say(&t.ident, &scope, None, &t.attrs, true),
                        syn::TraitItem::Macro(m) => self.leave_out(m.span()),
                        _ => {}
                    }
                }
            }
            Verbatim(_) => self.leave_out(item.span()), // newer than the parser
            Macro2(i) => self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis)),
            TraitAlias(i) => self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis)),
            Impl(i) => {
                let scope = type_name(&i.self_ty, &i.generics);
                let of = i.trait_.is_some();
                for item in &i.items {
                    match item {
                        syn::ImplItem::Const(c) => self.say(&c.ident, &scope, None, &c.attrs, of || is_public(&c.vis)),
                        syn::ImplItem::Method(m) => self.say(&m.sig.ident, &scope, Some(params(&m.sig)), &m.attrs, of || is_public(&m.vis)),
                        syn::ImplItem::Type(t) => self.say(&t.ident, &scope, None, &t.attrs, of || is_public(&t.vis)),
                        syn::ImplItem::Macro(m) => self.leave_out(m.span()),
                        _ => {}
                    }
                }
            }
            Const(i) if i.ident != "_" => self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis)),
            Static(i) => self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis)),
            Type(i) => self.say(&i.ident, "", None, &i.attrs, is_public(&i.vis)),
            Macro(i) => match &i.ident {
                Some(name) => self.say(name, "", None, &i.attrs, i.attrs.iter().any(|a| a.path.is_ident("macro_export"))),
                // What a call holds is read where it is items and nothing else.
                // Of others it is not known what they declare: their lines are left out.
                None => match syn::parse2::<syn::File>(i.mac.tokens.clone()) {
                    Ok(file) if file.items.iter().all(|i| !matches!(i, syn::Item::Verbatim(_))) => self.items(&file.items),
                    _ => match branches(i.mac.tokens.clone()) {
                        Some(files) => files.iter().for_each(|f| self.items(&f.items)),
                        None => self.leave_out(item.span()),
                    },
                },
            },
            Mod(i) => {
                if let Some((_, items)) = &i.content {
                    self.items(items);
                }
            }
            ForeignMod(i) => {
                for item in &i.items {
                    match item {
                        syn::ForeignItem::Fn(f) => self.say(&f.sig.ident, "", Some(params(&f.sig)), &f.attrs, is_public(&f.vis)),
                        syn::ForeignItem::Static(s) => self.say(&s.ident, "", None, &s.attrs, is_public(&s.vis)),
                        syn::ForeignItem::Type(t) => self.say(&t.ident, "", None, &t.attrs, is_public(&t.vis)),
                        _ => {}
                    }
                }
            }
            _ => {}
        }
    }
}

/// Where strings, characters and numbers begin. A comment that documents something is none, though it is
/// handed on as the text of an attribute: that has no place of its own.
fn pieces(tokens: proc_macro2::TokenStream, out: &mut Vec<String>) {
    let mut doc = None;
    for tree in tokens {
        match tree {
            proc_macro2::TokenTree::Group(g) if doc != Some(g.span().start()) => {
                doc = None;
                pieces(g.stream(), out)
            }
            proc_macro2::TokenTree::Literal(l) => {
                let text = l.to_string();
                let kind = if text.starts_with(|c: char| c.is_ascii_digit() || c == '-') { 2 } else { 1 };
                let at = l.span().start();
                out.push(format!("[{},{},{}]", at.line, at.column, kind));
            }
            proc_macro2::TokenTree::Punct(p) if p.as_char() == '#' || p.as_char() == '!' => doc = Some(p.span().start()),
            _ => doc = None,
        }
    }
}

fn main() {
    let mode = std::env::args().nth(1).unwrap_or_default();
    let paths: Vec<String> = io::stdin().lock().lines().map(|l| l.unwrap()).filter(|l| !l.is_empty()).collect();
    let read = |path: &str| -> Option<String> {
        let mut bytes = Vec::new();
        std::fs::File::open(path).ok()?.read_to_end(&mut bytes).ok()?;
        String::from_utf8(bytes).ok()
    };
    if mode == "time" {
        let texts: Vec<String> = paths.iter().filter_map(|p| read(p)).collect();
        let begun = std::time::Instant::now();
        for text in &texts {
            let _ = std::hint::black_box(syn::parse_file(text));
        }
        println!("{}", begun.elapsed().as_secs_f64());
        return;
    }
    if mode == "pieces" {
        for path in paths {
            if let Some(tokens) = read(&path).and_then(|text| text.parse::<proc_macro2::TokenStream>().ok()) {
                let mut out = Vec::new();
                pieces(tokens, &mut out);
                println!("{{\"File\":{},\"Pieces\":[{}]}}", quoted(&path), out.join(","));
            }
        }
        return;
    }
    for path in paths {
        match read(&path).and_then(|text| syn::parse_file(&text).ok()) {
            Some(file) => Walk { file: path }.items(&file.items),
            None => println!("{{\"file\":{},\"refused\":true}}", quoted(&path)),
        }
    }
}
