//! Ways back against a linear programme and an exhaustive look around, which know nothing of the comparison.

use bodega_core::recipe::back::{Change, ways_back};
use bodega_model::measures::amounts::Unit;
use bodega_model::recipe::part::{Part, Role};
use microlp::{ComparisonOp, LinearExpr, OptimizationDirection, Problem};

/// The minimal standard generator, so that the recipes are the same on every machine.
struct Chance(u64);

impl Chance {
    fn below(&mut self, most: u64) -> u64 {
        self.0 = self.0 * 48_271 % 2_147_483_647;
        self.0 % most
    }

    /// Quarters of something.
    #[allow(clippy::cast_precision_loss)]
    fn quarters(&mut self, from: u64, to: u64) -> f64 {
        (from + self.below(to - from)) as f64 / 4.0
    }
}

fn cups(name: &str, amount: f64, role: Role) -> Part {
    Part::new(name, Some(amount), Some(Unit::Cup), role)
}

fn list(tomatoes: f64, peppers: f64, onions: f64, lemon: f64) -> Vec<Part> {
    vec![
        cups("tomatoes", tomatoes, Role::Tomato),
        cups("peppers", peppers, Role::LowAcid),
        cups("onions", onions, Role::LowAcid),
        cups("bottled lemon juice", lemon, Role::Acid),
    ]
}

fn amounts(parts: &[Part]) -> [f64; 4] {
    [0, 1, 2, 3].map(|place| parts[place].amount.unwrap())
}

/// Safe by the plain shares of the tomatoes, within a part of them.
fn is_safe(base: [f64; 4], now: [f64; 4], slack: f64) -> bool {
    let share = |all: [f64; 4], place: usize| all[place] / all[0];
    share(now, 1) <= share(base, 1) * (1.0 + slack)
        && share(now, 2) <= share(base, 2) * (1.0 + slack)
        && share(now, 3) >= share(base, 3) * (1.0 - slack)
}

fn after(now: [f64; 4], way: &[Change]) -> [f64; 4] {
    let mut now = now;
    for step in way {
        let names = ["tomatoes", "peppers", "onions", "bottled lemon juice"];
        now[names.iter().position(|name| *name == step.name).unwrap()] += step.change_amount;
    }
    now
}

/// The least tomatoes and lemon juice, not rounded, that put it right by adding alone.
fn least_added(base: [f64; 4], now: [f64; 4]) -> (f64, f64) {
    let mut problem = Problem::new(OptimizationDirection::Minimize);
    let tomatoes = problem.add_var(1.0, (0.0, f64::INFINITY));
    let lemon = problem.add_var(1.0, (0.0, f64::INFINITY));
    for place in [1, 2] {
        // now ≤ share · (tomatoes there + tomatoes added)
        let share = base[place] / base[0];
        let mut row = LinearExpr::empty();
        row.add(tomatoes, share);
        problem.add_constraint(row, ComparisonOp::Ge, now[place] - share * now[0]);
    }
    let share = base[3] / base[0];
    let mut row = LinearExpr::empty();
    row.add(lemon, 1.0);
    row.add(tomatoes, -share);
    problem.add_constraint(row, ComparisonOp::Ge, share * now[0] - now[3]);
    let outcome = problem.solve().unwrap();
    let solution = outcome.solution().unwrap();
    (solution.var_value(tomatoes), solution.var_value(lemon))
}

#[test]
fn ways_back_are_the_nearest_and_never_on_the_unsafe_side() {
    let mut chance = Chance(2_026);
    let mut unsafe_ones = 0;
    for _ in 0..200 {
        let base = list(
            chance.quarters(16, 60),
            chance.quarters(4, 20),
            chance.quarters(4, 20),
            chance.quarters(2, 10),
        );
        let times = chance.quarters(4, 13);
        let bowls: Vec<Part> = base
            .iter()
            .map(|part| {
                let part_times = times * (0.6 + chance.quarters(0, 4));
                Part {
                    amount: part.amount.map(|amount| (amount * part_times * 4.0).round() / 4.0),
                    ..part.clone()
                }
            })
            .collect();
        let (was, now) = (amounts(&base), amounts(&bowls));
        let ways = ways_back(&base, &bowls, false);
        assert_eq!(ways.is_empty(), is_safe(was, now, 0.0005), "{base:?} {bowls:?}");
        unsafe_ones += usize::from(!ways.is_empty());
        for way in &ways {
            assert!(is_safe(was, after(now, way), 1e-9), "{way:?} of {bowls:?} for {base:?}");
            // A quarter of a cup less of any step, and it is not.
            for place in 0..way.len() {
                let mut less = way.clone();
                less[place].change_amount -= 0.25 * less[place].change_amount.signum();
                assert!(
                    !is_safe(was, after(now, &less), 1e-9),
                    "{way:?} could be less, of {bowls:?} for {base:?}"
                );
            }
        }
        for way in ways_back(&base, &bowls, true) {
            let end = after(now, &way);
            let (tomatoes, lemon) = least_added(was, now);
            assert!(way.iter().all(|step| step.change_amount > 0.0));
            let over = (end[0] - now[0]) - tomatoes;
            assert!((-1e-6..0.26).contains(&over), "{over} more than {tomatoes} cups of tomatoes: {way:?}");
            // The tomatoes that were rounded up want their own lemon juice.
            let over = (end[3] - now[3]) - lemon;
            assert!((-1e-6..0.5).contains(&over), "{over} more than {lemon} cups of lemon juice: {way:?}");
        }
    }
    assert!(unsafe_ones > 100, "{unsafe_ones}");
}
