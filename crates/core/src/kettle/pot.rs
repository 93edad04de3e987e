//! One kettle in motion: temperature, mass and soluble solids under a burner whose power nobody knows exactly.
//!
//! A lumped balance. Heat from the burner warms what is in the kettle, is lost to the kitchen, dries the surface below the
//! boil and drives water off at it. As sauce thickens less heat gets in. What is uncertain is part of the state, so that
//! readings can teach it. Numbers are plain here because they stand side by side in one vector; each says its unit.

use bodega_model::kettle::contents::{MOST_BRIX, density_kg_per_l};
use bodega_model::kettle::words::ROOM_C;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::units::litres;
use nalgebra::SVector;
use uom::si::area::square_meter;
use uom::si::available_energy::kilojoule_per_kilogram;
use uom::si::thermodynamic_temperature::degree_celsius;

use super::heat::latent_heat;
use super::vessel::Vessel;

/// Numbers of a state.
pub const STATES: usize = 7;
/// A state of the kettle; the places are named below.
pub type State = SVector<f64, STATES>;

/// Temperature, °C. Above the boil it runs on as if water could get hotter, so that it says since when it boils.
pub const TEMPERATURE: usize = 0;
/// Everything in the kettle, kg.
pub const MASS: usize = 1;
/// Soluble solids, kg.
pub const SOLIDS: usize = 2;
/// Heat that goes into thin juice, natural logarithm of W.
pub const POWER: usize = 3;
/// Heat that is lost for each degree, natural logarithm of W/m²K.
pub const LOSS: usize = 4;
/// Water that dries off the surface, natural logarithm of kg/m²h at an atmosphere of vapour.
pub const DRYING: usize = 5;
/// How much less heat gets in as it thickens: the logarithm of it, 10 °Brix above thin juice.
pub const THICKENS: usize = 6;

/// Share of the rate that still leaves under a lid. Common practice, no source.
pub const UNDER_LID: f64 = 0.1;
/// Share of the heat that is still lost under a lid. Common practice, no source.
const LOST_UNDER_LID: f64 = 0.7;
/// °Brix from which thickening is felt. Ours.
const FELT_FROM_BRIX: f64 = 4.5;
/// Least share of the heat that gets into the thickest sauce. Ours.
const LEAST_SHARE: f64 = 0.15;
/// Specific heat of water, kJ/kgK, and by how much a °Brix lowers it (common fit for fruit juice, from memory).
const WATER_KJ: f64 = 4.187;
const LESS_KJ_A_BRIX: f64 = 0.025;
/// The steel of the kettle as a share of its contents' heat. Common practice, no source.
const WITH_STEEL: f64 = 1.03;
/// Heat of vaporisation over the gas constant, K: Clausius and Clapeyron near the boil.
const CLAPEYRON_K: f64 = 4890.0;
/// Degrees beyond the boil up to which it is remembered when the boil began.
const REMEMBERED_C: f64 = 300.0;
/// Steps below the boil are as long as this, and longer while it hardly warms; longest step at the boil. Minutes.
const STEP_BELOW_MIN: (f64, f64) = (6.0, 60.0);
const STEP_AT_MIN: f64 = 30.0;
/// Largest share of the contents that one step takes off, and degrees by which it warms them.
const STEP_SHARE: f64 = 0.1;
const STEP_C: f64 = 10.0;

/// Frozen fruit, as a temperature: melting takes as much heat as warming by so many degrees (334 kJ/kg of water, from
/// memory, over the heat of juice).
pub const FROZEN_AS_C: f64 = -78.0;

/// Level of hot juice over that of the same juice at 20 °C: water's expansion (CRC Handbook, from memory; within 0.05 %
/// from 20 to 100 °C).
#[must_use]
pub fn expansion(at_c: f64) -> f64 {
    let over = (at_c - 20.0).max(-20.0);
    1.0 + 2.5e-4 * over + 3.375e-6 * over * over
}

/// What does not change while a kettle cooks down.
#[derive(Debug, Clone)]
pub struct Pot {
    /// Where water boils, °C.
    pub boils_c: f64,
    /// Latent heat there, kJ/kg.
    latent: f64,
    /// Surface, m².
    surface: f64,
    /// Surface and walls, m².
    outside: f64,
}

/// A state in motion: what its logarithms stand for is worked out once.
#[derive(Debug, Clone, Copy)]
struct Lane {
    /// Temperature, °C.
    heat: f64,
    /// Mass, kg.
    mass: f64,
    /// Soluble solids, kg.
    solids: f64,
    /// Heat that goes into thin juice, kW.
    into: f64,
    /// Heat that is lost for each degree, kW.
    lost: f64,
    /// Water that dries off at the boil's vapour pressure, kg in a second.
    drying: f64,
    /// How much less heat gets in.
    thickens: f64,
    /// Whether the lid is on.
    lid: bool,
}

impl Lane {
    fn brix(&self) -> f64 {
        (100.0 * self.solids / self.mass).clamp(0.0, MOST_BRIX)
    }

    /// Share of the burner's heat that gets in.
    fn share(&self) -> f64 {
        let thicker = (self.brix() - FELT_FROM_BRIX) / 10.0;
        if thicker <= 0.0 || self.thickens <= 0.0 {
            return 1.0;
        }
        // Thin sauce hardly feels it, paste does.
        (-self.thickens * thicker * thicker.sqrt()).exp().max(LEAST_SHARE)
    }
}

/// How a state changes in a minute.
#[derive(Debug, Clone, Copy)]
struct Change {
    /// Degrees.
    warmer: f64,
    /// Kilograms of water.
    away: f64,
    /// Kilograms of water if it boils.
    boiling: f64,
}

/// Where a mass of water and sugars boils, °C, over plain water at `plain`: sugars raise it by 0.51 K for a mole to the
/// kilogram of water, at 180 g a mole.
fn boils_at(plain: f64, mass: f64, solids: f64) -> f64 {
    let water = (mass - solids).max(0.2 * mass).max(1e-6);
    plain + 0.51 / 0.18 * (solids / water).clamp(0.0, 2.0)
}

/// What a run to a goal came to, in minutes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ran {
    /// Until the goal, or the limit.
    pub took: f64,
    /// Until it boiled, or the same.
    pub boiled: f64,
}

impl Pot {
    /// A kettle filled to a volume.
    #[must_use]
    pub fn new(vessel: &Vessel, filled_l: f64, altitude: Altitude) -> Self {
        let surface = vessel.surface_at(litres(filled_l)).get::<square_meter>();
        let across = (surface * 4.0 / std::f64::consts::PI).sqrt();
        Self {
            surface,
            // Sauce is on average three quarters as high as at the start.
            outside: surface + 4.0 * 0.75 * filled_l / 1000.0 / across,
            ..Self::in_oven(altitude)
        }
    }

    /// A pan in an oven: the heat comes from all sides, and none of it is lost.
    #[must_use]
    pub fn in_oven(altitude: Altitude) -> Self {
        let boils = altitude.boiling_point();
        Self {
            boils_c: boils.get::<degree_celsius>(),
            latent: latent_heat(boils).get::<kilojoule_per_kilogram>(),
            surface: 0.0,
            outside: 0.0,
        }
    }

    /// °Brix of a state.
    #[must_use]
    pub fn brix(state: &State) -> f64 {
        (100.0 * state[SOLIDS] / state[MASS]).clamp(0.0, MOST_BRIX)
    }

    /// Where a state boils, °C.
    #[must_use]
    pub fn boils_at(&self, state: &State) -> f64 {
        boils_at(self.boils_c, state[MASS], state[SOLIDS])
    }

    /// Its real temperature, °C: ice stays at nothing until it is melted.
    #[must_use]
    pub fn temperature(&self, state: &State) -> f64 {
        state[TEMPERATURE].max(0.0).min(self.boils_at(state))
    }

    /// Litres at 20 °C.
    #[must_use]
    pub fn litres(state: &State) -> f64 {
        state[MASS] / density_kg_per_l(Self::brix(state))
    }

    /// Heat that a kettle at the boil loses, W.
    #[must_use]
    pub fn lost_at_boil(&self, loss: f64) -> f64 {
        loss.exp() * self.outside * (self.boils_c - ROOM_C)
    }

    /// Water that leaves an open kettle once it boils, kg/h, at its present thickness; nothing when it never will.
    #[must_use]
    pub fn rate_at_boil(&self, state: &State) -> f64 {
        self.boiled_by(state[POWER].exp() * self.lane(state, false).share(), state[LOSS])
    }

    /// The same for thin juice.
    #[must_use]
    pub fn thin_rate(&self, power: f64, loss: f64) -> f64 {
        self.boiled_by(power.exp(), loss)
    }

    /// Water that so many W boil away beside what is lost, kg/h.
    fn boiled_by(&self, into: f64, loss: f64) -> f64 {
        ((into - self.lost_at_boil(loss)) * 3.6 / self.latent).max(0.0)
    }

    /// Heat that makes an open kettle of thin juice lose so many kg/h, natural logarithm of W.
    #[must_use]
    pub fn power_for(&self, kg_per_hour: f64, loss: f64) -> f64 {
        (kg_per_hour * self.latent / 3.6 + self.lost_at_boil(loss)).ln()
    }

    /// Minutes since it began to boil, or, negative, until it will; very many when it never will.
    #[must_use]
    pub fn since_boil(&self, state: &State, lid: bool) -> f64 {
        let warmer = self.change(&self.lane(state, lid)).warmer;
        (state[TEMPERATURE] - self.boils_at(state)) / warmer.max(1e-3)
    }

    fn lane(&self, state: &State, lid: bool) -> Lane {
        let (cover, lost_cover) = if lid { (UNDER_LID, LOST_UNDER_LID) } else { (1.0, 1.0) };
        Lane {
            heat: state[TEMPERATURE],
            mass: state[MASS],
            solids: state[SOLIDS],
            into: state[POWER].exp() / 1000.0,
            lost: state[LOSS].exp() * self.outside * lost_cover / 1000.0,
            drying: state[DRYING].exp() * self.surface * cover / 3600.0,
            thickens: state[THICKENS],
            lid,
        }
    }

    fn change(&self, lane: &Lane) -> Change {
        let boils = boils_at(self.boils_c, lane.mass, lane.solids);
        let at = lane.heat.max(0.0).min(boils);
        // At a height there is less air to dry into, and less vapour in proportion.
        let vapour = if lane.heat < boils {
            (CLAPEYRON_K * (1.0 / (boils + 273.15) - 1.0 / (at + 273.15))).exp()
        } else {
            1.0
        };
        let drying = lane.drying * vapour;
        let left = lane.into * lane.share() - lane.lost * (at - ROOM_C) - drying * self.latent;
        let holds = lane.mass.max(0.01) * (WATER_KJ - LESS_KJ_A_BRIX * lane.brix()) * WITH_STEEL;
        let cover = if lane.lid { UNDER_LID } else { 1.0 };
        Change {
            warmer: left * 60.0 / holds,
            away: drying * 60.0,
            boiling: (drying + left.max(0.0) / self.latent * cover) * 60.0,
        }
    }

    /// One step of at most so many minutes, by the midpoint rule; gives the minutes that it took.
    fn step(&self, lane: &mut Lane, most: f64) -> f64 {
        let boils = boils_at(self.boils_c, lane.mass, lane.solids);
        let first = self.change(lane);
        if first.warmer < 0.0 && lane.heat > boils {
            lane.heat = boils;
        }
        let at_boil = lane.heat >= boils && first.warmer >= 0.0;
        let fitting = if at_boil {
            (STEP_SHARE * lane.mass / first.boiling.max(1e-9)).clamp(0.25, STEP_AT_MIN)
        } else {
            (STEP_C / first.warmer.abs().max(1e-6)).clamp(STEP_BELOW_MIN.0, STEP_BELOW_MIN.1)
        };
        let span = if most > fitting { most / (most / fitting).ceil() } else { most };
        let mut middle = *lane;
        middle.heat += first.warmer * span / 2.0;
        middle.mass -= if at_boil { first.boiling } else { first.away } * span / 2.0;
        middle.mass = middle.mass.max(1.2 * lane.solids).max(0.3 * lane.mass);
        let then = self.change(&middle);
        let end = lane.heat + then.warmer * span;
        // Share of the step that is below the boil.
        let under = if lane.heat >= boils {
            if then.warmer >= 0.0 { 0.0 } else { 1.0 }
        } else if end > boils {
            ((boils - lane.heat) / (then.warmer * span)).clamp(0.0, 1.0)
        } else {
            1.0
        };
        lane.heat = end.min(boils + REMEMBERED_C);
        let away = (then.away * under + then.boiling * (1.0 - under)) * span;
        // What is left is never thicker than the thickest paste.
        lane.mass = (lane.mass - away).max(lane.solids * (100.0 / MOST_BRIX)).max(1e-3);
        span
    }

    /// Moves a state on by minutes.
    pub fn run(&self, state: &mut State, minutes: f64, lid: bool) {
        let mut lane = self.lane(state, lid);
        let mut left = minutes;
        while left > 1e-9 {
            left -= self.step(&mut lane, left);
        }
        (state[TEMPERATURE], state[MASS]) = (lane.heat, lane.mass);
    }

    /// Runs an open kettle until no more than a mass is left or a time is over, showing the minute, the mass and the °Brix
    /// on the way.
    pub fn run_to(
        &self,
        state: &State,
        goal_kg: f64,
        limit: f64,
        mut seen: impl FnMut(f64, f64, f64),
    ) -> Ran {
        let mut lane = self.lane(state, false);
        let mut clock = 0.0;
        let mut boiled = (lane.heat >= self.boils_at(state)).then_some(0.0);
        seen(clock, lane.mass, lane.brix());
        while clock < limit && lane.mass > goal_kg {
            let before = lane;
            let mut span = self.step(&mut lane, limit - clock);
            let boils = boils_at(self.boils_c, lane.mass, lane.solids);
            if boiled.is_none() && lane.heat >= boils {
                let share = (boils - before.heat) / (lane.heat - before.heat).max(1e-9);
                boiled = Some(clock + span * share.clamp(0.0, 1.0));
            }
            if lane.mass <= goal_kg {
                span *= (before.mass - goal_kg) / (before.mass - lane.mass).max(1e-12);
                lane.mass = goal_kg;
            }
            clock += span;
            seen(clock, lane.mass, lane.brix());
        }
        Ran { took: clock, boiled: boiled.unwrap_or(clock) }
    }
}
