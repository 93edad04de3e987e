//! Canner loads against an exhaustive search, and against the published canner.

use bodega_core::canner::loads::{Group, LoadPlan, group, why};
use bodega_core::canner::room::Capacity;
use bodega_core::canner::standing::most_of;
use bodega_model::canner::outline::{Outline, Outsides};
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::millimetres;
use bodega_model::tables::process::{Query, look_up};
use proptest::prelude::*;
use serde_json::Value;

const SEVEN_NINE: [Capacity; 3] = [
    Capacity { jar: JarSize::Quart, count: 7 },
    Capacity { jar: JarSize::Pint, count: 9 },
    Capacity { jar: JarSize::HalfPint, count: 12 },
];

/// A count in a document.
pub fn number(value: &Value) -> u32 {
    u32::try_from(value.as_u64().unwrap()).unwrap()
}

/// Counts of jars by the word of their size.
pub fn jar_counts(value: &Value) -> impl Iterator<Item = (JarSize, u32)> {
    value.as_object().unwrap().iter().map(|(jar, count)| (jar.parse().unwrap(), number(count)))
}

fn of(jar: JarSize, minutes: u32, count: u32) -> Group {
    Group { jar, minutes: Minutes(minutes), count }
}

fn check(plan: &LoadPlan, groups: &[Group], capacity: &[Capacity], turnaround: u32) {
    let mut placed = vec![0; groups.len()];
    let mut total = 0;
    for load in &plan.loads {
        let mut share = 0.0;
        for (index, count) in &load.jars {
            placed[*index] += count;
            assert!(groups[*index].minutes <= load.minutes, "a jar got less than its time");
            let cap = capacity.iter().find(|cap| cap.jar == groups[*index].jar).unwrap().count;
            share += f64::from(*count) / f64::from(cap);
        }
        assert!(share <= 1.0 + 1e-9, "overfull: {share}");
        total += load.minutes.0 + turnaround;
    }
    let wanted: Vec<u32> = groups.iter().map(|group| group.count).collect();
    assert_eq!(placed, wanted);
    assert_eq!(plan.total.0, total);
    assert!(plan.lower_bound <= plan.total);
}

#[test]
fn ten_quarts_make_two_loads_in_a_seven_quart_canner() {
    let groups = [of(JarSize::Quart, 50, 10)];
    let plan = group(&groups, &SEVEN_NINE, Minutes(20)).unwrap();
    check(&plan, &groups, &SEVEN_NINE, 20);
    assert_eq!(plan.loads.len(), 2);
    assert_eq!((plan.total, plan.lower_bound), (Minutes(140), Minutes(140)));
}

#[test]
fn short_jars_do_not_lengthen_by_riding_with_long_ones_when_room_is_left() {
    // 4 quarts at 90 min leave room for 3 quarts at 50: one load less.
    let groups = [of(JarSize::Quart, 50, 10), of(JarSize::Quart, 90, 4)];
    let plan = group(&groups, &SEVEN_NINE, Minutes(15)).unwrap();
    check(&plan, &groups, &SEVEN_NINE, 15);
    assert_eq!(plan.total, Minutes(90 + 50 + 2 * 15));
    assert_eq!(plan.lower_bound, plan.total);
}

#[test]
fn sixty_jars_in_six_groups_are_proven() {
    let groups = [
        of(JarSize::Quart, 90, 10),
        of(JarSize::Pint, 90, 10),
        of(JarSize::Quart, 50, 10),
        of(JarSize::Pint, 45, 10),
        of(JarSize::Pint, 40, 10),
        of(JarSize::HalfPint, 50, 10),
    ];
    let plan = group(&groups, &SEVEN_NINE, Minutes(18)).unwrap();
    check(&plan, &groups, &SEVEN_NINE, 18);
    assert_eq!(plan.lower_bound, plan.total);
}

#[test]
fn a_size_without_capacity_is_named() {
    let error = group(&[of(JarSize::Litre, 50, 1)], &SEVEN_NINE, Minutes(0)).unwrap_err();
    assert_eq!(error.to_string(), "the canner's capacity for litres is not given; say how many fit");
}

#[test]
fn standard_canner_holds_seven_quarts_or_nine_pints() {
    // USDA Guide 1 and 3, from memory: a canner load is 7 quarts or 9 pints. 305 mm is the usual inner width.
    let inner = Outline::round(millimetres(305.0));
    assert_eq!(most_of(inner, JarSize::Quart, &Outsides::default()), 7);
    assert_eq!(most_of(inner, JarSize::Pint, &Outsides::default()), 9);
}

/// Tries every way to put the jars, one after another, into an open load or a new one.
fn exhaustive(jars: &[(u32, u32)], open: &mut Vec<(u32, u32)>, whole: u32, turnaround: u32) -> u32 {
    let Some(((share, minutes), rest)) = jars.split_first() else {
        return open.iter().map(|(_, longest)| longest + turnaround).sum();
    };
    let mut best = u32::MAX;
    for place in 0..open.len() {
        let before = open[place];
        if before.0 + share <= whole {
            open[place] = (before.0 + share, before.1.max(*minutes));
            best = best.min(exhaustive(rest, open, whole, turnaround));
            open[place] = before;
        }
    }
    open.push((*share, *minutes));
    best = best.min(exhaustive(rest, open, whole, turnaround));
    open.pop();
    best
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]
    #[test]
    fn grouping_is_as_short_as_an_exhaustive_search(
        counts in prop::collection::vec((0_usize..3, 0_usize..4, 1_u32..4), 1..4),
        turnaround in 0_u32..30,
    ) {
        // Small canners make the packing hard: 2 quarts, 3 pints or 5 half-pints; shares of 30.
        let sizes = [(JarSize::Quart, 2, 15), (JarSize::Pint, 3, 10), (JarSize::HalfPint, 5, 6)];
        let capacity: Vec<Capacity> = sizes.iter().map(|(jar, count, _)| Capacity { jar: *jar, count: *count }).collect();
        let times = [35, 45, 50, 90];
        let groups: Vec<Group> = counts.iter().map(|(size, time, count)| of(sizes[*size].0, times[*time], *count)).collect();
        let plan = group(&groups, &capacity, Minutes(turnaround)).unwrap();
        check(&plan, &groups, &capacity, turnaround);
        let jars: Vec<(u32, u32)> = counts
            .iter()
            .flat_map(|(size, time, count)| (0..*count).map(move |_| (sizes[*size].2, times[*time])))
            .collect();
        let least = exhaustive(&jars, &mut Vec::new(), 30, turnaround);
        prop_assert_eq!(plan.total.0, least);
        prop_assert_eq!(plan.lower_bound.0, least);
    }
}

#[test]
fn why_a_grouping_is_as_it_is_takes_one_line() {
    let capacity = [Capacity { jar: JarSize::Quart, count: 7 }, Capacity { jar: JarSize::Pint, count: 9 }];
    let turnaround = Minutes(25);
    let lot = |jar, minutes, count| Group { jar, minutes: Minutes(minutes), count };
    for (groups, expected) in [
        (vec![lot(JarSize::Quart, 50, 5)], "One load holds them all."),
        (vec![lot(JarSize::Quart, 50, 18)], "All need 50 min, and 3 loads are the fewest that hold them."),
        (
            vec![lot(JarSize::Quart, 90, 7), lot(JarSize::Pint, 40, 9)],
            "Kept apart by time: together, jars of 40 min would get up to 90 min and save no load.",
        ),
        // Nine quarts and two pints: the pints' own load would be 40 + 25 min.
        (
            vec![lot(JarSize::Quart, 50, 9), lot(JarSize::Pint, 40, 2)],
            "Short jars ride along for the longest time: in loads of their own the day would take 65 min more.",
        ),
    ] {
        let plan = group(&groups, &capacity, turnaround).unwrap();
        assert_eq!(why(&groups, &plan, &capacity, turnaround), expected);
    }
}

#[test]
fn ten_thousand_loads_are_counted_and_not_fallen_over() {
    let one = [Capacity { jar: JarSize::Quart, count: 1 }];
    let plan = group(&[of(JarSize::Quart, 45, 10_000)], &one.to_vec(), Minutes(20)).unwrap();
    assert_eq!(
        (plan.loads.len(), plan.total, plan.lower_bound),
        (10_000, Minutes(650_000), Minutes(650_000))
    );
}

/// Questions of five sizes with the least minutes that OR-Tools CP-SAT 9.15 found with two workers, and what it proved.
#[test]
fn five_sizes_take_no_longer_than_a_solver_from_outside_finds() {
    let text = include_str!("data/loads_five_sizes.json");
    let all: Value = serde_json::from_str(text).unwrap();
    for instance in all["instances"].as_array().unwrap() {
        let asked = &instance["request"];
        let capacity: Vec<Capacity> =
            jar_counts(&asked["capacity"]).map(|(jar, count)| Capacity { jar, count }).collect();
        let altitude = Altitude::from_feet(asked["altitude_ft"].as_f64().unwrap()).unwrap();
        let group_of = |line: &Value| {
            let query = Query {
                product: serde_json::from_value(line["product"].clone()).unwrap(),
                medium: serde_json::from_value(line["medium"].clone()).unwrap(),
                pack: serde_json::from_value(line["pack"].clone()).unwrap(),
                method: serde_json::from_value(asked["method"].clone()).unwrap(),
                jar: serde_json::from_value(line["jar"].clone()).unwrap(),
                altitude,
            };
            let minutes = look_up(&query).unwrap().options[0].minutes;
            Group { jar: query.jar, minutes, count: number(&line["count"]) }
        };
        let groups: Vec<Group> = asked["jars"].as_array().unwrap().iter().map(group_of).collect();
        let turnaround = number(&asked["turnaround_minutes"]);
        let plan = group(&groups, &capacity, Minutes(turnaround)).unwrap();
        check(&plan, &groups, &capacity, turnaround);
        let jars: u32 = groups.iter().map(|group| group.count).sum();
        assert!(plan.total.0 <= number(&instance["best_known_minutes"]), "{jars} jars: {:?}", plan.total);
        assert!(
            plan.lower_bound.0 >= number(&instance["lower_bound_minutes"]),
            "{jars} jars: {:?}",
            plan.lower_bound
        );
    }
}
