//! The constraint solver Pumpkin behind core types: it shortens the first plan and proves how short it can be.
//!
//! Tuned as measured for days like these: autonomous search over the smallest start, early restarts, edge finding where
//! there is one of a kind. It runs in a thread of its own, so that a panic in it costs a plan and not the kitchen.

use std::ops::ControlFlow;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::thread::JoinHandle;

use pumpkin_conflict_resolvers::resolvers::ResolutionResolver;
use pumpkin_constraints::{cumulative, disjunctive_strict, less_than_or_equals};
use pumpkin_core::Solver;
use pumpkin_core::branching::branchers::autonomous_search::AutonomousSearch;
use pumpkin_core::branching::branchers::independent_variable_value_brancher::IndependentVariableValueBrancher;
use pumpkin_core::branching::value_selection::InDomainMin;
use pumpkin_core::branching::variable_selection::Smallest;
use pumpkin_core::optimisation::OptimisationDirection;
use pumpkin_core::optimisation::linear_sat_unsat::LinearSatUnsat;
use pumpkin_core::options::SolverOptions;
use pumpkin_core::results::{OptimisationResult, ProblemSolution, SolutionReference};
use pumpkin_core::termination::TerminationCondition;
use pumpkin_core::variables::{DomainId, TransformableVariable};
use pumpkin_propagators::disjunctive::ArgDisjunctiveTask;

use super::bound::{Bound, stretches};
use super::budget::{Budget, Spending};
use super::order::Orders;
use super::task::end;
use super::{Day, check};

/// Conflicts before the first restart; the solver's own default is far too late for a day.
const FIRST_RESTART: u64 = 200;

/// What was found.
#[derive(Debug, Clone)]
pub(super) struct Found {
    /// The best starts.
    pub starts: Option<Vec<u32>>,
    /// Whether they are proven best, or proven not to exist.
    pub complete: bool,
}

/// What is made small.
#[derive(Debug, Clone)]
enum Aim {
    /// The end of the day.
    End,
    /// The minutes from the first start to the last end of each of these sets, to less than so many in all.
    Spread { together: Vec<Vec<usize>>, under: u32 },
}

/// Searches for a shorter day than the first one within a budget: through all plans, which is what proves the best, and
/// through other orders, which is what shortens a long day. On a clock the two go on at the same time; steps are
/// taken one after the other, so that the answer is the same everywhere.
pub(super) fn shorter(day: &Day, bound: &Bound, room: u32, first: Option<Vec<u32>>, budget: Budget) -> Found {
    if let Some(starts) = first.as_ref().filter(|starts| end(day, starts) == bound.minutes) {
        return Found { starts: Some(starts.clone()), complete: true };
    }
    // Strictly shorter than the first plan, so that "nothing" proves it best.
    let most = first.as_ref().map_or(room, |starts| end(day, starts) - 1);
    let search = Arc::new(Search {
        day: day.clone(),
        bound: bound.clone(),
        best: Mutex::new(first),
        is_done: Arc::default(),
        budget,
        room,
    });
    let through = in_a_thread(&search, move |search| search.through(most));
    let beside = matches!(budget, Budget::Time(_)).then(|| in_a_thread(&search, Search::orders));
    let complete = through.join().unwrap_or(false);
    let orders = beside.or_else(|| (!complete).then(|| in_a_thread(&search, Search::orders)));
    // What it found before a panic is kept.
    let _ = orders.map(JoinHandle::join);
    let starts = search.best();
    let is_least = starts.as_ref().is_some_and(|starts| end(day, starts) == bound.minutes);
    Found { starts, complete: complete || is_least }
}

fn in_a_thread<T: Send + 'static>(
    search: &Arc<Search>,
    work: impl FnOnce(&Search) -> T + Send + 'static,
) -> JoinHandle<T> {
    let search = Arc::clone(search);
    std::thread::spawn(move || work(&search))
}

/// A search for a shorter day, and the best plan so far.
struct Search {
    day: Day,
    bound: Bound,
    best: Mutex<Option<Vec<u32>>>,
    /// Nothing shorter is left to be found.
    is_done: Arc<AtomicBool>,
    budget: Budget,
    /// Longest day that is searched.
    room: u32,
}

impl Search {
    fn best(&self) -> Option<Vec<u32>> {
        self.best.lock().unwrap_or_else(PoisonError::into_inner).clone()
    }

    fn keep(&self, starts: Vec<u32>) {
        let mut best = self.best.lock().unwrap_or_else(PoisonError::into_inner);
        let least = end(&self.day, &starts);
        if best.as_ref().is_none_or(|best| least < end(&self.day, best)) {
            *best = Some(starts);
        }
        if least == self.bound.minutes {
            self.is_done.store(true, Ordering::Relaxed);
        }
    }

    fn spending(&self) -> Spending {
        self.budget.begin().until(Arc::clone(&self.is_done))
    }

    /// Through all plans; whether it came to the end of them.
    fn through(&self, most: u32) -> bool {
        let Self { day, bound, .. } = self;
        let keep = |starts| self.keep(starts);
        let complete = solve(day, bound, most, &Aim::End, &mut self.spending(), &keep);
        if complete {
            self.is_done.store(true, Ordering::Relaxed);
        }
        complete
    }

    /// Through other orders.
    fn orders(&self) {
        let Self { day, bound, .. } = self;
        let Some(orders) = Orders::new(day, bound, self.room) else { return };
        orders.try_out(&mut self.spending(), self.best().as_deref(), |starts| {
            if check::faults(day, &starts, self.room).is_empty() {
                self.keep(starts);
            }
        });
    }
}

/// Searches for a plan of a given end and less spread.
pub(super) fn closer(
    day: &Day,
    bound: &Bound,
    together: &[Vec<usize>],
    (last, under): (u32, u32),
    budget: Budget,
) -> Option<Vec<u32>> {
    let best: Arc<Mutex<Option<Vec<u32>>>> = Arc::default();
    let (day, bound, kept) = (day.clone(), bound.clone(), best.clone());
    let aim = Aim::Spread { together: together.to_vec(), under };
    let thread = std::thread::spawn(move || {
        // Each is closer than the one before.
        let keep = |starts| *kept.lock().unwrap_or_else(PoisonError::into_inner) = Some(starts);
        solve(&day, &bound, last, &aim, &mut budget.begin(), &keep)
    });
    let _ = thread.join();
    best.lock().unwrap_or_else(PoisonError::into_inner).take()
}

fn small(value: i64) -> i32 {
    i32::try_from(value).unwrap_or(i32::MAX / 4)
}

/// Runs the solver; `true` when it proved its answer. Every better plan is kept as it is found.
fn solve(
    day: &Day,
    bound: &Bound,
    most: u32,
    aim: &Aim,
    spending: &mut impl TerminationCondition,
    better: &dyn Fn(Vec<u32>),
) -> bool {
    let Bound { minutes: least, heads, tails, .. } = bound;
    if heads.iter().zip(tails).any(|(head, tail)| head + tail > most) || *least > most {
        return true;
    }
    let mut options = SolverOptions::default();
    options.restart_options.min_num_conflicts_before_first_restart = FIRST_RESTART;
    let mut solver = Solver::with_options(options);
    let latest = |task: usize| {
        let given = day.tasks[task].between.map_or(u32::MAX, |(_, latest)| latest);
        (most - tails[task]).min(given)
    };
    let starts: Vec<DomainId> = (0..day.tasks.len())
        .map(|task| solver.new_bounded_integer(small(heads[task].into()), small(latest(task).into())))
        .collect();
    let makespan = solver.new_bounded_integer(small((*least).into()), small(most.into()));
    post(&mut solver, day, &starts, makespan);
    let read = |value: i32| u32::try_from(value).unwrap_or(0);
    let keep = |solution: SolutionReference<'_>| {
        better(starts.iter().map(|start| read(solution.get_integer_value(*start))).collect());
        ControlFlow::Continue(())
    };
    let mut resolver = ResolutionResolver::default();
    let minimise = OptimisationDirection::Minimise;
    let result: OptimisationResult<()> = match aim {
        Aim::End => {
            let mut all = starts.clone();
            all.push(makespan);
            let smallest = IndependentVariableValueBrancher::new(Smallest::new(&all), InDomainMin);
            let goal = LinearSatUnsat::new(
                minimise,
                makespan,
                |_: &Solver, found: SolutionReference<'_>, _: &_, _: &_| keep(found),
            );
            solver.optimise(&mut AutonomousSearch::new(smallest), spending, &mut resolver, goal)
        }
        Aim::Spread { together, under } => {
            let Some(under) = under.checked_sub(1) else { return true };
            let spread = solver.new_bounded_integer(0, small(under.into()));
            post_spread(&mut solver, day, &starts, together, (most, spread));
            // The solver's own brancher was measured to be the better one here.
            let mut brancher = solver.default_brancher();
            let goal = LinearSatUnsat::new(
                minimise,
                spread,
                |_: &Solver, found: SolutionReference<'_>, _: &_, _: &_| keep(found),
            );
            solver.optimise(&mut brancher, spending, &mut resolver, goal)
        }
    };
    // Every solution was kept when it was found, the best one last.
    matches!(result, OptimisationResult::Optimal(_) | OptimisationResult::Unsatisfiable)
}

/// Posts what the spread of the sets comes to.
fn post_spread(
    solver: &mut Solver,
    day: &Day,
    starts: &[DomainId],
    together: &[Vec<usize>],
    (most, spread): (u32, DomainId),
) {
    let tag = solver.new_constraint_tag();
    let mut sum = vec![spread.scaled(-1)];
    for set in together {
        let first = solver.new_bounded_integer(0, small(most.into()));
        let last = solver.new_bounded_integer(0, small(most.into()));
        for task in set {
            let minutes = small(day.tasks[*task].minutes.into());
            let from = less_than_or_equals(vec![first.scaled(1), starts[*task].scaled(-1)], 0, tag);
            solver.add_constraint(from).post();
            let to = less_than_or_equals(vec![starts[*task].scaled(1), last.scaled(-1)], -minutes, tag);
            solver.add_constraint(to).post();
        }
        sum.extend([last.scaled(1), first.scaled(-1)]);
    }
    solver.add_constraint(less_than_or_equals(sum, 0, tag)).post();
}

/// Posts every rule.
fn post(solver: &mut Solver, day: &Day, starts: &[DomainId], makespan: DomainId) {
    let tag = solver.new_constraint_tag();
    for (later, task) in day.tasks.iter().enumerate() {
        let after_end = less_than_or_equals(
            vec![starts[later].scaled(1), makespan.scaled(-1)],
            -small(task.minutes.into()),
            tag,
        );
        solver.add_constraint(after_end).post();
        for after in &task.after {
            let earlier = starts[after.task];
            let length = i64::from(day.tasks[after.task].minutes);
            let least = less_than_or_equals(
                vec![earlier.scaled(1), starts[later].scaled(-1)],
                small(-(length + after.least)),
                tag,
            );
            solver.add_constraint(least).post();
            if let Some(most) = after.most {
                let late = less_than_or_equals(
                    vec![starts[later].scaled(1), earlier.scaled(-1)],
                    small(length + most),
                    tag,
                );
                solver.add_constraint(late).post();
            }
        }
    }
    for (place, have) in day.has.each().into_iter().enumerate() {
        let users = stretches(day, place);
        if users.is_empty() {
            continue;
        }
        let need = cumulative(
            users.iter().map(|user| starts[user.task]).collect::<Vec<_>>(),
            users.iter().map(|user| small(user.minutes.into())).collect::<Vec<_>>(),
            users.iter().map(|user| small(user.need.into())).collect::<Vec<_>>(),
            small(have.into()),
            tag,
        );
        solver.add_constraint(need).post();
        if have == 1 {
            let alone = users.iter().map(|user| ArgDisjunctiveTask {
                start_time: starts[user.task],
                processing_time: small(user.minutes.into()),
            });
            solver.add_constraint(disjunctive_strict(alone.collect::<Vec<_>>(), tag)).post();
        }
    }
}
