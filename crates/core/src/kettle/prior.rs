//! What is believed of a kettle before anything was read of it, from what was told of its start.

use bodega_model::kettle::words::ROOM_C;
use bodega_model::measures::units::in_celsius;
use bodega_model::tables::process::Product;
use uom::si::mass::kilogram;
use uom::si::mass_rate::kilogram_per_hour;

use super::finish::{CookDown, Happened};
use super::heat::Heat;
use super::hypothesis::Prior;
use super::observation::Observation;
use super::pot::{DRYING, FROZEN_AS_C, LOSS, MASS, POWER, Pot, SOLIDS, STATES, TEMPERATURE, THICKENS};

/// What went in is measured to about this share of it.
const START_SHARE: f64 = 0.012;
/// And when it was measured hot, to this.
const HOT_START_SHARE: f64 = 0.022;
/// Its soluble solids are known to about this share.
const SOLIDS_SHARE: f64 = 0.05;
/// Its temperature is known to about so many degrees.
const START_C: f64 = 3.0;
/// Below this it is frozen, in °C, and how much ice there is then is known to about so many degrees of warming.
const FROZEN_BELOW_C: f64 = -1.0;
const FROZEN_DOUBT_C: f64 = 12.0;
/// A known rate may be off by this share, and now and then by more.
const RATE_DOUBT: f64 = 0.19;
/// The same of a burner's power.
const BURNER_DOUBT: f64 = 0.12;
/// Share of the loss that a burner's efficiency leaves out.
const UNSAID_LOSS: f64 = 0.4;
/// Share of the cook-downs in which it is off by more, and by how many times.
const WIDER: (f64, f64) = (0.15, 2.2);
/// A doubt, as a share, from which it is taken apart.
const GREAT_DOUBT: f64 = 0.3;
/// Heat that usually gets into a kettle, W, and its doubt as a logarithm. Common practice, no source.
const USUAL_POWER: (f64, f64) = (1360.0, 0.52);
/// How it thickens: hardly, or felt; weight, mean and doubt of each. Ours.
const THICKENING: [(f64, f64, f64); 2] = [(0.5, 0.05, 0.07), (0.5, 0.4, 0.3)];
/// The same of what becomes paste.
const THICKENING_TO_PASTE: [(f64, f64, f64); 2] = [(0.3, 0.05, 0.07), (0.7, 0.45, 0.3)];
/// People who read a stick in the pot read it hot, as it stands.
const STICK_HOT: f64 = 0.95;
/// Litres are as often those of a sample that was cooled.
const LITRES_HOT: f64 = 0.5;
/// Steady hands and others: the share of each, and a factor on the usual errors of a reading.
const HANDS: [(f64, f64); 2] = [(0.5, 0.55), (0.5, 1.1)];
/// The usual loss, W/m²K, and drying, kg/m²h, with their doubts as factors. Common practice, no source.
const USUAL_LOSS: (f64, f64) = (11.0, 0.4);
/// See [`USUAL_LOSS`].
const USUAL_DRYING: (f64, f64) = (12.0, 0.45);
/// Kettles of a known rate that did not boil at the start, when nobody said how warm it was.
const NOT_YET_BOILING: f64 = 0.1;

/// A doubt as weights, means and smaller doubts: a great one in several parts, so that each is nearly straight; a small one
/// with a part that allows for more, unless the kettle has shown it.
fn spread_out(mean: f64, doubt: f64, shown: bool) -> Vec<(f64, f64, f64)> {
    if shown && doubt < GREAT_DOUBT {
        return vec![(1.0, mean, doubt)];
    }
    if doubt < GREAT_DOUBT {
        return vec![(1.0 - WIDER.0, mean, doubt), (WIDER.0, mean, doubt * WIDER.1)];
    }
    const PARTS: [(f64, f64); 5] = [(-1.4, 0.12), (-0.7, 0.24), (0.0, 0.28), (0.7, 0.24), (1.4, 0.12)];
    PARTS.map(|(off, share)| (share, mean + off * doubt, 0.42 * doubt)).to_vec()
}

impl CookDown {
    /// What is believed before anything was read.
    pub(super) fn priors(&self, pot: &Pot) -> Vec<Prior> {
        let starts_at = self.starts_at.map(in_celsius);
        let boiling = pot.boils_c + 5.0;
        let starts: Vec<(f64, f64, f64)> = match (starts_at, self.heat) {
            (Some(at), _) if at >= pot.boils_c - 1.5 => vec![(1.0, boiling, 0.0)],
            (Some(at), _) if at < FROZEN_BELOW_C => vec![(1.0, FROZEN_AS_C, FROZEN_DOUBT_C)],
            (Some(at), _) => vec![(1.0, at, START_C)],
            (None, Heat::Rate { .. }) => {
                vec![(1.0 - NOT_YET_BOILING, boiling, 0.0), (NOT_YET_BOILING, ROOM_C, 2.0 * START_C)]
            }
            (None, Heat::Burner { .. }) => vec![(1.0, ROOM_C, START_C)],
            (None, Heat::Unknown) => vec![(0.75, ROOM_C, 2.0 * START_C), (0.25, boiling, 0.0)],
        };
        let loss = USUAL_LOSS.0.ln();
        let powers = match self.heat.rate(self.altitude) {
            Some(rate) => {
                let doubt = match self.heat {
                    Heat::Burner { .. } => BURNER_DOUBT,
                    Heat::Rate { .. } | Heat::Unknown => {
                        self.shown.map_or(RATE_DOUBT, |shown| shown.rate_doubt)
                    }
                };
                let net = pot.power_for(rate.get::<kilogram_per_hour>(), loss);
                // People who know the power of a burner seldom think of all that the kettle loses.
                let unsaid = UNSAID_LOSS * pot.lost_at_boil(loss) / net.exp();
                let is_burner = matches!(self.heat, Heat::Burner { .. });
                spread_out(if is_burner { net - unsaid } else { net }, doubt, self.shown.is_some())
            }
            None => spread_out(USUAL_POWER.0.ln(), USUAL_POWER.1, false),
        };
        let thickening = match self.shown.and_then(|shown| shown.thickens) {
            Some((mean, doubt)) => vec![(1.0, mean, doubt)],
            None if self.product == Some(Product::Paste) => THICKENING_TO_PASTE.to_vec(),
            None => THICKENING.to_vec(),
        };
        let was_read = |is: fn(&Observation) -> bool| {
            self.log
                .iter()
                .any(|(_, what)| matches!(what, Happened::Read { observation, .. } if is(observation)))
        };
        let hot = if was_read(|observation| matches!(observation, Observation::Depth(_))) {
            STICK_HOT
        } else if was_read(|observation| matches!(observation, Observation::Volume(_))) {
            LITRES_HOT
        } else {
            1.0
        };
        let mut reads = if !was_read(|observation| !matches!(observation, Observation::Boils(_))) {
            vec![(1.0, true, 1.0)]
        } else {
            HANDS.map(|(share, hand)| (share * hot, true, hand)).to_vec()
        };
        if hot < 1.0 {
            reads.push((1.0 - hot, false, 1.0));
        }
        let (mass, solids) = (self.start.mass.get::<kilogram>(), self.start.solids.get::<kilogram>());
        let start_share = if starts_at.is_some_and(|at| at > 50.0) { HOT_START_SHARE } else { START_SHARE };
        let mut priors = Vec::new();
        for (start_weight, start, start_off) in &starts {
            for (power_weight, power, power_off) in &powers {
                for (thick_weight, thick, thick_off) in &thickening {
                    for (read_weight, hot, hand) in &reads {
                        let (mut mean, mut off) = ([0.0; STATES], [0.0; STATES]);
                        (mean[MASS], mean[SOLIDS], mean[TEMPERATURE]) = (mass, solids, *start);
                        (mean[LOSS], off[LOSS]) = (loss, USUAL_LOSS.1);
                        (mean[DRYING], off[DRYING]) = (USUAL_DRYING.0.ln(), USUAL_DRYING.1);
                        (mean[POWER], mean[THICKENS]) = (*power, *thick);
                        (off[TEMPERATURE], off[POWER], off[THICKENS]) = (*start_off, *power_off, *thick_off);
                        (off[MASS], off[SOLIDS]) = (start_share * mass, SOLIDS_SHARE * solids);
                        let weight = start_weight * power_weight * thick_weight * read_weight;
                        priors.push(Prior { weight, mean, off, hot: *hot, hand: *hand });
                    }
                }
            }
        }
        priors
    }
}
