//! The day against optima proven elsewhere, against exhaustive search, and against a checker of its own.

mod instances;

use std::time::Duration;

use bodega_core::day::{After, Day, Needs, Status, Task, later_starts, lay_out};
use proptest::prelude::*;

const LIMIT: Duration = Duration::from_secs(10);

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
    for (name, optimum, day) in instances::all() {
        let layout = lay_out(&day, LIMIT);
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

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    #[test]
    fn small_days_are_as_short_as_trying_everything(day in days(6, false)) {
        let layout = lay_out(&day, LIMIT);
        prop_assert_eq!(layout.makespan, Some(shortest_by_trying_all(&day)));
        prop_assert_eq!(layout.status, Status::Optimal);
    }

    #[test]
    fn no_plan_breaks_its_day_and_none_ends_before_its_bound(day in days(14, true)) {
        let layout = lay_out(&day, Duration::from_millis(400));
        if let Some(makespan) = layout.makespan {
            prop_assert_eq!(breaks(&day, &layout.starts), None);
            prop_assert!(layout.bound <= makespan);
            let late = later_starts(&day, &layout.starts);
            prop_assert_eq!(breaks(&day, &late), None);
            prop_assert!(late.iter().zip(&layout.starts).all(|(late, early)| late >= early));
        }
    }
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
        let layout = lay_out(&day, LIMIT);
        assert_eq!((layout.status, layout.why.as_deref()), (Status::Infeasible, Some(why)));
        assert!(layout.starts.is_empty());
    }
    assert_eq!(lay_out(&day(0, vec![]), LIMIT).makespan, Some(0));
}

#[test]
fn what_has_begun_stays_where_it_is() {
    let mut begun = day(200, vec![task(30, 1, vec![]), task(20, 1, vec![])]);
    begun.tasks[1].between = Some((5, 5));
    let layout = lay_out(&begun, LIMIT);
    assert_eq!((layout.starts, layout.makespan), (vec![25, 5], Some(55)));
}

#[test]
fn a_break_lies_in_its_hour() {
    let mut meal = day(400, vec![task(60, 1, vec![]), task(50, 1, vec![]), task(30, 1, vec![])]);
    meal.tasks[2].between = Some((40, 70));
    let layout = lay_out(&meal, LIMIT);
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
    let layout = lay_out(&free, LIMIT);
    assert_eq!(layout.makespan, Some(65));
    assert_eq!(later_starts(&free, &layout.starts), [0, 50, 60]);
}
