//! Kitchens drawn at random around real ones, and how near a forecast comes in them. Their physics is [`pot`]'s own.

pub mod pot;

use bodega_core::kettle::finish::{CookDown, Forecast, Happened, minutes};
use bodega_core::kettle::heat::Heat;
use bodega_core::kettle::heat::by_volume;
use bodega_core::kettle::observation::Observation;
use bodega_core::kettle::vessel::Vessel;
use bodega_model::kettle::contents::Shown;
use bodega_model::kettle::contents::{Contents, Target};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::units::{Power, Time, celsius, kilograms, litres, litres_per_hour, millimetres};
use uom::si::power::watt;
use uom::si::time::minute;
use uom::si::volume::liter;

use pot::{Filled, Thickens, Truth};

/// A small repeatable source of chance (SplitMix64), so that the worlds need no clock and no crate.
pub struct Chance(pub u64);

impl Chance {
    pub fn unit(&mut self) -> f64 {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        #[allow(clippy::cast_precision_loss)]
        let unit = ((z ^ (z >> 31)) >> 11) as f64 / (1_u64 << 53) as f64;
        unit
    }

    /// Normal, by the sum of twelve.
    pub fn normal(&mut self) -> f64 {
        (0..12).map(|_| self.unit()).sum::<f64>() - 6.0
    }

    pub fn between(&mut self, low: f64, high: f64) -> f64 {
        low + (high - low) * self.unit()
    }

    /// Between two numbers, as often in each doubling.
    pub fn log_between(&mut self, low: f64, high: f64) -> f64 {
        self.between(low.ln(), high.ln()).exp()
    }

    pub fn one_in(&mut self, of: f64) -> bool {
        self.unit() * of < 1.0
    }
}

/// A kind of kitchen.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Class {
    /// It boils when the clock starts; a rate is known roughly; a stick.
    Boiling,
    /// Cold, nothing known of the burner, a stick read in hot sauce.
    ColdStick,
    /// Cold, a rate known roughly; a scale, first read once it boils.
    ColdScale,
    /// Cold, a burner in watts, a stick.
    ColdWatts,
    /// Measured cold, stick read in hot sauce, a rate known.
    HotStick,
    /// To a thick sauce or paste, slower as it thickens, refractometer and stick.
    Paste,
    /// The heat is turned and nobody tells.
    Untold,
    /// The heat is turned, and told.
    Told,
    /// A lid for a while.
    Lid,
    /// Juice taken off, more put in.
    Moves,
    /// Walls that lean.
    Tapered,
    /// The words "it boils" and "not yet", a probe, few sticks.
    Words,
    /// Hot from the mill.
    FromTheMill,
    /// A kettle that has cooked down once before; nothing is read of it at first.
    Known,
}

impl Class {
    pub const ALL: [Self; 14] = [
        Self::Boiling,
        Self::ColdStick,
        Self::ColdScale,
        Self::ColdWatts,
        Self::HotStick,
        Self::Paste,
        Self::Untold,
        Self::Told,
        Self::Lid,
        Self::Moves,
        Self::Tapered,
        Self::Words,
        Self::FromTheMill,
        Self::Known,
    ];

    pub const fn name(self) -> &'static str {
        match self {
            Self::Boiling => "boils from the start, stick",
            Self::ColdStick => "cold, burner unknown, stick",
            Self::ColdScale => "cold, rate known roughly, scale once it boils",
            Self::ColdWatts => "cold, burner in watts, stick",
            Self::HotStick => "cold, rate known, stick in hot sauce",
            Self::Paste => "to paste, slower as it thickens",
            Self::Untold => "heat turned, not told",
            Self::Told => "heat turned, told",
            Self::Lid => "lid on for a while",
            Self::Moves => "taken off and put in",
            Self::Tapered => "walls that lean",
            Self::Words => "\"it boils\", a probe, a jug",
            Self::FromTheMill => "hot from the mill",
            Self::Known => "a kettle with one cook-down behind it",
        }
    }
}

/// A cook-down that really happened, with all that was told of it.
pub struct World {
    /// What the program knows, the whole log.
    pub told: CookDown,
    /// Minute at which it was done.
    pub done: f64,
    /// Minute of the last thing that nobody could foresee.
    pub changed: Option<f64>,
    /// Minutes that it takes to see it: none when it was told.
    pub seen_after: f64,
    /// Minutes and litres that readings say, for the rule of two points.
    pub litres: Vec<(f64, f64)>,
    /// Litres at the end, likewise.
    pub goal_l: f64,
    /// Levels that were read truthfully, by place in the log.
    pub truthful: Vec<usize>,
}

fn at(minutes: f64) -> Time {
    Time::new::<minute>(minutes)
}

/// A kettle and its burner.
fn kettle(chance: &mut Chance, class: Class) -> (Truth, f64, Vessel) {
    let litres_in = chance.log_between(3.0, 40.0);
    // Filled to between half and nine tenths, and about as wide as it is deep to twice that.
    let holds = litres_in / chance.between(0.5, 0.9);
    let flat = chance.between(1.0, 2.0);
    let across = (4.0 * flat * holds / 1000.0 / std::f64::consts::PI).cbrt();
    let lean = if class == Class::Tapered { chance.between(1.15, 1.5) } else { 1.0 };
    let depth = across / flat * if lean > 1.0 { 3.0 / (1.0 + lean + lean * lean) } else { 1.0 };
    let thickens = match (class, chance.between(0.0, 4.0)) {
        (Class::Paste, kind) if kind < 1.5 => Thickens::Film(chance.between(0.15, 0.6)),
        (Class::Paste, kind) if kind < 3.0 => Thickens::Careful(chance.between(0.1, 0.35)),
        (Class::Paste, _) => Thickens::Spits(chance.between(8.0, 12.0), chance.between(0.4, 0.8)),
        (_, kind) if kind < 1.5 => Thickens::No,
        (_, kind) if kind < 3.0 => Thickens::Film(chance.between(0.0, 0.35)),
        (_, _) => Thickens::Careful(chance.between(0.0, 0.25)),
    };
    let altitude_ft = chance.between(0.0, 6000.0);
    let truth = Truth {
        bottom_m: across,
        top_m: across * lean,
        depth_m: depth,
        steel_kg: 0.12 * holds + 0.5,
        air_pa: 101_325.0 * (1.0 - 6.8756e-6 * altitude_ft).powf(5.2559),
        room_c: chance.between(17.0, 27.0),
        watts: chance.log_between(1000.0, 5000.0) * chance.between(0.30, 0.75),
        wall: chance.between(6.0, 14.0),
        still_air: chance.between(4.0, 12.0),
        thickens,
    };
    let vessel = Vessel {
        top_diameter: (lean > 1.0).then(|| millimetres(truth.top_m * 1000.0)),
        ..Vessel::straight(millimetres(across * 1000.0), millimetres(depth * 1000.0))
    };
    (truth, altitude_ft, vessel)
}

/// What an open kettle of thin juice loses at the boil, in litres an hour: measured in its own world.
fn rate_of(truth: &Truth, start: &Filled) -> f64 {
    let mut here = *start;
    here.at_c = truth.boils_at(&here);
    let before = here.water_kg;
    truth.step(&mut here, start, 5.0, 1.0, false);
    (before - here.water_kg) * 720.0 / 0.998_2
}

/// Something that is going to happen.
#[derive(Debug, Clone, Copy)]
enum Plan {
    Turn(f64, bool),
    Lid(bool),
    Drain(f64, bool),
    Add(f64),
}

/// One cook-down of a kettle; `None` when it is none that people would sit through.
#[allow(clippy::too_many_lines)]
fn cook(
    chance: &mut Chance,
    class: Class,
    kitchen: &(Truth, f64, Vessel),
    heat: Option<(Heat, Option<Shown>)>,
) -> Option<World> {
    let (truth, altitude_ft, vessel) = kitchen;
    let litres_in = truth.litres_to(truth.depth_m) * chance.between(0.5, 0.9);
    let brix = chance.between(4.2, 6.2);
    let starts_c = match class {
        Class::Boiling => 150.0,
        Class::FromTheMill => chance.between(60.0, 85.0),
        _ if chance.one_in(3.0) => chance.between(3.0, 8.0),
        _ => chance.between(15.0, 27.0),
    };
    let mut here = Filled::of(litres_in, brix, starts_c);
    here.at_c = here.at_c.min(truth.boils_at(&here));
    let start = here;
    let told_start_c = match class {
        Class::Boiling => 100.0,
        _ => (here.at_c + 2.0 * chance.normal()).max(1.0),
    };
    // What is told of the start: so much, measured about as well as any level.
    let told_l = litres_in * (1.0 + 0.01 * chance.normal());
    let told_brix = (brix + 0.2 * chance.normal()).max(3.0);
    let target = match class {
        Class::Paste if chance.one_in(2.0) => Target::Brix(chance.between(10.0, 17.0)),
        Class::Paste => Target::FractionLeft(chance.between(0.28, 0.45)),
        _ if chance.one_in(2.0) => Target::FractionLeft(2.0 / 3.0),
        _ if chance.one_in(2.0) => Target::FractionLeft(0.5),
        _ => Target::Volume(litres(told_l * chance.between(0.4, 0.7))),
    };
    let rate = rate_of(truth, &start);
    let known = |chance: &mut Chance, off: f64| Heat::Rate {
        water: litres_per_hour((rate * (off * chance.normal()).exp()).max(0.03)),
    };
    let (heat, shown) = match (heat, class) {
        (Some(given), _) => given,
        (None, Class::Boiling | Class::Told | Class::HotStick | Class::Lid) => (known(chance, 0.2), None),
        (None, Class::ColdWatts) => {
            let share = chance.between(0.3, 0.75);
            let power = truth.watts / share;
            let guess = (share * (0.12 * chance.normal()).exp()).min(0.95);
            (Heat::Burner { power: Power::new::<watt>(power), efficiency: guess }, None)
        }
        (None, Class::ColdScale) => (known(chance, 0.25), None),
        (None, _) => (Heat::Unknown, None),
    };
    let mut told = CookDown {
        start: Contents::of_volume(litres(told_l), told_brix),
        starts_at: Some(celsius(told_start_c)),
        product: None,
        target,
        vessel: vessel.clone(),
        heat,
        in_oven: false,
        shown,
        altitude: Altitude::from_feet(*altitude_ft).ok()?,
        log: Vec::new(),
    };
    // Litres that a share counts of, as the cook reckons them.
    let mut base_l = told_l;
    let goal_l = |base_l: f64, here: &Filled| match target {
        Target::FractionLeft(share) => base_l * share,
        Target::Volume(volume) => volume.get::<liter>(),
        Target::Brix(brix) => {
            let mass = here.solids_kg * 100.0 / brix;
            Filled { at_c: 20.0, water_kg: mass - here.solids_kg, solids_kg: here.solids_kg }.litres_at(20.0)
        }
        Target::At(_) => f64::NAN,
    };
    let about = (litres_in - goal_l(base_l, &here)) / rate.max(0.05) * 60.0;
    let somewhen = |chance: &mut Chance| chance.between(0.25, 0.7) * (about + 30.0);
    let mut plans: Vec<(f64, Plan)> = Vec::new();
    // Hands go to the knob soon after it boils.
    let mut turns = None;
    match class {
        Class::Untold | Class::Told => {
            let by = if chance.one_in(2.0) { chance.between(0.4, 0.7) } else { chance.between(1.3, 1.8) };
            turns = Some((chance.between(0.03, 0.4) * about, Plan::Turn(by, class == Class::Told)));
        }
        Class::Lid => {
            let on = somewhen(chance);
            plans.push((on, Plan::Lid(true)));
            plans.push((on + chance.between(10.0, 40.0), Plan::Lid(false)));
        }
        Class::Moves => {
            for _ in 0..2 {
                let when = somewhen(chance);
                let much = litres_in * chance.between(0.08, 0.2);
                plans.push((
                    when,
                    if chance.one_in(2.0) { Plan::Add(much) } else { Plan::Drain(much, chance.one_in(2.0)) },
                ));
            }
        }
        _ => {}
    }
    plans.sort_by(|a, b| a.0.total_cmp(&b.0));
    let every = chance.between(10.0, 25.0);
    let mut next = chance.between(5.0, 25.0);
    let says_boil = class == Class::Words || chance.one_in(2.0);
    let mut said_not = !says_boil || !chance.one_in(2.0);
    let mut says_at: Option<f64> = None;
    let (mut clock, mut burner, mut drift, mut lid) = (0.0_f64, 1.0_f64, 0.0_f64, false);
    let (mut litres_read, mut truthful, mut changed) = (Vec::new(), Vec::new(), None);
    let drifts = chance.between(0.0, 0.06);
    let weighs = matches!(class, Class::Told | Class::Lid | Class::Moves) && chance.one_in(2.5);
    let (steady, cools) = (chance.between(1.5, 3.5), chance.one_in(2.0));
    let first_l = litres_in;
    loop {
        let seconds = 5.0;
        drift += -drift * seconds / 3600.0 + drifts * (2.0 * seconds / 3600.0_f64).sqrt() * chance.normal();
        truth.step(&mut here, &start, seconds, burner * drift.exp(), lid);
        clock += seconds / 60.0;
        if here.litres_at(20.0) <= goal_l(base_l, &here) {
            break;
        }
        if clock > 12.0 * 60.0 {
            return None;
        }
        while plans.first().is_some_and(|(when, _)| *when <= clock) {
            let (_, plan) = plans.remove(0);
            changed = Some(clock);
            match plan {
                Plan::Turn(by, true) => {
                    burner *= by;
                    let turned = Truth { watts: truth.watts * burner, ..truth.clone() };
                    let now = rate_of(&turned, &start) * (0.1 * chance.normal()).exp();
                    // The house knows its other setting as well as its first one.
                    let first = match heat {
                        Heat::Rate { water } => water.value / litres_per_hour(rate).value,
                        _ => 1.0,
                    };
                    told.log.push((
                        at(clock),
                        Happened::Turned { water: litres_per_hour((now * first).max(0.03)) },
                    ));
                }
                Plan::Turn(by, false) => burner *= by,
                Plan::Lid(on) => {
                    lid = on;
                    told.log.push((at(clock), Happened::Lid(on)));
                }
                Plan::Drain(much, serum) => {
                    let much = much.min(0.5 * here.litres_at(20.0));
                    let part = much / here.litres_at(20.0);
                    here.take(much * here.litres_at(here.at_c) / here.litres_at(20.0));
                    let volume = litres(much * (1.0 + 0.04 * chance.normal()));
                    told.log.push((at(clock), Happened::Drained { volume, serum }));
                    if !serum {
                        base_l *= 1.0 - part;
                    }
                }
                Plan::Add(much) => {
                    // It has to go in: as much as was boiled away, at most.
                    let much = much.min(first_l - here.litres_at(20.0)).max(0.3);
                    let cold = chance.between(4.0, 25.0);
                    here.add(&Filled::of(much, brix, cold));
                    let more = Contents::of_volume(litres(much * (1.0 + 0.03 * chance.normal())), told_brix);
                    told.log.push((at(clock), Happened::Added { more, at: celsius(cold) }));
                    base_l += much;
                }
            }
        }
        let boils = here.at_c >= truth.boils_at(&here) - 0.3;
        if boils && let Some((after, turn)) = turns.take() {
            plans.push((clock + after, turn));
        }
        if says_boil && boils && says_at.is_none() && starts_c < 100.0 {
            says_at = Some(clock + chance.between(0.0, 4.0));
        }
        if says_at.is_some_and(|when| when <= clock) {
            says_at = Some(f64::INFINITY);
            told.log.push((at(clock), Happened::Read { observation: Observation::Boils(true), sure: false }));
        }
        if !said_not && clock > 10.0 && !boils {
            said_not = true;
            told.log
                .push((at(clock), Happened::Read { observation: Observation::Boils(false), sure: false }));
        }
        if clock < next || (class == Class::ColdScale && !boils) {
            continue;
        }
        next = clock + every * chance.between(0.7, 1.3);
        let level = here.litres_at(here.at_c);
        let stick = |chance: &mut Chance| {
            let depth = truth.depth_of(level) * 1000.0 + steady * chance.normal();
            // Read to the half millimetre, never below the floor.
            (depth * 2.0).round().max(2.0) / 2.0
        };
        let (observation, says_l) = match class {
            _ if weighs || class == Class::ColdScale => {
                let mass = ((here.mass_kg() * (1.0 + 0.002 * chance.normal())) * 50.0).round() / 50.0;
                (Observation::Mass(kilograms(mass)), mass / here.mass_kg() * here.litres_at(20.0))
            }
            Class::Paste if chance.one_in(2.0) => {
                let read = ((here.brix() + 0.15 * chance.normal()) * 5.0).round() / 5.0;
                let mass = here.solids_kg * 100.0 / read;
                let as_read =
                    Filled { at_c: 20.0, water_kg: mass - here.solids_kg, solids_kg: here.solids_kg };
                (Observation::Brix(read), as_read.litres_at(20.0))
            }
            Class::Words if chance.one_in(2.0) => {
                let read = celsius(here.at_c + chance.between(-1.5, 1.5));
                told.log.push((
                    at(clock),
                    Happened::Read { observation: Observation::Temperature(read), sure: false },
                ));
                truthful.push(told.log.len() - 1);
                continue;
            }
            Class::Words => {
                let seen = if cools { here.litres_at(20.0) } else { level };
                let jug = seen + 0.01 * first_l * chance.normal();
                (Observation::Volume(litres(jug)), jug)
            }
            _ => {
                let depth = stick(chance);
                (Observation::Depth(millimetres(depth)), truth.litres_to(depth / 1000.0))
            }
        };
        truthful.push(told.log.len());
        told.log.push((at(clock), Happened::Read { observation, sure: false }));
        litres_read.push((clock, says_l));
    }
    let end_l = goal_l(base_l, &here);
    (clock >= 25.0 && litres_read.len() >= 2).then_some(World {
        told,
        done: clock,
        changed,
        seen_after: if class == Class::Untold { 20.0 } else { 0.0 },
        litres: litres_read,
        goal_l: end_l,
        truthful,
    })
}

/// A world of a class, drawn until it is one.
pub fn world(chance: &mut Chance, class: Class) -> World {
    loop {
        let kitchen = kettle(chance, class);
        if class != Class::Known {
            if let Some(world) = cook(chance, class, &kitchen, None) {
                return world;
            }
            continue;
        }
        let Some(before) = cook(chance, Class::ColdStick, &kitchen, None) else { continue };
        // No day is quite like the other.
        let mut kitchen = kitchen;
        kitchen.0.watts *= (0.08 * chance.normal()).exp();
        let forecast = before.told.forecast();
        let Some(stretch) = forecast.stretches.last() else { continue };
        let heat = Heat::Rate { water: by_volume(stretch.rate) };
        let shown = Shown {
            rate_doubt: stretch.doubt.hypot(0.06),
            thickens: Some((forecast.thickens.0, forecast.thickens.1.hypot(0.12))),
        };
        if let Some(world) = cook(chance, class, &kitchen, Some((heat, Some(shown)))) {
            return world;
        }
    }
}

/// Shares of the true time at which a forecast is asked.
pub const ASKED: [f64; 4] = [0.25, 0.5, 0.75, 0.9];

/// How near forecasts came.
#[derive(Debug, Clone, Copy)]
pub struct Near {
    /// Within the interval.
    pub inside: bool,
    /// Minutes off.
    pub off: f64,
    /// Minutes off, as a share of the time that was left.
    pub of_left: f64,
    /// Minutes off by the rule of two points.
    pub two_points: f64,
}

impl World {
    /// What is known at a minute.
    pub fn until(&self, moment: f64) -> CookDown {
        let log = self.told.log.iter().filter(|(when, _)| minutes(*when) <= moment).copied().collect();
        CookDown { log, ..self.told.clone() }
    }

    /// The straight line through the last two readings.
    fn two_points(&self, moment: f64) -> f64 {
        let seen: Vec<_> = self.litres.iter().filter(|(when, _)| *when <= moment).collect();
        let [.., (from, high), (to, low)] = seen[..] else { return f64::INFINITY };
        let slope = (high - low) / (to - from);
        if slope <= 0.0 {
            return f64::INFINITY;
        }
        (to + (low - self.goal_l) / slope - self.done).abs()
    }

    /// How near the forecast at a share of the true time came; none before what nobody could foresee.
    pub fn near(&self, share: f64) -> Option<Near> {
        let moment = share * self.done;
        if self.changed.is_some_and(|changed| moment < changed + self.seen_after) {
            return None;
        }
        let Forecast { finish, .. } = self.until(moment).forecast();
        // A forecast runs from the last entry; by now it has not come.
        let expected = minutes(finish.expected).max(moment);
        let off = (expected - self.done).abs();
        let (low, high) = (minutes(finish.low), minutes(finish.high).max(moment));
        Some(Near {
            inside: (low..=high).contains(&self.done),
            off,
            of_left: off / (self.done - moment),
            two_points: self.two_points(moment),
        })
    }
}

/// The middle one.
pub fn median(mut values: Vec<f64>) -> f64 {
    values.sort_by(f64::total_cmp);
    values.get(values.len() / 2).copied().unwrap_or(f64::NAN)
}
