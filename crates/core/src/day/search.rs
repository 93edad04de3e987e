//! The constraint solver Pumpkin behind core types: it shortens the first plan and proves how short it can be.
//!
//! Tuned as measured for days like these: autonomous search over the smallest start, early restarts, edge finding where
//! there is one of a kind. It runs in a thread of its own, so that a panic in it costs a plan and not the kitchen.

use std::ops::ControlFlow;
use std::sync::{Arc, Mutex, PoisonError};

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
use pumpkin_core::variables::{DomainId, TransformableVariable};
use pumpkin_propagators::disjunctive::ArgDisjunctiveTask;

use super::bound::Bound;
use super::budget::Budget;
use super::{Day, end};

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

/// Searches for a shorter day than the first one within a budget.
pub(super) fn shorter(day: &Day, bound: &Bound, room: u32, first: Option<Vec<u32>>, budget: Budget) -> Found {
    if let Some(starts) = first.as_ref().filter(|starts| end(day, starts) == bound.minutes) {
        return Found { starts: Some(starts.clone()), complete: true };
    }
    // Strictly shorter than the first plan, so that "nothing" proves it best.
    let most = first.as_ref().map_or(room, |starts| end(day, starts) - 1);
    let Found { starts, complete } = in_a_thread(day, bound, most, Aim::End, budget);
    Found { starts: starts.or(first), complete }
}

/// Searches for a plan of a given end and less spread.
pub(super) fn closer(
    day: &Day,
    bound: &Bound,
    together: &[Vec<usize>],
    (last, under): (u32, u32),
    budget: Budget,
) -> Option<Vec<u32>> {
    in_a_thread(day, bound, last, Aim::Spread { together: together.to_vec(), under }, budget).starts
}

fn in_a_thread(day: &Day, bound: &Bound, most: u32, aim: Aim, budget: Budget) -> Found {
    let best: Arc<Mutex<Option<Vec<u32>>>> = Arc::default();
    let (owned, bound, kept) = (day.clone(), bound.clone(), best.clone());
    let thread = std::thread::spawn(move || solve(&owned, &bound, most, &aim, budget, &kept));
    let complete = thread.join().unwrap_or(false);
    let starts = best.lock().unwrap_or_else(PoisonError::into_inner).take();
    Found { starts, complete }
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
    budget: Budget,
    best: &Mutex<Option<Vec<u32>>>,
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
        let found = starts.iter().map(|start| read(solution.get_integer_value(*start))).collect();
        *best.lock().unwrap_or_else(PoisonError::into_inner) = Some(found);
        ControlFlow::Continue(())
    };
    let mut spending = budget.begin();
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
            solver.optimise(&mut AutonomousSearch::new(smallest), &mut spending, &mut resolver, goal)
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
            solver.optimise(&mut brancher, &mut spending, &mut resolver, goal)
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
        let users: Vec<(usize, u32, u32)> = day
            .tasks
            .iter()
            .enumerate()
            .map(|(number, task)| (number, task.uses.each()[place], task.minutes))
            .filter(|(_, need, minutes)| *need > 0 && *minutes > 0)
            .collect();
        if users.is_empty() {
            continue;
        }
        let need = cumulative(
            users.iter().map(|user| starts[user.0]).collect::<Vec<_>>(),
            users.iter().map(|user| small(user.2.into())).collect::<Vec<_>>(),
            users.iter().map(|user| small(user.1.into())).collect::<Vec<_>>(),
            small(have.into()),
            tag,
        );
        solver.add_constraint(need).post();
        if have == 1 {
            let alone = users.iter().map(|user| ArgDisjunctiveTask {
                start_time: starts[user.0],
                processing_time: small(user.2.into()),
            });
            solver.add_constraint(disjunctive_strict(alone.collect::<Vec<_>>(), tag)).post();
        }
    }
}
