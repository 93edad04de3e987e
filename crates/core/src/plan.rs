//! What a batch will be, worked out before anything is cut: jars, acid, salt, loads and the tested process.

use crate::acid::{self, Agent};
use crate::jar::JarSize;
use crate::loads::{self, Capacity, Group, LoadPlan, NoCapacity};
use crate::measure::Teaspoons;
use crate::moment::Minutes;
use crate::process::{self, Query, Refusal, Tested};
use crate::units::{Mass, Volume};
use crate::yields::{self, Range, Thickness};

/// What a person wants to make, and of how much fruit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wish {
    /// Product, medium, pack, method, jar and altitude.
    pub query: Query,
    /// For sauce.
    pub thickness: Option<Thickness>,
    /// Raw weight of fruit.
    pub weight: Mass,
    /// Acid of choice.
    pub agent: Agent,
}

/// The answer before the work starts.
#[derive(Debug, Clone, PartialEq)]
pub struct BatchPlan {
    /// Volume of product.
    pub volume: Range<Volume>,
    /// Full jars of the chosen size.
    pub jars: Range<u32>,
    /// What is left over after the expected full jars.
    pub remainder: Volume,
    /// Acid for one jar.
    pub acid_per_jar: Teaspoons,
    /// Acid for all expected jars.
    pub acid_total: Teaspoons,
    /// Salt for one jar, if wanted: 1 tsp a quart in proportion. Source: USDA Guide 3, from memory.
    pub salt_per_jar: Teaspoons,
    /// The tested process, or why there is none.
    pub process: Result<Tested, Refusal>,
    /// Canner loads; `None` without a process or without jars.
    pub loads: Option<LoadPlan>,
}

/// Salt for one jar, taste only: 1 tsp a quart, in proportion, to the next ⅛ tsp. Source: USDA Guide 3, from memory.
#[must_use]
pub fn salt_per_jar(jar: JarSize) -> Teaspoons {
    Teaspoons::new(1, 2).in_proportion(jar.pints()).rounded_up_to(Teaspoons::new(1, 8))
}

/// Works a wish out.
///
/// # Errors
/// [`NoCapacity`] when the canner's capacity for the jar is not known.
pub fn work_out(wish: &Wish, capacity: &[Capacity], turnaround: Minutes) -> Result<BatchPlan, NoCapacity> {
    let jar = wish.query.jar;
    let volume = yields::expect(wish.query.product, wish.thickness, wish.weight);
    let jars = Range {
        low: yields::full_jars(volume.low, jar),
        expected: yields::full_jars(volume.expected, jar),
        high: yields::full_jars(volume.high, jar),
    };
    let process = process::look_up(&wish.query);
    let loads = match &process {
        Ok(tested) if jars.expected > 0 => {
            let minutes = tested.options[0].minutes;
            Some(loads::group(&[Group { jar, minutes, count: jars.expected }], capacity, turnaround)?)
        }
        _ => None,
    };
    let acid_per_jar = acid::per_jar(wish.agent, jar);
    Ok(BatchPlan {
        remainder: volume.expected - jar.volume() * f64::from(jars.expected),
        volume,
        jars,
        acid_per_jar,
        acid_total: acid_per_jar.times(jars.expected),
        salt_per_jar: salt_per_jar(jar),
        process,
        loads,
    })
}
