//! Where the figures on the screens come from and how sure each is, in words; one touch shows them beside the figure.

use bodega_model::canner::clock::{REST, REST_AFTER_PRESSURE, VENT};
use bodega_model::jars::acid::{Agent, per_jar};
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::measures::vocabulary::vocabulary;
use bodega_model::published::source::Source;
use bodega_model::records::kitchen::USUAL_TURNAROUND;
use serde::Serialize;

use crate::towel::seal::{CHECK_BY, CHECK_FROM};

vocabulary! {
    /// A figure that a screen shows.
    "figure", FigureName {
        /// Acid for a jar.
        Dose = "dose", "acid in each jar";
        /// Room under the lid.
        Headspace = "headspace", "headspace";
        /// Minutes of the process.
        Minutes = "minutes", "minutes";
        /// Minutes of a recipe.
        RecipeMinutes = "recipe_minutes", "a recipe's minutes";
        /// Minutes and acid of paste.
        Paste = "paste", "paste";
        /// Pounds under pressure.
        Pressure = "pressure", "pressure";
        /// Steam before the pressure.
        Venting = "venting", "venting";
        /// Waiting after the heat is off.
        Rest = "rest", "rest";
        /// Hours until lids are judged.
        Lids = "lids", "12 hours";
        /// Fruit for a jar.
        Yields = "yields", "yields";
        /// When a kettle is at its mark.
        Finish = "finish", "finish time";
        /// The best use of a harvest.
        Split = "split", "the split";
        /// Time between two loads.
        Turnaround = "turnaround", "between loads";
        /// Jars before they are filled.
        Sterilising = "sterilising", "sterilising jars";
        /// Lids before they go on.
        Simmering = "simmering", "simmering lids";
    }
}

/// What is known of a figure.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct KnownFigure {
    /// Which.
    pub figure: FigureName,
    /// What it is, and what it rests on.
    pub says: String,
    /// Where it comes from.
    pub source: Source,
    /// How sure it is.
    pub sure: &'static str,
}

/// What is known of one figure.
#[must_use]
pub fn known(figure: FigureName) -> KnownFigure {
    let of = |says: &str, source, sure| KnownFigure { figure, says: says.to_owned(), source, sure };
    let dose = |agent, jar| Spoons::Us.dose(agent, per_jar(agent, jar));
    match figure {
        FigureName::Dose => of(
            &format!(
                "A quart gets {} of bottled lemon juice or {} of citric acid, a pint {} or {}; other sizes in proportion, rounded up.",
                dose(Agent::BottledLemonJuice, JarSize::Quart),
                dose(Agent::CitricAcid, JarSize::Quart),
                dose(Agent::BottledLemonJuice, JarSize::Pint),
                dose(Agent::CitricAcid, JarSize::Pint),
            ),
            Source::usda_guide_3(),
            "Published for pints and quarts; in proportion for the others, never less.",
        ),
        FigureName::Headspace => of(
            "½ inch for whole and crushed tomatoes and for juice, ¼ inch for sauce and paste.",
            Source::usda_guide_3(),
            "Published; up to ½ inch for sauce is common practice.",
        ),
        FigureName::Minutes => of(
            "Tested for this product, pack, jar and altitude, counted from the full rolling boil without a break.",
            Source::usda_guide_3(),
            "Published. Change one of them and the time no longer holds.",
        ),
        FigureName::RecipeMinutes => of(
            "Printed with the recipe for its own jar and altitude, and for nothing else; counted from the full rolling boil \
             without a break.",
            Source::copy_of_recipe(),
            "As sure as the page it was held against. Change the recipe and the time no longer holds.",
        ),
        FigureName::Paste => of(
            "Paste goes into half-pints only, with acid in each jar like the others.",
            Source::common_practice(),
            "The published table has no acid row of its own for paste in half-pints; half a pint's dose is taken.",
        ),
        FigureName::Pressure => of(
            "Pounds by altitude, counted from the moment the pressure is up.",
            Source::usda_guide_3(),
            "Published for dial and weighted gauges. A dial gauge is to be tested every year.",
        ),
        FigureName::Venting => of(
            &format!("{} minutes of steam through the open vent before the weight goes on.", VENT.0),
            Source::usda_guide_1(),
            "Published. Air that stays in keeps the canner cooler than its gauge says.",
        ),
        FigureName::Rest => of(
            &format!(
                "{} minutes with the heat off and the lid off, {} after pressure: jars lifted at once lose liquid.",
                REST.0, REST_AFTER_PRESSURE.0
            ),
            Source::usda_guide_1(),
            "Published. It matters for the seal, not for safety.",
        ),
        FigureName::Lids => of(
            &format!(
                "Lids are judged when the jars have stood {} to {by} hours; within {by} hours a jar that did not seal can be processed again.",
                CHECK_FROM.0 / 60,
                by = CHECK_BY.0 / 60,
            ),
            Source::usda_guide_1(),
            "Published.",
        ),
        FigureName::Yields => of(
            "Pounds of tomatoes to a quart as published, moved by what your own batches gave.",
            Source::usda_guide_3(),
            "A range, not a promise: nine batches in ten fall into it. Paste is reckoned from its solids (common practice).",
        ),
        FigureName::Finish => of(
            "A heat and water balance of the kettle, corrected by every reading.",
            Source::own_model(),
            "Four times in five it is done between the two times. Without a reading it leans on a usual burner.",
        ),
        FigureName::Split => of(
            "Of all shares within jars, lids, acid, hands and hours the one that is worth most by your wishes.",
            Source::own_model(),
            "Proven, or said how far off it may be; it is as good as the yields it stands on.",
        ),
        FigureName::Turnaround => of(
            &format!(
                "{USUAL_TURNAROUND} minutes between two loads: lifting, topping up, bringing the water back."
            ),
            Source::common_practice(),
            "A place to start from; change it where your stove is faster.",
        ),
        FigureName::Sterilising => of(
            "Not needed for plain tomatoes: ten minutes in boiling water or steam make the jars sterile, and under pressure it is hotter still. Wash them, and keep them hot for a hot pack. A recipe of less than ten minutes needs jars that were boiled for 10 minutes, and a minute more for each 1,000 ft.",
            Source::usda_guide_1(),
            "Published: for processes of ten minutes and more nobody has to; for shorter ones it is part of the process.",
        ),
        FigureName::Simmering => of(
            "Not needed here, because today's lids seal without it: wash them, and leave them at room temperature unless their maker asks for more.",
            Source::common_practice(),
            "Makers changed their advice; read the box your lids came in.",
        ),
    }
}
