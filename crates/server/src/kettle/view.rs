//! A kettle on the stove as its station shows it.

use bodega_core::jars::acid::{self, Agent};
use bodega_core::jars::size::JarSize;
use bodega_core::kettle::cooking::{DrainFirst, KettleRate, cook_down, drain_first, settings, span};
use bodega_core::kettle::{CookWhat, HeatSetting, by_volume};
use bodega_core::measures::ids::CookId;
use bodega_core::measures::moment::Moment;
use bodega_core::measures::units::in_litres_per_hour;
use bodega_core::plan::yields::full_jars;
use bodega_core::records::batch::Batch;
use bodega_core::records::cook::{Cook, CookEvent, Kettle};
use bodega_store::{StoreError, if_readable};
use serde::Serialize;
use uom::si::length::millimeter;
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::kettle::instruments::Simulation;
use crate::state::Shared;

const LEMON: Agent = Agent::BottledLemonJuice;
/// Share of the way from which it sticks to the bottom.
pub(crate) const STIR_FROM: f64 = 0.7;

/// A kettle with the rate it has shown.
#[derive(Debug, Serialize, ToSchema)]
pub struct KettleView {
    /// The kettle.
    #[serde(flatten)]
    pub kettle: Kettle,
    /// What it holds to the brim, in litres.
    pub brim_l: f64,
    /// What to plan with at each setting of the heat.
    pub rates: Vec<KettleRate>,
    /// Whether something cooks in it.
    pub busy: bool,
}

/// A moment and what is in the kettle then.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct CookPoint {
    /// When.
    pub at: Moment,
    /// Litres.
    pub volume_l: f64,
}

/// What draining thin juice now would change.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct DrainView {
    /// Litres to drain.
    pub drain_l: f64,
    /// Minutes it spares.
    pub spares_minutes: f64,
    /// Litres less at the end.
    pub less_l: f64,
}

impl From<DrainFirst> for DrainView {
    fn from(drain: DrainFirst) -> Self {
        Self {
            drain_l: drain.drain.get::<liter>(),
            spares_minutes: drain.spares.get::<minute>(),
            less_l: drain.less.get::<liter>(),
        }
    }
}

/// A kettle on the stove.
#[derive(Debug, Serialize, ToSchema)]
pub struct CookView {
    /// Number of the record.
    pub id: CookId,
    /// The kettle.
    pub kettle: Kettle,
    /// The batch it is for.
    pub batch: Option<Batch>,
    /// Temperature as last read, in degrees Celsius.
    pub temp_c: Option<f64>,
    /// Whether the lid is on.
    pub lid_on: bool,
    /// How far the heat is turned up.
    pub setting: HeatSetting,
    /// When the heat came on.
    pub started_at: Moment,
    /// Litres that went in.
    pub start_l: f64,
    /// Litres in it now, as far as it is known.
    pub now_l: f64,
    /// Depth now, in millimetres.
    pub level_mm: f64,
    /// The mark on the stick, in millimetres.
    pub mark_mm: f64,
    /// Litres at the end.
    pub target_l: f64,
    /// °Brix at the end.
    pub final_brix: f64,
    /// Share of the way, 0 to 1.
    pub done: f64,
    /// Litres of water an hour.
    pub rate_l_per_h: f64,
    /// Expected finish.
    pub finish: Moment,
    /// One in ten finish before it.
    pub finish_low: Moment,
    /// One in ten finish after it.
    pub finish_high: Moment,
    /// Whether the mark is reached.
    pub reached: bool,
    /// Whether it thickens so far that it sticks.
    pub stir: bool,
    /// Level over time, what was and what is expected.
    pub curve: Vec<CookPoint>,
    /// The log.
    pub log: Vec<CookEvent>,
    /// Places in the log that lie too far off and were not obeyed.
    pub flagged: Vec<usize>,
    /// Draining first, beside boiling it all.
    pub drain_first: Option<DrainView>,
    /// Full pints it will fill.
    pub pints: u32,
    /// Lemon juice for a pint, as measured out.
    pub acid_per_pint: String,
    /// Simulated instruments that stand at it.
    pub simulated: Vec<Simulation>,
}

pub(crate) fn view(shared: &Shared, cook: Cook) -> Result<CookView, StoreError> {
    let kitchen = shared.store.kitchen()?;
    let altitude = kitchen.altitude();
    let down = cook_down(&cook, altitude);
    let forecast = down.forecast();
    let now = span(cook.started_at, shared.clock.now());
    let here = forecast.volume_at(now);
    let (here_l, goal_l) = (here.get::<liter>(), forecast.goal.volume().get::<liter>());
    let done = ((cook.volume_l - here_l) / (cook.volume_l - goal_l).max(1e-6)).clamp(0.0, 1.0);
    let reached = now >= forecast.finish.expected;
    Ok(CookView {
        id: cook.id,
        started_at: cook.started_at,
        start_l: cook.volume_l,
        now_l: here_l,
        level_mm: down.vessel.depth_of(here).get::<millimeter>(),
        mark_mm: down.vessel.depth_of(forecast.goal.volume()).get::<millimeter>(),
        target_l: goal_l,
        final_brix: forecast.goal.brix(),
        done,
        rate_l_per_h: in_litres_per_hour(by_volume(forecast.rate)),
        finish: cook.started_at.plus_time(forecast.finish.expected),
        finish_low: cook.started_at.plus_time(forecast.finish.low),
        finish_high: cook.started_at.plus_time(forecast.finish.high),
        reached,
        stir: done >= STIR_FROM && !reached,
        drain_first: drain_first(&down, &forecast, now).map(DrainView::from),
        pints: full_jars(forecast.goal.volume(), JarSize::Pint),
        acid_per_pint: kitchen.spoons.dose_with_volume(LEMON, acid::per_jar(LEMON, JarSize::Pint)),
        curve: forecast
            .curve
            .iter()
            .map(|(at, volume)| CookPoint {
                at: cook.started_at.plus_time(*at),
                volume_l: volume.get::<liter>(),
            })
            .collect(),
        flagged: forecast.flagged,
        simulated: Simulation::ALL
            .into_iter()
            .filter(|simulation| shared.simulated.has(cook.id, *simulation))
            .collect(),
        batch: cook.batch.map(|batch| if_readable(shared.store.batch(batch))).transpose()?.flatten(),
        temp_c: cook.log.iter().rfind(|event| event.what == CookWhat::TempC).map(|event| event.value),
        lid_on: cook
            .log
            .iter()
            .rfind(|event| matches!(event.what, CookWhat::LidOn | CookWhat::LidOff))
            .is_some_and(|event| event.what == CookWhat::LidOn),
        setting: settings(&cook).last().unwrap_or(cook.setting),
        log: cook.log,
        kettle: cook.kettle,
    })
}

/// Every kettle on the stove, as it stands now.
pub(crate) fn on_stove(shared: &Shared) -> Result<Vec<CookView>, StoreError> {
    shared.store.cooks(false)?.into_iter().map(|cook| view(shared, cook)).collect()
}
