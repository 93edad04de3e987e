//! Where a batch's food went, as its record shows it.

use bodega_core::jars::size::JarSize;
use bodega_core::kettle::cooking::{cook_down, span};
use bodega_core::kettle::{Contents, CookWhat};
use bodega_core::ledger::{
    Balance, BalanceVerdict, Figure, Way, balance, boiled_away, in_jars, ladled, weighed,
};
use bodega_core::measures::ids::MoveId;
use bodega_core::measures::units::{Mass, grams, litres};
use bodega_core::records::batch::Batch;
use bodega_core::records::jar::JarRecord;
use bodega_core::records::moved::Moved;
use bodega_store::StoreError;
use serde::Serialize;
use uom::si::mass::gram;
use utoipa::ToSchema;

use crate::state::Shared;

/// A part of the fruit and where it went.
#[derive(Debug, Serialize, ToSchema)]
pub struct PartView {
    /// Where, in words.
    pub words: String,
    /// Grams.
    pub grams: f64,
    /// How far off that may be either way, in grams.
    pub doubt_g: f64,
    /// The amount as somebody told it.
    pub told: Option<String>,
    /// Number of what was told, by which it is taken back.
    pub id: Option<MoveId>,
}

/// The books of a batch: `fruit_g` is the sum of the parts and of what is left.
#[derive(Debug, Serialize, ToSchema)]
pub struct BalanceView {
    /// Grams of fruit that came in.
    pub fruit_g: f64,
    /// Where they went, as far as it was told or measured.
    pub parts: Vec<PartView>,
    /// What nobody told: trimmings, skins and seeds, steam. Below 0 when more came out than went in.
    pub remainder_g: f64,
    /// How far off that may be.
    pub remainder_doubt_g: f64,
    /// What it most likely is.
    pub rest: &'static str,
    /// What this way of working leaves at least.
    pub usual_low_g: f64,
    /// What it leaves at most.
    pub usual_high_g: f64,
    /// Whether it adds up.
    pub verdict: BalanceVerdict,
    /// The verdict in a sentence.
    pub text: String,
}

fn in_grams(mass: Mass) -> f64 {
    mass.get::<gram>()
}

/// What the kettles told of a batch: juice drained off, water boiled away.
fn of_kettles(shared: &Shared, batch: &Batch) -> Result<Vec<(Way, Figure)>, StoreError> {
    let altitude = bodega_core::kitchen::altitude::Altitude::from_feet(batch.altitude_ft).ok();
    let (mut drained, mut steam) = (litres(0.0), litres(0.0));
    let mut has_ended = false;
    for cook in shared.store.batch_cooks(batch.id)? {
        let off = cook.log.iter().filter(|event| event.what == CookWhat::DrainL);
        let off = off.fold(litres(0.0), |sum, event| sum + litres(event.value));
        drained += off;
        if let Some(ended) = cook.ended_at {
            has_ended = true;
            let down = cook_down(&cook, altitude);
            let left = down.forecast().volume_at(span(cook.started_at, ended));
            let began: Contents = down.start;
            // What was drained did not boil away.
            let gone = began.volume() - left - off;
            steam += if gone > litres(0.0) { gone } else { litres(0.0) };
        }
    }
    let mut told = Vec::new();
    if drained > litres(0.0) {
        told.push((Way::Ladled, ladled(drained)));
    }
    if has_ended {
        told.push((Way::Steam, boiled_away(steam)));
    }
    Ok(told)
}

/// Makes up the books of a batch.
pub(crate) fn books(shared: &Shared, batch: &Batch, jars: &[JarRecord]) -> Result<BalanceView, StoreError> {
    let making = batch.making();
    let lifted: Vec<(JarSize, u32)> =
        jars.iter().filter(|jar| jar.lifted_at.is_some()).map(|jar| (jar.size, 1)).collect();
    let moved = shared.store.moves(batch.id)?;
    let mut parts = vec![(Way::Jars, in_jars(&making, &lifted))];
    parts.extend(of_kettles(shared, batch)?);
    let told = |moved: &Moved| (Way::Told(moved.food, moved.place), moved.told.figure(moved.food, &making));
    let measured = parts.len();
    parts.extend(moved.iter().map(told));
    let holds_others = batch.additions.iter().flatten().any(|added| !added.what.is_free());
    let is_over = !jars.is_empty() && lifted.len() == jars.len();
    let Balance { fruit, parts, remainder, rest, usual, verdict, text } =
        balance(&making, weighed(grams(batch.weight_g)), parts, holds_others, is_over);
    let view = |(place, (way, figure)): (usize, &(Way, Figure))| {
        let moved = place.checked_sub(measured).and_then(|place| moved.get(place));
        PartView {
            words: way.words(),
            grams: in_grams(figure.mass),
            doubt_g: in_grams(figure.doubt),
            told: moved.map(|moved| moved.told.words()),
            id: moved.map(|moved| moved.id),
        }
    };
    Ok(BalanceView {
        fruit_g: in_grams(fruit.mass),
        parts: parts.iter().enumerate().map(view).collect(),
        remainder_g: in_grams(remainder.mass),
        remainder_doubt_g: in_grams(remainder.doubt),
        rest,
        usual_low_g: in_grams(usual.0),
        usual_high_g: in_grams(usual.1),
        verdict,
        text,
    })
}
