//! A batch in the household's kettles: one that holds it, else several at once, else rounds.

use bodega_model::measures::units::{Time, Volume, VolumeRate, litres};
use bodega_model::records::kitchen::Units;
use uom::si::ratio::ratio;
use uom::si::time::minute;

/// Share of a kettle's brim that is filled: sauce spatters and rises. Common practice, no source.
const FILLED: f64 = 0.8;

/// A kettle as a batch is spread over it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Usable {
    /// What it holds to the brim.
    pub brim: Volume,
    /// Water that it boils away at full heat.
    pub rate: VolumeRate,
}

/// How a batch cooks.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spread {
    /// Kettles on the stove at once.
    pub kettles: u32,
    /// Times that they are filled.
    pub rounds: u32,
    /// Time of boiling, all rounds together.
    pub boiling: Time,
}

/// Spreads a volume, of which so much water is to boil away, over the fewest kettles that hold it, at most so many at
/// once; over more than one round when all of them do not. `None` without a kettle.
#[must_use]
pub fn spread(volume: Volume, away: Volume, kettles: &[Usable], at_once: u32) -> Option<Spread> {
    let mut kettles = kettles.to_vec();
    // The quickest that holds all of it, else the largest first.
    kettles.sort_by(|a, b| b.brim.value.total_cmp(&a.brim.value));
    let single = kettles
        .iter()
        .filter(|kettle| kettle.brim * FILLED >= volume)
        .max_by(|a, b| a.rate.value.total_cmp(&b.rate.value));
    if let Some(one) = single {
        return Some(Spread { kettles: 1, rounds: 1, boiling: away / one.rate });
    }
    kettles.truncate(at_once.max(1) as usize);
    let mut used = 0;
    let (mut room, mut rate) = (Volume::default(), VolumeRate::default());
    for kettle in &kettles {
        used += 1;
        room += kettle.brim * FILLED;
        rate += kettle.rate;
        if room >= volume {
            break;
        }
    }
    (used > 0).then(|| {
        #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
        // a few tonnes in a household's pots
        let rounds = ((volume / room).get::<ratio>() - 1e-9).ceil().clamp(1.0, 1e4) as u32;
        Spread { kettles: used, rounds, boiling: away / rate }
    })
}

/// What goes into each pot, and what none of them holds.
#[derive(Debug, Clone, PartialEq)]
pub struct InPots {
    /// Places of the pots among those asked about, with what each takes.
    pub pots: Vec<(usize, Volume)>,
    /// What is left for another round.
    pub left: Volume,
}

/// Shares a volume out among pots, each filled to four fifths at the most: the smallest that holds all of it, else the
/// largest first. Several shallow pots cook more evenly than one deep one. Common practice, no source.
#[must_use]
pub fn in_pots(volume: Volume, brims: &[Volume]) -> InPots {
    let room = |place: &usize| brims[*place] * FILLED;
    let mut places: Vec<usize> = (0..brims.len()).collect();
    places.sort_by(|a, b| room(b).value.total_cmp(&room(a).value));
    if let Some(single) = places.iter().rfind(|place| room(place) >= volume) {
        return InPots { pots: vec![(*single, volume)], left: Volume::default() };
    }
    let mut left = volume;
    let mut pots = Vec::new();
    for place in places {
        if left <= Volume::default() {
            break;
        }
        let takes = if room(&place) < left { room(&place) } else { left };
        pots.push((place, takes));
        left -= takes;
    }
    InPots { pots, left }
}

impl InPots {
    /// Which pots hold it raw: "4.5 qt in Wide pot, 2 qt in Stock pot; 1 qt waits for another round". `names` are those of the pots
    /// that were asked about; nothing when there is nothing to hold, or no pot.
    #[must_use]
    pub fn in_words(&self, names: &[&str], units: Units) -> Option<String> {
        /// Less than a household pours away.
        const LEAST_L: f64 = 0.05;
        let each = self.pots.iter().filter(|(_, takes)| *takes > Volume::default());
        let each: Vec<String> =
            each.map(|(place, takes)| format!("{} in {}", units.volume(*takes), names[*place])).collect();
        let is_left = self.left > litres(LEAST_L);
        let left = if is_left {
            format!("; {} waits for another round", units.volume(self.left))
        } else {
            String::new()
        };
        (!each.is_empty()).then(|| format!("{}{left}", each.join(", ")))
    }
}

/// Minutes of boiling.
#[must_use]
pub fn boiling_minutes(spread: &Spread) -> f64 {
    spread.boiling.get::<minute>()
}

#[cfg(test)]
mod tests {
    use super::{Usable, boiling_minutes, in_pots, spread};
    use bodega_model::measures::units::{litres, litres_per_hour};
    use bodega_model::records::kitchen::Units;

    fn kettle(brim: f64, rate: f64) -> Usable {
        Usable { brim: litres(brim), rate: litres_per_hour(rate) }
    }

    #[test]
    fn pots_are_filled_to_four_fifths_and_what_none_holds_is_left() {
        let brims = [litres(5.0), litres(20.0), litres(10.0)];
        let shared = |volume: f64| {
            let found = in_pots(litres(volume), &brims);
            let takes = |(place, takes): &(usize, bodega_model::measures::units::Volume)| {
                (*place, (takes.get::<uom::si::volume::liter>() * 10.0).round())
            };
            (
                found.pots.iter().map(takes).collect::<Vec<_>>(),
                found.left.get::<uom::si::volume::liter>().round(),
            )
        };
        assert_eq!(shared(3.0), (vec![(0, 30.0)], 0.0));
        assert_eq!(shared(7.0), (vec![(2, 70.0)], 0.0));
        assert_eq!(shared(20.0), (vec![(1, 160.0), (2, 40.0)], 0.0));
        assert_eq!(shared(40.0), (vec![(1, 160.0), (2, 80.0), (0, 40.0)], 12.0));
        assert_eq!(in_pots(litres(4.0), &[]).left, litres(4.0));
    }

    #[test]
    fn a_batch_takes_one_kettle_that_holds_it_else_several_else_rounds() {
        let all = [kettle(10.0, 1.0), kettle(20.0, 2.0), kettle(15.0, 2.5)];
        let over = |volume: f64, at_once| {
            let found = spread(litres(volume), litres(6.0), &all, at_once).unwrap();
            (found.kettles, found.rounds, boiling_minutes(&found).round())
        };
        // Twelve litres fit the two larger ones to four fifths; the quicker of them takes 6 L at 2.5 L an hour.
        assert_eq!(over(12.0, 3), (1, 1, 144.0));
        assert_eq!(over(16.0, 3), (1, 1, 180.0));
        // Twenty do not fit one: two together boil 4.5 L an hour.
        assert_eq!(over(20.0, 3), (2, 1, 80.0));
        assert_eq!(over(30.0, 3).0, 3);
        // With one burner it is rounds in the largest.
        assert_eq!(over(30.0, 1), (1, 2, 180.0));
        assert_eq!(over(100.0, 3).1, 3);
        assert_eq!(spread(litres(5.0), litres(1.0), &[], 2), None);
    }

    #[test]
    fn the_pots_are_named_with_what_each_takes() {
        let (wide, stock) = (litres(10.0), litres(5.0));
        let said = |all: f64, units| {
            in_pots(litres(all), &[wide, stock]).in_words(&["Wide pot", "Stock pot"], units)
        };
        assert_eq!(said(3.0, Units::Metric).unwrap(), "3 L in Stock pot");
        assert_eq!(said(11.0, Units::Metric).unwrap(), "8 L in Wide pot, 3 L in Stock pot");
        assert_eq!(
            said(13.0, Units::Metric).unwrap(),
            "8 L in Wide pot, 4 L in Stock pot; 1 L waits for another round"
        );
        assert!(said(11.0, Units::Us).unwrap().starts_with("8.5 qt in Wide pot"));
        assert_eq!(said(0.0, Units::Us), None, "nothing to hold");
        assert_eq!(in_pots(litres(3.0), &[]).in_words(&[], Units::Us), None, "no pot");
    }
}
