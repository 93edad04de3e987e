//! How true finish times come in kitchens that are simulated by other equations. Writes docs/finish-times.md: `cargo bench
//! --package bodega-core --bench finish`.

#[path = "../tests/rules/worlds/mod.rs"]
mod worlds;

use std::fmt::Write;
use std::time::Instant;

use bodega_core::kettle::finish::minutes;
use worlds::{ASKED, Chance, Class, Near, median, world};

/// Worlds of each kind; all kinds together are more than two thousand.
const EACH: usize = 150;
/// Fewer forecasts than this say nothing of a kind.
const ENOUGH: usize = 30;

const HEAD: &str = "# How true finish times come

Made by `cargo bench --package bodega-core --bench finish`; a short version is among the tests
(`crates/core/tests/rules/finish.rs`). The kitchens are simulated by a program that shares neither code nor equations with the
forecast (`crates/core/tests/rules/worlds/`): a balance of heat and water by vapour pressures, Antoine's and Kell's equations and
radiation, integrated every five seconds; 3 to 40 L, 1 to 5 kW at 30 to 75 %, up to 6,000 ft; drift, slips of the stick, lids,
thickening by three other laws.

Each cell: the share of runs inside the stated 80 % range / the median error in minutes (that of the straight line through the
last two readings), asked at a quarter, half, three quarters and nine tenths of the true time. What nobody could foresee, a
drain, a lid or a told turn of the heat that is still to come, is left out; after a turn that nobody told it counts from 20
minutes later. A dash stands for fewer than 30 runs. The last column is the share of truthful readings that were asked about.

";

#[allow(clippy::cast_precision_loss)] // counts
fn share(of: usize, all: usize) -> f64 {
    of as f64 / all.max(1) as f64
}

fn cell(row: &[Near]) -> String {
    if row.len() < ENOUGH {
        return " – |".to_owned();
    }
    let inside = share(row.iter().filter(|near| near.inside).count(), row.len());
    let off = median(row.iter().map(|near| near.off).collect());
    let rule = median(row.iter().map(|near| near.two_points).collect());
    let rule = if rule < 1000.0 { format!("{rule:.0}") } else { "none".to_owned() };
    format!(" {inside:.2} / {off:.0} ({rule}) |")
}

fn main() {
    let mut page =
        format!("{HEAD}| kitchens | 25 % | 50 % | 75 % | 90 % | asked |\n|---|---|---|---|---|---|\n");
    let mut all: Vec<Vec<Near>> = vec![Vec::new(); ASKED.len()];
    let (mut took, mut longest, mut asked) = (0.0_f64, 0.0_f64, 0_u32);
    let (mut kept, mut all_flagged, mut all_truthful) = (0, 0, 0);
    for class in Class::ALL {
        let mut chance = Chance(2026);
        let mut rows: Vec<Vec<Near>> = vec![Vec::new(); ASKED.len()];
        let (mut flagged, mut truthful) = (0, 0);
        for _ in 0..EACH {
            let here = world(&mut chance, class);
            for (row, share) in rows.iter_mut().zip(ASKED) {
                row.extend(here.near(share));
            }
            let begun = Instant::now();
            let seen = here.told.forecast();
            let spent = begun.elapsed().as_secs_f64() * 1000.0;
            (took, asked, longest) = (took + spent, asked + 1, longest.max(spent));
            flagged += seen.flagged.iter().filter(|flag| here.truthful.contains(&flag.place)).count();
            truthful += here.truthful.len();
            if class == Class::Known {
                let promise = minutes(here.told.as_at_the_start().forecast().finish.expected);
                kept += usize::from((promise / here.done - 1.0).abs() <= 0.25);
            }
        }
        let cells: String = rows.iter().map(|row| cell(row)).collect();
        let _ = writeln!(page, "| {} |{cells} {:.2} % |", class.name(), 100.0 * share(flagged, truthful));
        for (all, row) in all.iter_mut().zip(rows) {
            all.extend(row);
        }
        (all_flagged, all_truthful) = (all_flagged + flagged, all_truthful + truthful);
    }
    let cells: String = all.iter().map(|row| cell(row)).collect();
    let _ = writeln!(page, "| all |{cells} {:.2} % |", 100.0 * share(all_flagged, all_truthful));
    let left: Vec<String> = all
        .iter()
        .map(|row| format!("{:.0} %", 100.0 * median(row.iter().map(|near| near.of_left).collect())))
        .collect();
    let _ = write!(
        page,
        "\nOf the time that was left the median error is {}.\n\nOf the first promises of a cold kettle with one cook-down \
         behind it {:.0} % were within a quarter of the truth. A forecast over a whole log took {:.1} ms, {longest:.1} ms at \
         most, on one core.\n",
        left.join(", "),
        100.0 * share(kept, EACH),
        took / f64::from(asked)
    );
    print!("{page}");
    let path = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/finish-times.md");
    std::fs::write(path, page).expect("docs can be written");
}
