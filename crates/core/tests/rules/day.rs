//! The day against optima proven elsewhere, against exhaustive search, and against a checker of its own.

use bodega_core::day::sink::chopping;
use bodega_core::day::{
    After, Budget, Day, Limits, Needs, Status, Task, Wish, earlier_starts, later_starts, lay_out, shortest,
    spread, with_reserve,
};
use proptest::prelude::*;

const LIMIT: Budget = Budget::Steps(2_000_000);
const SHORT: Budget = Budget::Steps(40_000);
const LIMITS: Limits = Limits { length: LIMIT, waiting: LIMIT };

/// Looks at every minute by itself, so that it shares nothing with the program's own checker.
fn breaks(day: &Day, starts: &[u32]) -> Option<String> {
    let last = day.tasks.iter().zip(starts).map(|(task, start)| start + task.minutes).max().unwrap_or(0);
    for minute in 0..last {
        let running = |(task, start): (&Task, &u32)| {
            let on = (*start..start + task.minutes).contains(&minute);
            if on { task.uses.each() } else { [0; 4] }
        };
        let used = day.tasks.iter().zip(starts).map(running).fold([0; 4], |mut sum, needs| {
            sum.iter_mut().zip(needs).for_each(|(sum, need)| *sum += need);
            sum
        });
        if used.iter().zip(day.has.each()).any(|(used, has)| *used > has) {
            return Some(format!("too much in use at minute {minute}: {used:?}"));
        }
    }
    for (place, task) in day.tasks.iter().enumerate() {
        for after in &task.after {
            let lag =
                i64::from(starts[place]) - i64::from(starts[after.task] + day.tasks[after.task].minutes);
            if lag < after.least || after.most.is_some_and(|most| lag > most) {
                return Some(format!("task {place} lies {lag} min after task {}", after.task));
            }
        }
        if task.between.is_some_and(|(from, to)| !(from..=to).contains(&starts[place])) {
            return Some(format!("task {place} was moved"));
        }
    }
    None
}

#[test]
fn optima_proven_by_another_solver_are_found_and_proven() {
    for crate::instances::Instance { name, optimum, day, .. } in crate::instances::all() {
        let layout = shortest(&day, LIMIT);
        assert_eq!(layout.makespan, optimum, "{name}: {layout:?}");
        match optimum {
            None => assert_eq!(layout.status, Status::Infeasible, "{name}: {layout:?}"),
            Some(_) => {
                assert_eq!(layout.status, Status::Optimal, "{name}");
                assert_eq!(breaks(&day, &layout.starts), None, "{name}");
            }
        }
    }
}

#[test]
fn long_days_with_two_canners_are_no_longer_than_another_solver_found_and_near_their_bound() {
    for crate::instances::LongDay { name, found, bound, day } in
        crate::instances::long_days().into_iter().take(2)
    {
        let layout = shortest(&day, Budget::Steps(6_000));
        let makespan = layout.makespan.unwrap();
        assert_eq!(breaks(&day, &layout.starts), None, "{name}");
        assert!(
            makespan <= found && layout.bound >= bound,
            "{name}: {makespan}, {} for {found}, {bound}",
            layout.bound
        );
        assert!((makespan - layout.bound) * 50 <= makespan, "{name}: {makespan}, {}", layout.bound);
    }
}

#[test]
fn the_least_waiting_proven_by_another_solver_is_found() {
    let mut compared = 0;
    for crate::instances::Instance { name, optimum, least_spread, together, day } in crate::instances::all() {
        let Some(least) = least_spread else { continue };
        let wish = Wish { together, before: Vec::new() };
        let layout = lay_out(&day, &wish, LIMITS);
        assert_eq!(layout.makespan, optimum, "{name}");
        assert_eq!(breaks(&day, &layout.starts), None, "{name}");
        assert_eq!(spread(&day, &wish.together, &layout.starts), least, "{name}");
        compared += 1;
    }
    assert_eq!(compared, 16);
}

/// Serial schedules of every order: with least lags only, one of them is a shortest day.
fn shortest_by_trying_all(day: &Day) -> u32 {
    fn place(day: &Day, left: &mut Vec<usize>, starts: &mut Vec<Option<u32>>, best: &mut u32) {
        if left.is_empty() {
            let ends = day.tasks.iter().zip(starts.iter()).map(|(task, start)| start.unwrap() + task.minutes);
            *best = (*best).min(ends.max().unwrap_or(0));
            return;
        }
        for turn in 0..left.len() {
            let task = left[turn];
            let earlier = &day.tasks[task].after;
            if earlier.iter().any(|after| starts[after.task].is_none()) {
                continue;
            }
            let ready = earlier
                .iter()
                .map(|after| {
                    let end = i64::from(starts[after.task].unwrap() + day.tasks[after.task].minutes);
                    u32::try_from((end + after.least).max(0)).unwrap()
                })
                .max()
                .unwrap_or(0);
            let fits = |start: u32| {
                (start..start + day.tasks[task].minutes).all(|minute| {
                    (0..4).all(|place| {
                        let used: u32 = day
                            .tasks
                            .iter()
                            .zip(starts.iter())
                            .filter(|(other, at)| {
                                at.is_some_and(|at| (at..at + other.minutes).contains(&minute))
                            })
                            .map(|(other, _)| other.uses.each()[place])
                            .sum();
                        used + day.tasks[task].uses.each()[place] <= day.has.each()[place]
                    })
                })
            };
            let start = (ready..).find(|start| fits(*start)).unwrap();
            starts[task] = Some(start);
            left.remove(turn);
            place(day, left, starts, best);
            left.insert(turn, task);
            starts[task] = None;
        }
    }
    let mut best = u32::MAX;
    place(day, &mut (0..day.tasks.len()).collect(), &mut vec![None; day.tasks.len()], &mut best);
    best
}

fn days(tasks: usize, with_most: bool) -> impl Strategy<Value = Day> {
    let uses = (0..3_u32, 0..2_u32, 0..2_u32, 0..2_u32)
        .prop_map(|(people, burners, kettles, canners)| Needs { people, burners, kettles, canners });
    let lag = (any::<prop::sample::Index>(), 0..8_i64, prop::option::of(8..40_i64));
    let task = (1..20_u32, uses, prop::collection::vec(lag, 0..2));
    (prop::collection::vec(task, 1..tasks), 2..4_u32, 1..3_u32).prop_map(move |(given, people, burners)| {
        Day {
            has: Needs { people, burners, kettles: 1, canners: 1 },
            horizon: 1440,
            tasks: given
                .into_iter()
                .enumerate()
                .map(|(place, (minutes, uses, lags))| Task {
                    minutes,
                    uses,
                    after: lags
                        .into_iter()
                        .filter(|_| place > 0)
                        .map(|(index, least, most)| After {
                            task: index.index(place),
                            least,
                            most: most.filter(|_| with_most),
                        })
                        .collect(),
                    between: None,
                })
                .collect(),
        }
    })
}

/// Two canners that heat before the first load of each product; a load may not begin before its fruit is ready.
fn heated_days() -> impl Strategy<Value = Day> {
    let product = |loads| (1..5_u32, 0..9_u32, prop::collection::vec(4..9_u32, loads));
    let products =
        prop_oneof![prop::collection::vec(product(1..3), 2), prop::collection::vec(product(1..2), 3),];
    (products, 0..4_i64).prop_map(|(products, lag)| {
        let canner = |minutes, after, between| Task {
            minutes,
            uses: Needs { canners: 1, ..Needs::default() },
            after,
            between,
        };
        let mut tasks = Vec::new();
        for (heat, ready, loads) in products {
            let heated = tasks.len();
            tasks.push(canner(heat, vec![], None));
            for (place, minutes) in loads.into_iter().enumerate() {
                let after = (place == 0).then_some(After { task: heated, least: 0, most: Some(lag) });
                tasks.push(canner(minutes, after.into_iter().collect(), Some((ready, 100))));
            }
        }
        Day { has: Needs { canners: 2, ..Needs::default() }, horizon: 1440, tasks }
    })
}

/// The least end by trying every start of every task, one minute more of the day at a time.
fn shortest_by_trying_every_minute(day: &Day) -> u32 {
    fn fits(day: &Day, starts: &mut Vec<u32>, last: u32) -> bool {
        let Some(task) = day.tasks.get(starts.len()) else { return true };
        let ready = task.between.map_or(0, |(ready, _)| ready);
        let after = |starts: &[u32], start: u32| {
            task.after.iter().all(|after| {
                let lag = i64::from(start) - i64::from(starts[after.task] + day.tasks[after.task].minutes);
                lag >= after.least && after.most.is_none_or(|most| lag <= most)
            })
        };
        (ready..=last.saturating_sub(task.minutes)).any(|start| {
            let busy = |minute: u32| {
                let beside = starts.iter().zip(&day.tasks);
                beside.filter(|(from, task)| (**from..**from + task.minutes).contains(&minute)).count()
            };
            let is_free = (start..start + task.minutes).all(|minute| busy(minute) < 2);
            if start + task.minutes > last || !is_free || !after(starts, start) {
                return false;
            }
            starts.push(start);
            let found = fits(day, starts, last);
            starts.pop();
            found
        })
    }
    (0..).find(|last| fits(day, &mut Vec::new(), *last)).unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    #[test]
    fn days_with_heated_canners_are_as_short_as_trying_everything(day in heated_days()) {
        let layout = shortest(&day, LIMIT);
        prop_assert_eq!(layout.makespan, Some(shortest_by_trying_every_minute(&day)), "{:?}", day);
        prop_assert_eq!(breaks(&day, &layout.starts), None);
    }

    #[test]
    fn small_days_are_as_short_as_trying_everything(day in days(6, false)) {
        let layout = shortest(&day, LIMIT);
        prop_assert_eq!(layout.makespan, Some(shortest_by_trying_all(&day)));
        prop_assert_eq!(layout.status, Status::Optimal);
    }

    #[test]
    fn no_plan_breaks_its_day_and_none_ends_before_its_bound(day in days(14, true)) {
        let layout = shortest(&day, SHORT);
        if let Some(makespan) = layout.makespan {
            prop_assert_eq!(breaks(&day, &layout.starts), None);
            prop_assert!(layout.bound <= makespan);
            let late = later_starts(&day, &layout.starts);
            prop_assert_eq!(breaks(&day, &late), None);
            prop_assert!(late.iter().zip(&layout.starts).all(|(late, early)| late >= early));
            let early = earlier_starts(&day, &late);
            prop_assert_eq!(breaks(&day, &early), None);
            prop_assert!(early.iter().zip(&late).all(|(early, late)| early <= late));
        }
    }

    #[test]
    fn less_waiting_never_costs_a_later_end_or_breaks_the_day(day in days(12, true)) {
        let together = vec![(0..day.tasks.len()).collect(), (0..day.tasks.len() / 2).collect()];
        let short = shortest(&day, SHORT);
        let wish = Wish { together, before: Vec::new() };
        let near = lay_out(&day, &wish, Limits { length: SHORT, waiting: SHORT });
        if near.status == Status::Optimal {
            prop_assert_eq!(breaks(&day, &near.starts), None);
            prop_assert_eq!(near.makespan, Some(near.bound));
            if short.status == Status::Optimal {
                prop_assert_eq!(near.makespan, short.makespan);
                prop_assert!(
                    spread(&day, &wish.together, &near.starts) <= spread(&day, &wish.together, &short.starts)
                );
            }
        }
    }

    #[test]
    fn small_days_have_as_little_waiting_as_trying_everything(day in days(4, true)) {
        let together = vec![vec![0], (0..day.tasks.len()).skip(1).collect::<Vec<_>>()];
        let together: Vec<Vec<usize>> = together.into_iter().filter(|set| !set.is_empty()).collect();
        let layout = lay_out(&day, &Wish { together: together.clone(), before: Vec::new() }, LIMITS);
        if let (Status::Optimal, Some(last)) = (layout.status, layout.makespan) {
            prop_assert_eq!(Some(spread(&day, &together, &layout.starts)), least_spread(&day, &together, last));
        }
    }
}

/// The least spread of any plan that ends by a minute, by trying every start of every task.
fn least_spread(day: &Day, together: &[Vec<usize>], last: u32) -> Option<u32> {
    fn place(day: &Day, together: &[Vec<usize>], last: u32, starts: &mut Vec<u32>, best: &mut Option<u32>) {
        let number = starts.len();
        let Some(task) = day.tasks.get(number) else {
            let found = spread(day, together, starts);
            if best.is_none_or(|best| found < best) && breaks(day, starts).is_none() {
                *best = Some(found);
            }
            return;
        };
        for start in 0..=last.saturating_sub(task.minutes) {
            // Tasks only follow tasks before them, so a start that breaks a lag is left out at once.
            let holds = task.after.iter().all(|after| {
                let lag = i64::from(start) - i64::from(starts[after.task] + day.tasks[after.task].minutes);
                lag >= after.least && after.most.is_none_or(|most| lag <= most)
            });
            if holds {
                starts.push(start);
                place(day, together, last, starts, best);
                starts.pop();
            }
        }
    }
    let mut best = None;
    place(day, together, last, &mut Vec::new(), &mut best);
    best
}

fn task(minutes: u32, people: u32, after: Vec<After>) -> Task {
    Task { minutes, uses: Needs { people, ..Needs::default() }, after, between: None }
}

fn then(task: usize) -> After {
    After { task, least: 0, most: None }
}

fn day(horizon: u32, tasks: Vec<Task>) -> Day {
    Day { has: Needs { people: 1, ..Needs::default() }, horizon, tasks }
}

#[test]
fn days_that_cannot_be_say_why() {
    for (day, why) in [
        (day(100, vec![task(10, 2, vec![])]), "a task needs 2 pairs of hands, and there are 1"),
        (
            day(100, vec![task(10, 1, vec![then(1)]), task(10, 1, vec![then(0)])]),
            "some tasks wait for one another, so none of them can begin",
        ),
        (
            day(100, vec![task(60, 1, vec![]), task(90, 1, vec![])]),
            "the hands need at least 2 h 30 min, and the day has 1 h 40 min",
        ),
    ] {
        let layout = shortest(&day, LIMIT);
        assert_eq!((layout.status, layout.why.as_deref()), (Status::Infeasible, Some(why)));
        assert!(layout.starts.is_empty());
    }
    assert_eq!(shortest(&day(0, vec![]), LIMIT).makespan, Some(0));
}

#[test]
fn what_has_begun_stays_where_it_is() {
    let mut begun = day(200, vec![task(30, 1, vec![]), task(20, 1, vec![])]);
    begun.tasks[1].between = Some((5, 5));
    let layout = shortest(&begun, LIMIT);
    assert_eq!((layout.starts, layout.makespan), (vec![25, 5], Some(55)));
}

#[test]
fn a_break_lies_in_its_hour() {
    let mut meal = day(400, vec![task(60, 1, vec![]), task(50, 1, vec![]), task(30, 1, vec![])]);
    meal.tasks[2].between = Some((40, 70));
    let layout = shortest(&meal, LIMIT);
    assert_eq!(layout.makespan, Some(140));
    assert!((40..=70).contains(&layout.starts[2]), "{layout:?}");
}

#[test]
fn what_can_wait_starts_late_without_a_later_end() {
    // Ten minutes of hands that only the end of an hour needs.
    let free = Day {
        has: Needs { people: 2, ..Needs::default() },
        ..day(200, vec![task(60, 1, vec![]), task(10, 1, vec![]), task(5, 1, vec![then(0), then(1)])])
    };
    let layout = shortest(&free, LIMIT);
    assert_eq!(layout.makespan, Some(65));
    assert_eq!(later_starts(&free, &layout.starts), [0, 50, 60]);
}

#[test]
fn hands_are_not_idle_in_between_and_start_later_when_the_day_is_no_longer_for_it() {
    // A canner that is busy for an hour; then ten minutes of hands, the load, and five minutes to lift it.
    let canner = |minutes: u32, after: Vec<After>| Task {
        minutes,
        uses: Needs { canners: 1, ..Needs::default() },
        after,
        between: None,
    };
    let mut busy = canner(60, vec![]);
    busy.between = Some((0, 0));
    let waits = Day {
        has: Needs { people: 1, canners: 1, ..Needs::default() },
        ..day(
            300,
            vec![
                busy,
                task(10, 1, vec![]),
                canner(40, vec![After { task: 1, least: 0, most: None }]),
                task(5, 1, vec![After { task: 2, least: 0, most: Some(0) }]),
            ],
        )
    };
    let short = shortest(&waits, LIMIT);
    assert_eq!((short.makespan, short.starts[1]), (Some(105), 0), "as early as it goes");
    let wish = Wish { together: vec![vec![1, 3]], before: Vec::new() };
    let near = lay_out(&waits, &wish, LIMITS);
    assert_eq!((near.makespan, near.starts.as_slice()), (Some(105), [0, 50, 60, 100].as_slice()));
    assert_eq!(earlier_starts(&waits, &near.starts)[1], 0, "it may still begin at once");
    assert_eq!(with_reserve(&waits, &near.starts, 15), [0, 35, 60, 100], "a quarter of an hour to spare");
}

#[test]
fn what_has_not_begun_is_not_swapped_unless_that_makes_the_day_shorter() {
    // Two like tasks, one pair of hands: either order is as short.
    let like = day(200, vec![task(30, 1, vec![]), task(30, 1, vec![]), task(5, 1, vec![then(0), then(1)])]);
    for (before, expected) in [([0, 30, 60], [0, 30, 60]), ([30, 0, 60], [30, 0, 60])] {
        let wish = Wish { together: Vec::new(), before: before.map(Some).to_vec() };
        let again = lay_out(&like, &wish, LIMITS);
        assert_eq!((again.status, again.starts.as_slice()), (Status::Optimal, expected.as_slice()));
    }
    // Sixty minutes on the stove follow the first: that order saves half an hour.
    let mut stove = like;
    let alone = Task { minutes: 60, uses: Needs::default(), after: vec![then(0)], between: None };
    stove.tasks.push(alone);
    let wish = Wish { together: Vec::new(), before: vec![Some(30), Some(0), Some(60), None] };
    let again = lay_out(&stove, &wish, LIMITS);
    assert_eq!((again.makespan, again.starts[0]), (Some(90), 0), "{again:?}");
}

#[test]
fn chopping_takes_as_long_as_there_is_much() {
    assert!(chopping(0.0).abs() < 1e-9 && chopping(1.0) > 0.0);
    assert!((chopping(10.0) - 10.0 * chopping(1.0)).abs() < 1e-9);
}
