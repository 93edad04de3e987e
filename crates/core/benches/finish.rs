//! How true finish times come in kitchens that are simulated by other equations. Writes docs/finish-times.md: `cargo bench
//! --package bodega-core --bench finish`.

#[path = "../tests/rules/worlds/mod.rs"]
mod worlds;

use std::fmt::Write;
use std::time::Instant;

use bodega_core::kettle::finish::minutes;
use worlds::{ASKED, Chance, Class, Near, median, world};

/// Worlds of each kind; all kinds together are more than eight thousand.
const EACH: usize = 600;
/// Fewer forecasts than this say nothing of a kind.
const ENOUGH: usize = 60;

const HEAD: &str = "# How true finish times come

Made by `cargo bench --package bodega-core --bench finish`; a short version is among the tests
(`crates/core/tests/rules/finish.rs`). The kitchens are simulated by a program that shares neither code nor equations with the
forecast (`crates/core/tests/rules/worlds/`): a balance of heat and water by vapour pressures, Antoine's and Kell's equations and
radiation, integrated every five seconds; 3 to 40 L, 1 to 5 kW at 30 to 75 %, up to 6,000 ft; drift, slips of the stick, lids,
thickening by three other laws.

Each cell: the share of runs inside the stated 80 % range / the median error in minutes (that of the straight line through the
last two readings), asked at a quarter, half, three quarters and nine tenths of the true time. What nobody could foresee, a
drain, a lid or a told turn of the heat that is still to come, is left out; after a turn that nobody told it counts from 20
minutes later. A dash stands for fewer than 60 runs. The last column is the share of truthful readings that were asked about.

";

#[allow(clippy::cast_precision_loss)] // counts
fn share(of: usize, all: usize) -> f64 {
    of as f64 / all.max(1) as f64
}

/// The median error as a share of the time that was left.
fn of_left(row: &[Near]) -> f64 {
    median(row.iter().map(|near| near.of_left).collect())
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

/// What came of the worlds of one kind.
#[derive(Default)]
struct Tally {
    rows: Vec<Vec<Near>>,
    flagged: usize,
    truthful: usize,
    /// First promises of a known kettle within a quarter of the truth.
    kept: usize,
}

fn tally(class: Class) -> Tally {
    let mut chance = Chance(2026);
    let mut all = Tally { rows: ASKED.iter().map(|_| Vec::new()).collect(), ..Tally::default() };
    for _ in 0..EACH {
        let here = world(&mut chance, class);
        for (row, share) in all.rows.iter_mut().zip(ASKED) {
            row.extend(here.near(share));
        }
        let seen = here.told.forecast();
        all.flagged += seen.flagged.iter().filter(|flag| here.truthful.contains(&flag.place)).count();
        all.truthful += here.truthful.len();
        if class == Class::Known {
            let promise = minutes(here.told.as_at_the_start().forecast().finish.expected);
            all.kept += usize::from((promise / here.done - 1.0).abs() <= 0.25);
        }
    }
    all
}

/// Milliseconds that a forecast over the whole log of a world takes.
fn spent(class: Class) -> f64 {
    let here = world(&mut Chance(2026), class);
    let begun = Instant::now();
    std::hint::black_box(here.told.forecast());
    begun.elapsed().as_secs_f64() * 1000.0
}

fn main() {
    let tallies: Vec<Tally> = std::thread::scope(|scope| {
        let running: Vec<_> = Class::ALL.map(|class| scope.spawn(move || tally(class))).into();
        running.into_iter().map(|one| one.join().expect("worlds can be simulated")).collect()
    });
    let mut page =
        format!("{HEAD}| kitchens | 25 % | 50 % | 75 % | 90 % | asked |\n|---|---|---|---|---|---|\n");
    let mut all = Tally { rows: ASKED.iter().map(|_| Vec::new()).collect(), ..Tally::default() };
    let mut worst = (0.0, "");
    for (class, tally) in Class::ALL.into_iter().zip(tallies) {
        let cells: String = tally.rows.iter().map(|row| cell(row)).collect();
        if let Some(early) = tally.rows.first().filter(|row| row.len() >= ENOUGH) {
            let off = 100.0 * of_left(early);
            eprintln!("{}: {off:.0} %", class.name());
            if off > worst.0 {
                worst = (off, class.name());
            }
        }
        let asked = 100.0 * share(tally.flagged, tally.truthful);
        let _ = writeln!(page, "| {} |{cells} {asked:.2} % |", class.name());
        for (all, row) in all.rows.iter_mut().zip(tally.rows) {
            all.extend(row);
        }
        all.flagged += tally.flagged;
        all.truthful += tally.truthful;
        all.kept += tally.kept;
    }
    let cells: String = all.rows.iter().map(|row| cell(row)).collect();
    let _ = writeln!(page, "| all |{cells} {:.2} % |", 100.0 * share(all.flagged, all.truthful));
    let left: Vec<String> = all.rows.iter().map(|row| format!("{:.0} %", 100.0 * of_left(row))).collect();
    let _ = write!(
        page,
        "\nOf the time that was left the median error is {}; at a quarter of the time it is largest for \
         \"{}\" with {:.0} %.\n\nOf the first promises of a cold kettle with one cook-down \
         behind it {:.0} % were within a quarter of the truth.\n",
        left.join(", "),
        worst.1,
        worst.0,
        100.0 * share(all.kept, EACH)
    );
    print!("{page}");
    let took = Class::ALL.map(spent);
    let longest = took.iter().copied().fold(0.0, f64::max);
    println!("\nA forecast over a whole log: {:.1} ms, {longest:.1} ms at most.", median(took.into()));
    let path = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/finish-times.md");
    std::fs::write(path, page).expect("docs can be written");
}
