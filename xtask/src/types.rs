//! The API's description, and what the front end takes from it: its types, the bounds of its numbers, the words of its
//! vocabularies.

use std::collections::BTreeMap;
use std::fmt::Write as _;
use std::process::Command;

use anyhow::Context;
use serde_json::Value;

use crate::run::{self, npm, output, step};

/// The description and the files made from it, with what stands in them.
pub type Made = [(&'static str, String); 4];

const DESCRIPTION: &str = "crates/server/openapi.json";
const TYPES: &str = "web/src/api/schema.d.ts";
const BOUNDS: &str = "web/src/api/bounds.generated.ts";
const WORDS: &str = "web/src/api/words.generated.ts";

/// Makes the files anew, without writing them.
///
/// # Errors
/// When the description cannot be made or read.
pub fn make() -> anyhow::Result<Made> {
    // As the tests build it, so that nothing is built once more for this.
    step("what describes the API", &mut run::cargo(&["build", "--workspace", "--examples", "--locked"]))?;
    // Beside this program: Cargo may have been told to build elsewhere.
    let own = std::env::current_exe()?;
    let description = output(&mut Command::new(own.with_file_name("examples").join("describe")))?;
    let file = own.with_file_name("openapi.json");
    std::fs::write(&file, &description)?;
    let file = file.to_str().context("the path of the project is not plain text")?;
    let types = output(&mut npm(&["run", "--silent", "types", "--", file]))?;
    let found: Value = serde_json::from_str(&description)?;
    Ok([(TYPES, types), (BOUNDS, bounds(&found)?), (WORDS, words(&found)?), (DESCRIPTION, description)])
}

/// Every bounded number as `Schema.field`.
fn bounds(description: &Value) -> anyhow::Result<String> {
    let schemas = description["components"]["schemas"].as_object().context("there are no schemas")?;
    let mut found = BTreeMap::new();
    for (schema, what) in schemas {
        let parts = ["allOf", "oneOf"].iter().filter_map(|of| what[of].as_array()).flatten();
        for part in std::iter::once(what).chain(parts) {
            for (field, number) in part["properties"].as_object().into_iter().flatten() {
                let number = if number["items"].is_object() { &number["items"] } else { number };
                if let (Some(least), Some(most)) = (number["minimum"].as_f64(), number["maximum"].as_f64()) {
                    // The library of descriptions gives every unsigned number a minimum; only our limits have both.
                    found.insert(format!("{schema}.{field}"), (least, most));
                }
            }
        }
    }
    let mut lines = String::new();
    for (name, (least, most)) in found {
        writeln!(lines, "  \"{name}\": {{ least: {least}, most: {most} }},")?;
    }
    Ok(format!(
        "/** Bounds of the numbers that the API asks for. Made by \"cargo xtask types\". */\nexport const BOUNDS = {{\n{lines}}} as const;\n"
    ))
}

/// The words of every vocabulary, by schema.
fn words(description: &Value) -> anyhow::Result<String> {
    let schemas = description["components"]["schemas"].as_object().context("there are no schemas")?;
    let mut text =
        "/** Words as people read them. Made by \"cargo xtask types\". */\nexport const WORDS = {\n"
            .to_owned();
    for (schema, what) in schemas {
        let Some(labels) = what["x-labels"].as_object() else { continue };
        writeln!(text, "  {schema}: {{")?;
        // In the order of the vocabulary, which the map of labels does not keep.
        for word in what["enum"].as_array().with_context(|| format!("{schema} has no words"))? {
            let word = word.as_str().context("a word is not a text")?;
            writeln!(text, "    {word}: {},", labels[word])?;
        }
        writeln!(text, "  }},")?;
    }
    text.push_str("} as const;\n\n/** Jars in numbers. */\nexport const JAR_PLURAL = {\n");
    let plurals = schemas["JarSize"]["x-plurals"].as_object().context("jars have no plurals")?;
    for word in schemas["JarSize"]["enum"].as_array().context("jars have no words")? {
        let word = word.as_str().context("a word is not a text")?;
        writeln!(text, "  {word}: {},", plurals[word])?;
    }
    text.push_str("} as const;\n");
    let lists = [
        (
            "Jars that tomatoes were tested in, or that stand for one",
            "CANNED",
            &schemas["JarSize"]["x-canned"],
        ),
        ("What goes in besides that has to be measured", "MEASURED", &schemas["Ingredient"]["x-measured"]),
    ];
    for (says, name, list) in lists {
        writeln!(text, "\n/** {says}. */\nexport const {name} = [")?;
        for word in list.as_array().with_context(|| format!("{name} is no list"))? {
            writeln!(text, "  {word},")?;
        }
        text.push_str("] as const;\n");
    }
    Ok(text)
}
