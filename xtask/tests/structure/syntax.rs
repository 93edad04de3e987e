//! Which file of a Rust crate takes from which, read from its syntax: imports, paths written out in the code and in
//! attributes, and paths inside macros. A name that a module hands on counts as the name of the file it stands in.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

use proc_macro2::{TokenStream, TokenTree};
use syn::visit::{self, Visit};
use syn::{Attribute, Item, ItemMod, ItemUse, UseTree, Visibility};

use crate::graph::{Imports, sources};

type ModulePath = Vec<String>;

/// One name that a `use` brings in.
#[derive(Clone)]
struct Import {
    path: Vec<String>,
    is_handed_on: bool,
}

/// A module, in a file of its own or inside one.
#[derive(Default)]
struct Module {
    file: PathBuf,
    children: BTreeSet<String>,
    imports: BTreeMap<String, Import>,
    globs: Vec<Vec<String>>,
    /// Paths that the code writes out.
    paths: BTreeSet<Vec<String>>,
}

fn is_for_tests(attributes: &[Attribute]) -> bool {
    attributes.iter().any(|attribute| {
        attribute.path().is_ident("cfg")
            && attribute
                .meta
                .require_list()
                .is_ok_and(|list| list.tokens.to_string().split_whitespace().any(|word| word == "test"))
    })
}

/// The names of one `use` tree with their whole paths; a glob has the name `*`.
fn leaves(tree: &UseTree, before: &[String]) -> Vec<(String, Vec<String>)> {
    let with = |name: &syn::Ident| {
        let mut path = before.to_vec();
        path.push(name.to_string());
        path
    };
    match tree {
        UseTree::Path(part) => leaves(&part.tree, &with(&part.ident)),
        UseTree::Name(name) if name.ident == "self" => {
            vec![(before.last().cloned().unwrap_or_default(), before.to_vec())]
        }
        UseTree::Name(name) => vec![(name.ident.to_string(), with(&name.ident))],
        UseTree::Rename(renamed) => vec![(renamed.rename.to_string(), with(&renamed.ident))],
        UseTree::Glob(_) => vec![("*".to_owned(), before.to_vec())],
        UseTree::Group(group) => group.items.iter().flat_map(|item| leaves(item, before)).collect(),
    }
}

/// Paths of two names and more in the tokens of a macro.
fn paths_in(tokens: TokenStream) -> Vec<Vec<String>> {
    let (mut found, mut path, mut colons) = (Vec::new(), Vec::<String>::new(), 0);
    for token in tokens {
        match token {
            TokenTree::Ident(name) => {
                if colons != 2 {
                    found.push(std::mem::take(&mut path));
                }
                path.push(name.to_string());
                colons = 0;
            }
            TokenTree::Punct(mark) if mark.as_char() == ':' => colons += 1,
            TokenTree::Group(group) => {
                found.push(std::mem::take(&mut path));
                colons = 0;
                found.extend(paths_in(group.stream()));
            }
            TokenTree::Literal(text) => {
                // `#[serde(with = "crate::words")]`
                let text = text.to_string();
                if text.contains("::") {
                    found.push(text.trim_matches('"').split("::").map(str::to_owned).collect());
                }
            }
            TokenTree::Punct(_) => {
                found.push(std::mem::take(&mut path));
                colons = 0;
            }
        }
    }
    found.push(path);
    found.retain(|path| path.len() > 1);
    found
}

struct Reader<'a> {
    modules: &'a mut BTreeMap<ModulePath, Module>,
    here: ModulePath,
    file: PathBuf,
}

impl Reader<'_> {
    fn module(&mut self) -> &mut Module {
        let file = self.file.clone();
        let module = self.modules.entry(self.here.clone()).or_default();
        module.file = file;
        module
    }
}

impl<'ast> Visit<'ast> for Reader<'_> {
    fn visit_item(&mut self, item: &'ast Item) {
        let attributes = match item {
            Item::Fn(item) => &item.attrs,
            Item::Impl(item) => &item.attrs,
            Item::Mod(item) => &item.attrs,
            Item::Use(item) => &item.attrs,
            _ => return visit::visit_item(self, item),
        };
        if !is_for_tests(attributes) {
            visit::visit_item(self, item);
        }
    }

    fn visit_item_mod(&mut self, item: &'ast ItemMod) {
        let name = item.ident.to_string();
        self.module().children.insert(name.clone());
        if item.content.is_some() {
            self.here.push(name);
            self.module();
            visit::visit_item_mod(self, item);
            self.here.pop();
        }
    }

    fn visit_item_use(&mut self, item: &'ast ItemUse) {
        let is_handed_on = !matches!(item.vis, Visibility::Inherited);
        for (name, path) in leaves(&item.tree, &[]) {
            if name == "*" {
                self.module().globs.push(path);
            } else {
                self.module().imports.insert(name, Import { path, is_handed_on });
            }
        }
    }

    fn visit_path(&mut self, path: &'ast syn::Path) {
        let names = path.segments.iter().map(|segment| segment.ident.to_string()).collect();
        self.module().paths.insert(names);
        visit::visit_path(self, path);
    }

    fn visit_macro(&mut self, called: &'ast syn::Macro) {
        let found = paths_in(called.tokens.clone());
        self.module().paths.extend(found);
        visit::visit_macro(self, called);
    }

    fn visit_attribute(&mut self, attribute: &'ast Attribute) {
        if let Ok(list) = attribute.meta.require_list() {
            let found = paths_in(list.tokens.clone());
            self.module().paths.extend(found);
        }
    }
}

/// The modules of a crate, and where a path leads.
struct Crate {
    modules: BTreeMap<ModulePath, Module>,
}

impl Crate {
    fn read(source: &Path) -> Self {
        let mut modules = BTreeMap::new();
        for file in sources(source, &[".rs"]) {
            let text = std::fs::read_to_string(&file).unwrap();
            let syntax = syn::parse_file(&text).unwrap_or_else(|error| panic!("{}: {error}", file.display()));
            let inside = file.strip_prefix(source).unwrap().with_extension("");
            let mut here: ModulePath =
                inside.iter().map(|part| part.to_string_lossy().into_owned()).collect();
            if here == ["lib"] {
                here.clear();
            }
            let mut reader = Reader { modules: &mut modules, here, file };
            reader.module();
            reader.visit_file(&syntax);
        }
        Self { modules }
    }

    /// The file that a path leads to when it is written in a module, if it stays within the crate.
    fn file(&self, here: &[String], path: &[String], steps: u32) -> Option<PathBuf> {
        let module = self.modules.get(here)?;
        let (first, rest) = path.split_first()?;
        if steps == 0 {
            return None;
        }
        match first.as_str() {
            "crate" => self.walk(Vec::new(), rest, steps),
            "self" => self.walk(here.to_vec(), rest, steps),
            "super" => self.file_above(here, rest, steps),
            name if module.children.contains(name) => {
                let mut child = here.to_vec();
                child.push(first.clone());
                self.walk(child, rest, steps)
            }
            name => {
                let mut path = module.imports.get(name)?.path.clone();
                // `use words::words;` names itself and nothing of this crate.
                if path.first() == Some(first) {
                    return None;
                }
                path.extend(rest.iter().cloned());
                self.file(here, &path, steps - 1)
            }
        }
    }

    fn file_above(&self, here: &[String], rest: &[String], steps: u32) -> Option<PathBuf> {
        let (_, above) = here.split_last()?;
        match rest.split_first() {
            Some((next, rest)) if next == "super" => self.file_above(above, rest, steps),
            _ => self.walk(above.to_vec(), rest, steps),
        }
    }

    fn walk(&self, mut at: ModulePath, path: &[String], steps: u32) -> Option<PathBuf> {
        for (place, name) in path.iter().enumerate() {
            let module = self.modules.get(&at)?;
            if module.children.contains(name) {
                at.push(name.clone());
            } else if let Some(import) = module.imports.get(name) {
                let mut whole = import.path.clone();
                whole.extend(path[place + 1..].iter().cloned());
                let found = self.file(&at, &whole, steps.checked_sub(1)?);
                return found.or_else(|| Some(module.file.clone()));
            } else {
                break;
            }
        }
        Some(self.modules.get(&at)?.file.clone())
    }
}

/// What each file of a crate takes from the others.
#[must_use]
pub fn of_crate(source: &Path) -> Imports {
    const STEPS: u32 = 16;
    let read = Crate::read(source);
    let mut found = Imports::new();
    for (here, module) in &read.modules {
        let taken = found.entry(module.file.clone()).or_default();
        let imported =
            module.imports.values().filter(|import| !import.is_handed_on).map(|import| &import.path);
        // A single name is a name of this file, or one that an import brought in.
        let written = module.paths.iter().filter(|path| {
            path.len() > 1 || module.imports.get(&path[0]).is_some_and(|import| import.is_handed_on)
        });
        for path in imported.chain(&module.globs).chain(written) {
            taken.extend(read.file(here, path, STEPS));
        }
        taken.remove(&module.file);
    }
    found
}
