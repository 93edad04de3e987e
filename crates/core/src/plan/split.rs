//! The best split: how much of each lot goes to which product in which jars, within jars, lids, acid and hours.
//!
//! A mixed-integer model, solved exactly. Jars and canner loads are whole; fruit, drained juice and hours are not. A jar
//! counts its volume times the preference of its goal until the goal is met, and a little beyond it, so that fruit is
//! used rather than left.

use microlp::{ComparisonOp, Error, LinearExpr, OptimizationDirection, Problem, SolveOptions, Variable};
use uom::si::time::minute;

use crate::crates::fruit::Kind;
use crate::jars::size::{JarSize, Mouth};
use crate::ledger::food::Stuff;
use crate::measures::moment::Minutes;
use crate::measures::units::{Mass, Volume, in_pounds, in_quarts, pounds, quarts};
use crate::plan::making::{Making, share_left};
use crate::plan::outlook;
use crate::plan::stuff::{boiled_away, can_become, jar_quarts, part_of, quarts_per_pound};
use crate::plan::yields::learn::Household;
use crate::tables::process::Product;

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
const GAP: f64 = 1e-4;
/// Nodes the search may visit; keeps the answer under a second, and the same on every machine.
const NODES: u64 = 20_000;

/// One product in one jar that fruit may become, with its tested time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Choice {
    /// What.
    pub making: Making,
    /// In which jar.
    pub jar: JarSize,
    /// Its mouth, which decides the lid.
    pub mouth: Mouth,
    /// Tested minutes.
    pub minutes: Minutes,
    /// Jars to a canner load.
    pub fits: u32,
    /// Acid for a jar, in teaspoons.
    pub acid_tsp: f64,
    /// Jars the shelf asks for.
    pub goal: u32,
    /// How much they are wanted, 1 to 3.
    pub preference: f64,
    /// So many and no other, when the person has decided.
    pub pinned: Option<u32>,
}

/// Something there is only so much of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Resource {
    /// Fruit of a lot, by its place.
    Fruit(usize),
    /// Empty jars of a size.
    Jars(JarSize),
    /// New lids of a mouth.
    Lids(Mouth),
    /// Acid.
    Acid,
    /// Canner.
    Canner,
    /// Burners.
    Stove,
    /// Hands.
    Hands,
}

/// What there is. `None` is as much as it takes.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Stock {
    /// Empty jars by size.
    pub jars: Vec<(JarSize, u32)>,
    /// New lids by mouth.
    pub lids: Vec<(Mouth, u32)>,
    /// Acid in teaspoons.
    pub acid_tsp: Option<f64>,
    /// Minutes of the canner.
    pub canner_minutes: Option<f64>,
    /// Minutes of burners, all together.
    pub stove_minutes: Option<f64>,
    /// Minutes of hands, all together.
    pub hands_minutes: Option<f64>,
}

/// The whole question.
#[derive(Debug, Clone, PartialEq)]
pub struct Question<'a> {
    /// Fruit.
    pub lots: Vec<Stuff>,
    /// What it may become.
    pub choices: Vec<Choice>,
    /// What there is.
    pub stock: Stock,
    /// Minutes between two loads.
    pub turnaround: Minutes,
    /// Yields of the household.
    pub household: &'a Household,
}

/// One choice of the answer.
#[derive(Debug, Clone, PartialEq)]
pub struct Share {
    /// Jars of it.
    pub jars: u32,
    /// Fruit from each lot.
    pub fruit: Vec<Mass>,
    /// Thin juice drained off it and canned as juice.
    pub drained: Volume,
    /// Canner loads.
    pub loads: u32,
}

/// What limits the day, and what a little more of it would gain.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Limit {
    /// What there is too little of.
    pub resource: Resource,
    /// Jars more, when there is one [step](Resource::step) more of it.
    pub jars_more: i64,
    /// Worth of the answer more.
    pub worth_more: f64,
}

/// The best split.
#[derive(Debug, Clone, PartialEq)]
pub struct Split {
    /// One share for each choice, in their order.
    pub shares: Vec<Share>,
    /// Worth of all jars.
    pub worth: f64,
    /// Whether it is proven that no other split is worth more.
    pub proven: bool,
}

/// No split fits.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NoSplit {
    /// What is pinned needs more than there is.
    #[error("what is pinned does not fit into the fruit, the stock and the hours; let one of them go")]
    PinnedTooMuch,
    /// The solver failed.
    #[error("the split could not be worked out: {0}")]
    Failed(String),
}

impl Resource {
    /// How much more is tried to see what it gains: 10 lb, one jar, one lid, a quart's acid, an hour.
    fn add_step(self, question: &mut Question<'_>) {
        const HOUR: f64 = 60.0;
        let stock = &mut question.stock;
        match self {
            Self::Fruit(lot) => {
                let more = question.lots[lot].mass + pounds(10.0);
                question.lots[lot] = part_of(&question.lots[lot], more);
            }
            Self::Jars(jar) => {
                stock.jars.iter_mut().filter(|(size, _)| *size == jar).for_each(|(_, count)| *count += 1);
            }
            Self::Lids(mouth) => {
                stock.lids.iter_mut().filter(|(of, _)| *of == mouth).for_each(|(_, count)| *count += 1);
            }
            Self::Acid => stock.acid_tsp = stock.acid_tsp.map(|tsp| tsp + 6.0),
            Self::Canner => stock.canner_minutes = stock.canner_minutes.map(|minutes| minutes + HOUR),
            Self::Stove => stock.stove_minutes = stock.stove_minutes.map(|minutes| minutes + HOUR),
            Self::Hands => stock.hands_minutes = stock.hands_minutes.map(|minutes| minutes + HOUR),
        }
    }

    /// The step that is tried, in words.
    #[must_use]
    pub const fn step(self) -> &'static str {
        match self {
            Self::Fruit(_) => "10 lb more",
            Self::Jars(_) => "one jar more",
            Self::Lids(_) => "one lid more",
            Self::Acid => "acid for one quart more",
            Self::Canner => "one hour more of the canner",
            Self::Stove => "one burner hour more",
            Self::Hands => "one hour more of hands",
        }
    }
}

struct Model {
    problem: Problem,
    /// Pounds of each lot in each choice.
    fruit: Vec<Vec<Variable>>,
    jars: Vec<Variable>,
    loads: Vec<Variable>,
    /// Quarts drained off each choice.
    drained: Vec<Option<Variable>>,
}

/// Most jars or loads the model thinks of; far beyond a household's day.
const MOST: i32 = 2000;

impl Model {
    fn new(question: &Question<'_>) -> Self {
        let mut problem = Problem::new(OptimizationDirection::Maximize);
        let juice_wanted = question.choices.iter().any(|choice| choice.making.product == Product::Juice);
        let mut model = Self {
            fruit: Vec::new(),
            jars: Vec::new(),
            loads: Vec::new(),
            drained: Vec::new(),
            problem: Problem::new(OptimizationDirection::Maximize),
        };
        for choice in &question.choices {
            let worth = jar_quarts(choice.jar);
            let bounds = choice.pinned.map_or((0, MOST), |count| {
                let count = i32::try_from(count).unwrap_or(MOST);
                (count, count)
            });
            let jars = problem.add_integer_var(worth * BEYOND_GOAL, bounds);
            let wanted = problem.add_var(worth * choice.preference, (0.0, f64::from(choice.goal)));
            problem.add_constraint([(wanted, 1.0), (jars, -1.0)], ComparisonOp::Le, 0.0);
            let loads = problem.add_integer_var(0.0, (0, MOST));
            problem.add_constraint(
                [(jars, 1.0), (loads, -f64::from(choice.fits.max(1)))],
                ComparisonOp::Le,
                0.0,
            );
            let burner =
                |lot| -BURNER_MINUTE * outlook::stove_time(&choice.making, &a_pound(lot)).get::<minute>();
            // What cannot become it takes no part in it.
            let most = |lot: &Stuff| {
                if can_become(lot.food, choice.making.product) { f64::INFINITY } else { 0.0 }
            };
            let fruit = question.lots.iter().map(|lot| problem.add_var(burner(lot), (0.0, most(lot))));
            model.fruit.push(fruit.collect());
            model.jars.push(jars);
            model.loads.push(loads);
            // Thin juice is drained off only where there are juice jars to take it.
            let drains = choice.making.product == Product::Sauce && juice_wanted;
            let spared = BURNER_MINUTE * spared_minutes(choice);
            model.drained.push(drains.then(|| problem.add_var(spared, (0.0, f64::INFINITY))));
        }
        model.problem = problem;
        model.fill_jars(question);
        model.keep_to_stock(question);
        model.keep_to_hours(question);
        model
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

    fn keep_to_hours(&mut self, question: &Question<'_>) {
        let stock = &question.stock;
        if let Some(minutes) = stock.canner_minutes {
            let used: Vec<(Variable, f64)> = self
                .loads
                .iter()
                .zip(&question.choices)
                .map(|(loads, choice)| (*loads, f64::from(choice.minutes.0 + question.turnaround.0)))
                .collect();
            self.problem.add_constraint(used, ComparisonOp::Le, minutes);
        }
        let mut stove = LinearExpr::empty();
        let mut hands = LinearExpr::empty();
        for (place, choice) in question.choices.iter().enumerate() {
            for (lot, fruit) in question.lots.iter().zip(&self.fruit[place]) {
                let time = outlook::stove_time(&choice.making, &a_pound(lot));
                stove.add(*fruit, time.get::<minute>());
                hands.add(*fruit, outlook::hands_per_lb(&choice.making, lot.food));
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
}

/// A pound of what waits.
fn a_pound(stuff: &Stuff) -> Stuff {
    part_of(stuff, pounds(1.0))
}

/// Burner minutes that a quart drained off spares: its water need not be boiled away.
fn spared_minutes(choice: &Choice) -> f64 {
    let water = quarts(1.0 - BODY_DRAINED * share_left(&choice.making, Kind::Paste));
    (water / outlook::usual_rate()).get::<minute>()
}

/// Works the best split out.
///
/// # Errors
/// [`NoSplit::PinnedTooMuch`] when what is pinned does not fit.
pub fn split(question: &Question<'_>) -> Result<Split, NoSplit> {
    let model = Model::new(question);
    let mut options = SolveOptions::default();
    options.mip_gap = GAP;
    options.node_limit = Some(NODES);
    let outcome = model.problem.solve_with(options).map_err(|error| match error {
        Error::Infeasible => NoSplit::PinnedTooMuch,
        other => NoSplit::Failed(other.to_string()),
    })?;
    let solution =
        outcome.solution().ok_or_else(|| NoSplit::Failed("no split was found in time".to_owned()))?;
    let value = |variable: Variable| solution.var_value(variable).max(0.0);
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // bounded by MOST
    let whole = |variable: Variable| value(variable).round() as u32;
    let shares = (0..question.choices.len())
        .map(|place| Share {
            jars: whole(model.jars[place]),
            loads: whole(model.jars[place]).div_ceil(question.choices[place].fits.max(1)),
            fruit: model.fruit[place].iter().map(|variable| pounds(value(*variable))).collect(),
            drained: quarts(model.drained[place].map_or(0.0, value)),
        })
        .collect();
    let proven = solution.gap().is_none_or(|gap| gap <= GAP) || outcome.is_optimal();
    Ok(Split { shares, worth: solution.objective(), proven })
}

/// What limits a split: every resource of which one step more makes it worth more, the most gainful first.
///
/// # Errors
/// As [`split`].
pub fn limits(question: &Question<'_>, found: &Split) -> Result<Vec<Limit>, NoSplit> {
    let stock = &question.stock;
    let mut resources: Vec<Resource> = (0..question.lots.len()).map(Resource::Fruit).collect();
    resources.extend(stock.jars.iter().map(|(size, _)| Resource::Jars(*size)));
    resources.extend(stock.lids.iter().map(|(mouth, _)| Resource::Lids(*mouth)));
    resources.extend(stock.acid_tsp.map(|_| Resource::Acid));
    resources.extend(stock.canner_minutes.map(|_| Resource::Canner));
    resources.extend(stock.stove_minutes.map(|_| Resource::Stove));
    resources.extend(stock.hands_minutes.map(|_| Resource::Hands));
    let count = |split: &Split| split.shares.iter().map(|share| i64::from(share.jars)).sum::<i64>();
    let mut limits = Vec::new();
    for resource in resources {
        let mut more = question.clone();
        resource.add_step(&mut more);
        let better = split(&more)?;
        let worth_more = better.worth - found.worth;
        if worth_more > found.worth.abs().max(1.0) * 2.0 * GAP {
            limits.push(Limit { resource, jars_more: count(&better) - count(found), worth_more });
        }
    }
    limits.sort_by(|a, b| b.worth_more.total_cmp(&a.worth_more));
    Ok(limits)
}
