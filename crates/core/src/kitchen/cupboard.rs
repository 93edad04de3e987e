//! What the cupboard lacks.

use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::records::stock::{AcidStock, Cupboard, JarStock, LidStock};

/// Why a number of jars of one size cannot be filled out of the cupboard, in words: jars, lids and their acid.
#[must_use]
pub fn missing(cupboard: &Cupboard, agent: Agent, jar: JarSize, count: u32) -> Vec<String> {
    let mut words = missing_glass(cupboard, jar, count);
    let acid = cupboard.acids.iter().find(|line| line.agent == agent);
    let needed = acid::measured(agent, acid::per_jar(agent, jar).times(count));
    if acid.and_then(AcidStock::left).is_some_and(|left| left < needed) {
        words.push(agent.label().to_owned());
    }
    words
}

/// The jars and lids that are missing for so many.
#[must_use]
pub fn missing_glass(cupboard: &Cupboard, jar: JarSize, count: u32) -> Vec<String> {
    let mut words = Vec::new();
    let line = cupboard.jars.iter().find(|line| line.jar == jar);
    let mut short = |needed: u32, left: Option<u32>, one: &str| {
        if let Some(short) = left.and_then(|left| needed.checked_sub(left)).filter(|short| *short > 0) {
            words.push(if short == 1 { format!("1 {one}") } else { format!("{short} {one}s") });
        }
    };
    short(count, line.and_then(JarStock::left), jar.label());
    let lids = cupboard.lids.iter().find(|lids| line.is_some_and(|line| line.mouth == lids.mouth));
    short(count, lids.and_then(LidStock::left), "lid");
    words
}
