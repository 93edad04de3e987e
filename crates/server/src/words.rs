//! The words of every vocabulary as people read them, in the API's description: the front end takes its own from there.

use bodega_core::canner::beside::AlsoHow;
use bodega_core::canner::cover::{UnderJars, WaterOver};
use bodega_core::canner::events::BoilEvent;
use bodega_core::crates::fruit::{Condition, Fault, Kind};
use bodega_core::day::work::Work;
use bodega_core::figures::FigureName;
use bodega_core::jars::acid::Agent;
use bodega_core::jars::bench::JarStep;
use bodega_core::jars::contents::Ingredient;
use bodega_core::jars::ph::{PhSample, Remedy};
use bodega_core::jars::size::{JarSize, Mouth};
use bodega_core::jars::spoons::{DoseMeasure, Spoons};
use bodega_core::judge::Severity;
use bodega_core::judge::case::{JarKind, LidState};
use bodega_core::kettle::finish::Asks;
use bodega_core::kettle::{CookWhat, HeatSetting, KettleHeat, Warmth};
use bodega_core::kitchen::altitudes::AltitudeReason;
use bodega_core::kitchen::ways::{Days, Decimal, HeatIn, HeightIn, HoursIn};
use bodega_core::ledger::food::{Food, FoodMeasure, FoodPlace};
use bodega_core::plan::checklist::{Rest, Station};
use bodega_core::plan::yields::Thickness;
use bodega_core::recipe::measure::Unit;
use bodega_core::recipe::part::{PacketAcid, Role, Side, Strength};
use bodega_core::recipe::process::AltitudePrinted;
use bodega_core::recipe::source::SourceKind;
use bodega_core::records::batch::Liking;
use bodega_core::shelf::label_sheet::{Paper, Shape};
use bodega_core::shelf::pantry::{Discard, Leaving};
use bodega_core::tables::process::{Medium, Method, Pack, Product};
use bodega_core::towel::liquid::LiquidLost;
use bodega_core::towel::seal::{LidVerdict, Rescue};
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
