//! Finish times in kitchens that are simulated by other equations. The long table is made by `cargo bench --package
//! bodega-core --bench finish`; here a few worlds of each kind hold what must not break.

use bodega_core::kettle::finish::minutes;

use super::worlds::{ASKED, Chance, Class, Near, median, world};

/// Worlds of each kind.
const EACH: u32 = 12;

#[test]
#[allow(clippy::cast_precision_loss)] // counts
fn finish_times_come_true_in_kitchens_of_other_equations() {
    let mut all: Vec<Vec<Near>> = vec![Vec::new(); ASKED.len()];
    let mut off_by_class = Vec::new();
    let (mut flagged, mut read, mut promised, mut kept) = (0, 0, 0, 0);
    for class in Class::ALL {
        let mut chance = Chance(class as u64 + 1);
        for _ in 0..EACH {
            let here = world(&mut chance, class);
            for (row, share) in all.iter_mut().zip(ASKED) {
                let near = here.near(share);
                off_by_class.push((class.name(), near.map(|near| near.of_left)));
                row.extend(near);
            }
            let seen = here.told.forecast();
            flagged += seen.flagged.iter().filter(|flag| here.truthful.contains(&flag.place)).count();
            read += here.truthful.len();
            if class == Class::Known {
                let promise = minutes(here.told.as_at_the_start().forecast().finish.expected);
                promised += 1;
                kept += u32::from((promise / here.done - 1.0).abs() <= 0.25);
            }
        }
    }
    for (share, row) in ASKED.iter().zip(&all) {
        let inside = row.iter().filter(|near| near.inside).count() as f64 / row.len() as f64;
        assert!((0.75..0.95).contains(&inside), "{inside} inside eight in ten at {share} of the time");
        let (off, rule) = (
            median(row.iter().map(|near| near.off).collect()),
            median(row.iter().map(|near| near.two_points).collect()),
        );
        assert!(off < 0.5 * rule, "{off} min off at {share}, {rule} by the line through two readings");
        let of_left = median(row.iter().map(|near| near.of_left).collect());
        assert!(of_left < 1.0 / 3.0, "{of_left} of the time left at {share}");
    }
    for class in Class::ALL {
        let of = off_by_class.iter().filter(|(name, _)| *name == class.name());
        let median = median(of.filter_map(|(_, off)| *off).collect());
        assert!(median < 0.4, "{}: {median} of the time left", class.name());
    }
    assert!(flagged * 100 <= read, "{flagged} of {read} truthful readings were asked about");
    assert!(kept * 10 >= promised * 8, "{kept} of {promised} first promises were within a quarter");
}
