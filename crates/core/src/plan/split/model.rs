//! The split as a mixed-integer model.

use bodega_model::crates::fruit::Kind;
use bodega_model::jars::size::JarSize;
use bodega_model::ledger::food::Stuff;
use bodega_model::measures::units::{in_pounds, in_quarts, pounds, quarts};
use bodega_model::plan::making::share_left;
use bodega_model::tables::process::Product;
use microlp::{ComparisonOp, Error, LinearExpr, OptimizationDirection, Problem, SolveOptions, Variable};
use uom::si::time::minute;

use super::loads::Loads;
use super::{Choice, NoSplit, Question};
use crate::kettle::heat::usual_rate;
use crate::plan::outlook;
use crate::plan::stuff::{boiled_away, can_become, jar_quarts, part_of, quarts_per_pound};

/// Worth of a jar's quart beyond its goal, beside 1 to 3 for one that a goal asks for.
const BEYOND_GOAL: f64 = 0.05;
/// Cost of a burner minute: far below any jar, enough that sauce takes the fruit with the least water.
const BURNER_MINUTE: f64 = 1e-4;
/// Most of the water to be boiled away that can be drained off as thin juice instead. Common practice, no source.
const MOST_DRAINED: f64 = 0.5;
/// How much of a sauce's body goes with thin juice that is ladled off, beside juice as it is: the pulp stays behind.
/// Ours, to be learned.
const BODY_DRAINED: f64 = 0.5;
/// Share of optimality that is good enough: far below one jar.
pub(super) const GAP: f64 = 1e-4;
/// Nodes the search may visit; keeps the answer under a second, and the same on every machine.
const NODES: u64 = 20_000;

/// Most jars that may be made of each choice.
pub(super) type Caps = Vec<Option<u32>>;

/// What the model answers.
#[derive(Debug, Clone)]
pub(super) struct Solved {
    /// Worth of all jars, less what the burners cost.
    pub(super) worth: f64,
    /// Jars of each choice; whole when that was asked for.
    pub(super) jars: Vec<f64>,
    /// Pounds of each lot in each choice.
    pub(super) fruit: Vec<Vec<f64>>,
    /// Quarts drained off each choice.
    pub(super) drained: Vec<f64>,
    /// Loads that take at least each of the times, for each kind of loads.
    pub(super) loads: Vec<Vec<f64>>,
    /// Whether nothing within the model is worth more.
    pub(super) proven: bool,
}

pub(super) struct Model {
    problem: Problem,
    /// Whether jars and loads are whole.
    is_whole: bool,
    /// Pounds of each lot in each choice.
    fruit: Vec<Vec<Variable>>,
    jars: Vec<Variable>,
    /// How many loads take at least each of the times, for each kind of loads.
    loads: Vec<Vec<Variable>>,
    /// Quarts drained off each choice.
    drained: Vec<Option<Variable>>,
}

/// Most jars or loads the model thinks of; far beyond a household's day.
const MOST: i32 = 2000;

impl Model {
    /// Jars are no more than their cap; with `is_whole` they and the loads are whole.
    pub(super) fn new(question: &Question<'_>, loads: &Loads<'_>, caps: &Caps, is_whole: bool) -> Self {
        let juice_wanted = question.choices.iter().any(|choice| choice.making.product == Product::Juice);
        let mut model = Self {
            fruit: Vec::new(),
            jars: Vec::new(),
            loads: Vec::new(),
            drained: Vec::new(),
            is_whole,
            problem: Problem::new(OptimizationDirection::Maximize),
        };
        for (choice, cap) in question.choices.iter().zip(caps) {
            let worth = jar_quarts(choice.jar);
            let most = cap.map_or(MOST, |cap| i32::try_from(cap).unwrap_or(MOST).min(MOST));
            let bounds = choice.pinned.map_or((0, most), |count| {
                let count = i32::try_from(count).unwrap_or(MOST);
                (count, count)
            });
            let jars = model.count(0.0, bounds);
            let problem = &mut model.problem;
            let wanted = problem.add_var(worth * choice.preference, (0.0, f64::from(choice.goal)));
            problem.add_constraint([(wanted, 1.0), (jars, -1.0)], ComparisonOp::Le, 0.0);
            let burner =
                |lot| -BURNER_MINUTE * outlook::stove_time(&choice.making, &a_pound(lot)).get::<minute>();
            // What cannot become it takes no part in it.
            let most = |lot: &Stuff| {
                if can_become(lot, choice.making.product) { f64::INFINITY } else { 0.0 }
            };
            let fruit = question.lots.iter().map(|lot| problem.add_var(burner(lot), (0.0, most(lot))));
            let fruit = fruit.collect();
            model.fruit.push(fruit);
            model.jars.push(jars);
            // Thin juice is drained off only where there are juice jars to take it.
            let drains = choice.making.product == Product::Sauce && juice_wanted;
            let spared = BURNER_MINUTE * spared_minutes(choice);
            model.drained.push(drains.then(|| model.problem.add_var(spared, (0.0, f64::INFINITY))));
        }
        model.count_sizes(question);
        model.fill_jars(question);
        model.keep_to_stock(question);
        model.keep_to_hours(question);
        if let Some(minutes) = question.stock.canner_minutes {
            model.keep_to_loads(loads, minutes);
        }
        model
    }

    /// All jars of a size together: where several choices are worth the same, only these tell splits apart.
    fn count_sizes(&mut self, question: &Question<'_>) {
        let mut sizes: Vec<JarSize> = question.choices.iter().map(|choice| choice.jar).collect();
        sizes.sort_unstable();
        sizes.dedup();
        for size in sizes {
            let all = self.count(jar_quarts(size) * BEYOND_GOAL, (0, MOST));
            let mut sum = LinearExpr::empty();
            sum.add(all, -1.0);
            for (jars, _) in self.jars.iter().zip(&question.choices).filter(|(_, choice)| choice.jar == size)
            {
                sum.add(*jars, 1.0);
            }
            self.problem.add_constraint(sum, ComparisonOp::Eq, 0.0);
        }
    }

    /// Something that is counted.
    fn count(&mut self, worth: f64, (least, most): (i32, i32)) -> Variable {
        if self.is_whole {
            self.problem.add_integer_var(worth, (least, most))
        } else {
            self.problem.add_var(worth, (f64::from(least), f64::from(most)))
        }
    }

    /// Jars are filled by the fruit's yield; thin juice drained off sauce fills juice jars and costs the sauce its share.
    fn fill_jars(&mut self, question: &Question<'_>) {
        let first_juice = question.choices.iter().position(|choice| choice.making.product == Product::Juice);
        for (place, choice) in question.choices.iter().enumerate() {
            let mut filled = LinearExpr::empty();
            filled.add(self.jars[place], -jar_quarts(choice.jar));
            for (lot, fruit) in question.lots.iter().zip(&self.fruit[place]) {
                filled.add(*fruit, quarts_per_pound(question.household, &choice.making, lot));
            }
            if let Some(drained) = self.drained[place] {
                filled.add(drained, -BODY_DRAINED * share_left(&choice.making, Kind::Paste));
                let mut most = LinearExpr::empty();
                most.add(drained, 1.0);
                for (lot, fruit) in question.lots.iter().zip(&self.fruit[place]) {
                    let away = in_quarts(boiled_away(&choice.making, &a_pound(lot)));
                    most.add(*fruit, -away * MOST_DRAINED);
                }
                self.problem.add_constraint(most, ComparisonOp::Le, 0.0);
            }
            if first_juice == Some(place) {
                for drained in self.drained.iter().flatten() {
                    filled.add(*drained, 1.0);
                }
            }
            self.problem.add_constraint(filled, ComparisonOp::Ge, 0.0);
        }
    }

    fn keep_to_stock(&mut self, question: &Question<'_>) {
        let stock = &question.stock;
        for (place, lot) in question.lots.iter().enumerate() {
            let used: Vec<(Variable, f64)> = self.fruit.iter().map(|fruit| (fruit[place], 1.0)).collect();
            self.problem.add_constraint(used, ComparisonOp::Le, in_pounds(lot.mass));
        }
        let counted = |of: &dyn Fn(&Choice) -> bool| -> Vec<(Variable, f64)> {
            let used = self.jars.iter().zip(&question.choices);
            used.filter(|(_, choice)| of(choice)).map(|(jars, _)| (*jars, 1.0)).collect()
        };
        let sizes = stock.jars.iter().map(|(size, count)| (counted(&|choice| choice.jar == *size), *count));
        let lids =
            stock.lids.iter().map(|(mouth, count)| (counted(&|choice| choice.mouth == *mouth), *count));
        let acid: Vec<(Variable, f64)> =
            self.jars.iter().zip(&question.choices).map(|(jars, choice)| (*jars, choice.acid_tsp)).collect();
        let limits: Vec<(Vec<(Variable, f64)>, u32)> = sizes.chain(lids).collect();
        for (used, count) in limits.into_iter().filter(|(used, _)| !used.is_empty()) {
            self.problem.add_constraint(used, ComparisonOp::Le, f64::from(count));
        }
        if let Some(tsp) = stock.acid_tsp {
            self.problem.add_constraint(acid, ComparisonOp::Le, tsp);
        }
    }

    /// So many loads take at least each of the times that the jars which need it find room in them; what the canner holds
    /// bounds that from below, by every cut. A load costs its time and a turnaround.
    fn keep_to_loads(&mut self, loads: &Loads<'_>, minutes: f64) {
        let mut used = LinearExpr::empty();
        for kind in &loads.kinds {
            let mut counts: Vec<Variable> = Vec::new();
            for (level, time) in kind.times.iter().enumerate() {
                #[allow(clippy::cast_possible_truncation)] // minutes of a day
                let most = (minutes / f64::from(kind.times[kind.times.len() - 1] + loads.turnaround)) as i32;
                let count = self.count(0.0, (0, most.min(MOST)));
                for cut in &kind.cuts {
                    let mut held = LinearExpr::empty();
                    for (place, share) in kind.shares(cut, *time) {
                        held.add(self.jars[place], share);
                    }
                    held.add(count, -1.0);
                    self.problem.add_constraint(held, ComparisonOp::Le, 0.0);
                }
                if let Some(longer) = counts.last() {
                    self.problem.add_constraint([(*longer, 1.0), (count, -1.0)], ComparisonOp::Le, 0.0);
                }
                let shorter = kind.times.get(level + 1).copied();
                let step = shorter.map_or(time + loads.turnaround, |shorter| time - shorter);
                used.add(count, f64::from(step));
                counts.push(count);
            }
            self.loads.push(counts);
        }
        self.problem.add_constraint(used, ComparisonOp::Le, minutes);
    }

    fn keep_to_hours(&mut self, question: &Question<'_>) {
        let stock = &question.stock;
        let mut stove = LinearExpr::empty();
        let mut hands = LinearExpr::empty();
        for (place, choice) in question.choices.iter().enumerate() {
            for (lot, fruit) in question.lots.iter().zip(&self.fruit[place]) {
                let time = outlook::stove_time(&choice.making, &a_pound(lot));
                stove.add(*fruit, time.get::<minute>());
                hands.add(*fruit, outlook::hands_per_lb(&choice.making, lot));
            }
            hands.add(self.jars[place], outlook::HANDS_PER_JAR);
            if let Some(drained) = self.drained[place] {
                stove.add(drained, -spared_minutes(choice));
            }
        }
        if let Some(minutes) = stock.stove_minutes {
            self.problem.add_constraint(stove, ComparisonOp::Le, minutes);
        }
        if let Some(minutes) = stock.hands_minutes {
            self.problem.add_constraint(hands, ComparisonOp::Le, minutes);
        }
    }

    /// Solves it.
    ///
    /// # Errors
    /// [`NoSplit::PinnedTooMuch`] when nothing fits.
    pub(super) fn solve(&self) -> Result<Solved, NoSplit> {
        let mut options = SolveOptions::default();
        options.mip_gap = GAP;
        options.node_limit = Some(NODES);
        let outcome = self.problem.solve_with(options).map_err(|error| match error {
            Error::Infeasible => NoSplit::PinnedTooMuch,
            other => NoSplit::Failed(other.to_string()),
        })?;
        let solution =
            outcome.solution().ok_or_else(|| NoSplit::Failed("no split was found in time".to_owned()))?;
        let value = |variable: &Variable| solution.var_value(*variable).max(0.0);
        let values = |variables: &Vec<Variable>| variables.iter().map(value).collect::<Vec<f64>>();
        let jars = values(&self.jars);
        Ok(Solved {
            worth: solution.objective(),
            jars: if self.is_whole { jars.into_iter().map(f64::round).collect() } else { jars },
            fruit: self.fruit.iter().map(values).collect(),
            drained: self.drained.iter().map(|drained| drained.as_ref().map_or(0.0, value)).collect(),
            loads: self.loads.iter().map(values).collect(),
            proven: solution.gap().is_none_or(|gap| gap <= GAP) || outcome.is_optimal(),
        })
    }
}

/// A pound of what waits.
fn a_pound(stuff: &Stuff) -> Stuff {
    part_of(stuff, pounds(1.0))
}

/// Burner minutes that a quart drained off spares: its water need not be boiled away.
fn spared_minutes(choice: &Choice) -> f64 {
    let water = quarts(1.0 - BODY_DRAINED * share_left(&choice.making, Kind::Paste));
    (water / usual_rate()).get::<minute>()
}
