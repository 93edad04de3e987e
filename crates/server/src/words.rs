//! The words of every vocabulary as people read them, in the API's description: the front end takes its own from there.

use bodega_core::canner::beside::AlsoHow;
use bodega_core::day::work::Work;
use bodega_core::figures::FigureName;
use bodega_core::jars::bench::JarStep;
use bodega_core::kettle::finish::Asks;
use bodega_core::plan::checklist::Station;
use bodega_core::shelf::label_sheet::{Paper, Shape};
use bodega_model::canner::cover::{UnderJars, WaterOver};
use bodega_model::canner::events::BoilEvent;
use bodega_model::contents::Ingredient;
use bodega_model::crates::fruit::{Condition, Fault, Kind};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::kinds::{JarKind, LidState};
use bodega_model::jars::ph::{PhSample, Remedy};
use bodega_model::jars::size::{JarSize, Mouth};
use bodega_model::jars::spoons::{DoseMeasure, Spoons};
use bodega_model::judge::finding::Severity;
use bodega_model::kettle::words::{CookWhat, HeatSetting, KettleHeat, Warmth};
use bodega_model::kitchen::altitudes::AltitudeReason;
use bodega_model::kitchen::ways::{Days, Decimal, HeatIn, HeightIn, HoursIn};
use bodega_model::ledger::food::{Food, FoodMeasure, FoodPlace};
use bodega_model::measures::amounts::Unit;
use bodega_model::plan::making::Rest;
use bodega_model::plan::making::Thickness;
use bodega_model::recipe::part::{PacketAcid, Role, Side, Strength};
use bodega_model::recipe::process::AltitudePrinted;
use bodega_model::recipe::source::SourceKind;
use bodega_model::records::batch::Liking;
use bodega_model::shelf::leaving::{Discard, Leaving};
use bodega_model::tables::process::{Medium, Method, Pack, Product};
use bodega_model::towel::liquid::LiquidLost;
use bodega_model::towel::seal::{LidVerdict, Rescue};
use serde_json::{Map, Value, json};

/// One vocabulary's words by its schema.
type Words = (&'static str, Vec<(&'static str, &'static str)>);

macro_rules! words {
    ($( $name:ident ),+ $(,)?) => {
        vec![ $( (stringify!($name), $name::ALL.iter().map(|word| (word.word(), word.label())).collect()) ),+ ]
    };
}

/// Every vocabulary that a screen shows.
#[must_use]
pub fn all() -> Vec<Words> {
    words![
        Agent,
        AlsoHow,
        AltitudePrinted,
        AltitudeReason,
        BoilEvent,
        Condition,
        CookWhat,
        Days,
        Decimal,
        Discard,
        DoseMeasure,
        Fault,
        FigureName,
        Food,
        FoodMeasure,
        FoodPlace,
        Asks,
        HeatIn,
        HeatSetting,
        HeightIn,
        HoursIn,
        Warmth,
        Ingredient,
        JarKind,
        JarSize,
        JarStep,
        KettleHeat,
        Kind,
        Leaving,
        LidState,
        LidVerdict,
        LiquidLost,
        Medium,
        Method,
        Mouth,
        Pack,
        Paper,
        PhSample,
        Product,
        Remedy,
        Rescue,
        Rest,
        Role,
        Severity,
        Shape,
        Side,
        Spoons,
        Station,
        Thickness,
        UnderJars,
        Unit,
        WaterOver,
        Work,
        PacketAcid,
        SourceKind,
        Strength,
        Liking,
    ]
}

/// Writes the words into the API's description.
pub fn describe(description: &mut Value) {
    for (schema, words) in all() {
        let labels: Map<String, Value> =
            words.into_iter().map(|(word, label)| (word.to_owned(), json!(label))).collect();
        if let Some(found) = description["components"]["schemas"].get_mut(schema) {
            found["x-labels"] = Value::Object(labels);
        }
    }
    // Jars are named one by one and in numbers, and offered only where tomatoes were tested in them.
    let jars = &mut description["components"]["schemas"]["JarSize"];
    jars["x-plurals"] = JarSize::ALL.iter().map(|jar| (jar.word().to_owned(), json!(jar.plural()))).collect();
    jars["x-canned"] = JarSize::ALL.iter().filter(|jar| jar.is_canned()).map(|jar| jar.word()).collect();
    // A form asks how much only where that decides anything.
    let measured = Ingredient::ALL.iter().filter(|what| what.is_measured()).map(|what| what.word());
    description["components"]["schemas"]["Ingredient"]["x-measured"] = measured.collect();
}
