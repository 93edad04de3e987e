//! A kettle on the stove as its station shows it.

use bodega_core::counter::Cooking;
use bodega_core::jars::doses::each_takes;
use bodega_core::kettle::cooking::{DrainFirst, pulp_share, span};
use bodega_core::kettle::finish::{Asks, Finish};
use bodega_core::kettle::goal::{BOIL_BEFORE_FILLING, Timer, hold_between, timer};
use bodega_core::kettle::heat::by_volume;
use bodega_core::kettle::learned::{KettleRate, Promises, settings};
use bodega_core::plan::yields::full_jars;
use bodega_model::crates::fruit::{Kind, common_kind};
use bodega_model::jars::size::JarSize;
use bodega_model::kettle::words::{CookWhat, HeatSetting, TargetKind};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::ids::CookId;
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::{celsius, in_celsius, in_litres_per_hour};
use bodega_model::records::batch::Batch;
use bodega_model::records::cook::{Cook, CookEvent, Kettle};
use bodega_model::records::kitchen::Kitchen;
use bodega_store::{StoreError, if_readable};
use serde::Serialize;
use uom::si::length::millimeter;
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::state::Shared;
use crate::state::instruments::Simulation;

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
    /// How its first promises came true; `null` until one was led to its mark.
    pub promises: Option<Promises>,
    /// Whether something cooks in it.
    pub busy: bool,
}

/// A moment and what is in the kettle then.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct CookPoint {
    /// When.
    pub at: Moment,
    /// Litres at 20 °C.
    pub volume_l: f64,
    /// One in ten lies below.
    pub low_l: f64,
    /// One in ten lies above.
    pub high_l: f64,
}

/// A moment with its 80 % interval.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct MomentBetween {
    /// One in ten lies before it.
    pub low: Moment,
    /// As many before it as after.
    pub expected: Moment,
    /// One in ten lies after it.
    pub high: Moment,
}

/// A reading that disagrees with all else, and is asked about before it is put aside.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FlaggedLine {
    /// Its place in the log.
    pub line: usize,
    /// When it was read.
    pub at: Moment,
    /// What may have happened, the likeliest first.
    pub asks: Vec<Asks>,
    /// Whether the time goes with it all the same, because what was read since agrees.
    pub obeyed: bool,
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

/// A clock that starts when it boils or is hot enough.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct TimerView {
    /// Minutes that it runs.
    pub minutes: f64,
    /// Since when; `null` until then.
    pub since: Option<Moment>,
    /// What starts it.
    pub starts_with: CookWhat,
    /// Juice is held from so many degrees Celsius on, when it is to be held.
    pub hold_from_c: Option<f64>,
    /// And below so many.
    pub hold_to_c: Option<f64>,
    /// What is said of juice before it is filled; `null` of anything else.
    pub before_filling: Option<&'static str>,
}

/// Jars of one size that a batch has set out, and what is expected to fill them.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FillView {
    /// Size.
    pub jar: JarSize,
    /// Jars that are set out.
    pub set_out: u32,
    /// What each of them takes of acid, in words.
    pub says: String,
}

/// All kettles of one batch.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct TogetherView {
    /// Kettles that are on the stove.
    pub kettles: usize,
    /// Litres in them now.
    pub now_l: f64,
    /// Litres at the end.
    pub target_l: f64,
    /// When the last of them is done.
    pub finish: Moment,
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
    /// Depth now, in millimetres, as hot as it is.
    pub level_mm: f64,
    /// What its goal means.
    pub goal: TargetKind,
    /// The goal's number.
    pub goal_value: f64,
    /// The clock of a goal that is a time.
    pub timer: Option<TimerView>,
    /// The mark on the stick in the hot kettle, in millimetres; none when the goal is a time.
    pub mark_hot_mm: Option<f64>,
    /// The same when it has cooled to 20 °C.
    pub mark_mm: Option<f64>,
    /// Litres at the end.
    pub target_l: f64,
    /// °Brix at the end.
    pub final_brix: f64,
    /// Share of the way, 0 to 1.
    pub done: f64,
    /// Litres of water an hour.
    pub rate_l_per_h: f64,
    /// Whether it boils; `null` when nobody can tell.
    pub boiling: Option<bool>,
    /// When it boils, or began to.
    pub boils: MomentBetween,
    /// Expected finish.
    pub finish: Moment,
    /// Whether the finish is known so little that only its bounds are worth saying.
    pub vague: bool,
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
    /// Readings that disagree with all else.
    pub flagged: Vec<FlaggedLine>,
    /// Draining first, beside boiling it all.
    pub drain_first: Option<DrainView>,
    /// Jars of its batch with the acid of each; none without a batch.
    pub fills: Vec<FillView>,
    /// Litres that the batch's jars hold; `null` without a batch.
    pub jars_hold_l: Option<f64>,
    /// Full pints it will fill, while it is for no batch.
    pub pints: u32,
    /// Every kettle of its batch, when there are several.
    pub together: Option<TogetherView>,
    /// Simulated instruments that stand at it.
    pub simulated: Vec<Simulation>,
}

impl CookView {
    /// As far as it calls for somebody.
    pub(crate) fn cooking(&self) -> Cooking {
        Cooking {
            name: self.kettle.name.clone(),
            goal: self.goal,
            timer: self.timer.map(|timer| Timer { minutes: timer.minutes, since: timer.since }),
            finish: self.finish,
            temp: self.temp_c.map(celsius),
        }
    }
}

/// Jars that a batch has set out, with what each takes of acid.
fn fills(shared: &Shared, batch: &Batch, kitchen: &Kitchen) -> Result<Vec<FillView>, StoreError> {
    let sizes = shared.store.batch_sizes(batch.id)?;
    let fill =
        |(jar, set_out): (JarSize, u32)| FillView { jar, set_out, says: each_takes(batch, jar, kitchen) };
    Ok(sizes.into_iter().map(fill).collect())
}

fn timer_view(cook: &Cook, altitude: Option<Altitude>) -> Option<TimerView> {
    let (timer, starts_with) = timer(cook).zip(cook.target.starts_with())?;
    let between = (cook.target == TargetKind::HoldMinutes).then(|| hold_between(altitude));
    Some(TimerView {
        minutes: timer.minutes,
        since: timer.since,
        starts_with,
        hold_from_c: between.map(|between| in_celsius(between.0)),
        hold_to_c: between.map(|between| in_celsius(between.1)),
        before_filling: between.map(|_| BOIL_BEFORE_FILLING),
    })
}

/// Times from the start of heating as moments.
fn between(cook: &Cook, finish: Finish) -> MomentBetween {
    let at = |time| cook.started_at.plus_time(time);
    MomentBetween { low: at(finish.low), expected: at(finish.expected), high: at(finish.high) }
}

/// A cook-down as it stands, without what stands beside it.
pub(crate) fn view(shared: &Shared, cook: Cook) -> Result<CookView, StoreError> {
    let kitchen = shared.store.kitchen()?;
    let altitude = kitchen.altitude();
    let foreseen = shared.forecasts.of(&cook, altitude);
    let (down, forecast) = (&foreseen.down, &foreseen.forecast);
    let clock = shared.clock.now();
    let now = span(cook.started_at, clock);
    let here = forecast.volume_at(now);
    let (here_l, goal_l) = (here.get::<liter>(), forecast.goal.volume().get::<liter>());
    let clocked = timer(&cook);
    let finish = clocked
        .map_or_else(|| cook.started_at.plus_time(forecast.finish.expected), |timer| timer.ends(clock));
    let reached = finish <= clock && clocked.is_none_or(|timer| timer.since.is_some());
    let by_mark = ((cook.volume_l - here_l) / (cook.volume_l - goal_l).max(1e-6)).clamp(0.0, 1.0);
    let done = clocked.map_or(by_mark, |timer| timer.share(clock));
    let kind = cook.batch.map(|batch| shared.store.batch_lots(batch)).transpose()?;
    let kind = kind.and_then(|fruit| common_kind(fruit.iter().map(|(lot, _)| lot.kind)));
    let pulp = pulp_share(&cook, kind.unwrap_or(Kind::Mixed)) * down.start.volume();
    let batch = cook.batch.map(|batch| if_readable(shared.store.batch(batch))).transpose()?.flatten();
    let fills = batch.as_ref().map(|batch| fills(shared, batch, &kitchen)).transpose()?;
    let jars_hold = fills.as_ref().map(|fills| {
        fills.iter().map(|fill| fill.jar.volume().get::<liter>() * f64::from(fill.set_out)).sum()
    });
    let said_boils = cook.log.iter().any(|event| event.what == CookWhat::Boils);
    let bounds = |end| if clocked.is_some() { finish } else { cook.started_at.plus_time(end) };
    Ok(CookView {
        id: cook.id,
        started_at: cook.started_at,
        start_l: cook.volume_l,
        now_l: here_l,
        level_mm: down.vessel.depth_of(here * forecast.expansion_at(now)).get::<millimeter>(),
        goal: cook.target,
        goal_value: cook.target_value,
        timer: timer_view(&cook, altitude),
        mark_hot_mm: forecast.mark.map(|mark| mark.hot.get::<millimeter>()),
        mark_mm: forecast.mark.map(|mark| mark.cold.get::<millimeter>()),
        target_l: goal_l,
        final_brix: forecast.goal.brix(),
        done,
        rate_l_per_h: in_litres_per_hour(by_volume(forecast.rate)),
        boiling: if said_boils { Some(true) } else { forecast.is_boiling(now) },
        boils: between(&cook, forecast.boils),
        finish,
        vague: clocked.is_none() && !reached && forecast.finish.is_vague(now),
        finish_low: bounds(forecast.finish.low),
        finish_high: bounds(forecast.finish.high),
        reached,
        stir: clocked.is_none() && done >= STIR_FROM && !reached,
        drain_first: foreseen.drain_first(pulp, clock).map(DrainView::from),
        fills: fills.unwrap_or_default(),
        jars_hold_l: jars_hold,
        pints: full_jars(forecast.goal.volume(), JarSize::Pint),
        together: None,
        curve: forecast
            .curve
            .iter()
            .map(|point| CookPoint {
                at: cook.started_at.plus_time(point.at),
                volume_l: point.volume.get::<liter>(),
                low_l: point.low.get::<liter>(),
                high_l: point.high.get::<liter>(),
            })
            .collect(),
        flagged: forecast
            .flagged
            .iter()
            .map(|flagged| FlaggedLine {
                line: flagged.place,
                at: cook.log[flagged.place].at,
                asks: flagged.asks.clone(),
                obeyed: flagged.obeyed,
            })
            .collect(),
        simulated: Simulation::ALL
            .into_iter()
            .filter(|simulation| shared.simulated.has(cook.id, *simulation))
            .collect(),
        batch,
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

/// Every kettle on the stove, as it stands now; those of one batch know of one another.
pub(crate) fn on_stove(shared: &Shared) -> Result<Vec<CookView>, StoreError> {
    let mut views: Vec<CookView> =
        shared.store.cooks()?.into_iter().map(|cook| view(shared, cook)).collect::<Result<_, _>>()?;
    let of = |view: &CookView| view.batch.as_ref().map(|batch| batch.id);
    let together: Vec<Option<TogetherView>> = views
        .iter()
        .map(|view| {
            let batch = of(view)?;
            let all: Vec<&CookView> = views.iter().filter(|other| of(other) == Some(batch)).collect();
            (all.len() > 1).then(|| TogetherView {
                kettles: all.len(),
                now_l: all.iter().map(|cook| cook.now_l).sum(),
                target_l: all.iter().map(|cook| cook.target_l).sum(),
                finish: all.iter().map(|cook| cook.finish).max().unwrap_or(view.finish),
            })
        })
        .collect();
    for (view, together) in views.iter_mut().zip(together) {
        view.together = together;
    }
    Ok(views)
}
