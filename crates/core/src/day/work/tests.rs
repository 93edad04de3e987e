use super::{
    BatchWork, CookWork, LoadWork, Pause, PrepareWork, Turnaround, Work, break_near_its_hour, taken_over,
    tasks, together,
};
use crate::day::lanes::lanes;
use crate::day::pace::own_pace;
use crate::day::{Budget, Limits, Needs, Status, Wish, faults, lay_out, shortest};

const STEPS: Budget = Budget::Steps(200_000);
const CANNER: Turnaround = Turnaround { hot: 0, heats: 35, lifts: 5 };

fn load(name: &str, minutes: u32, begun: bool) -> LoadWork {
    LoadWork {
        name: name.to_owned(),
        fill: (!begun).then_some(12),
        minutes,
        begun,
        tops_up: true,
        shared_with: Vec::new(),
    }
}

fn part(work: Work, minutes: u32) -> PrepareWork {
    PrepareWork { work, usual: minutes, minutes, begun: false }
}

fn kitchen() -> Needs {
    Needs { people: 1, burners: 4, kettles: 2, canners: 1 }
}

#[test]
fn three_products_are_proven_and_every_block_has_its_lanes() {
    let batch = |code: &str, prepare: u32, cook| BatchWork {
        code: code.to_owned(),
        prepare: vec![
            part(Work::Wash, prepare / 2),
            part(if cook == 0 { Work::Peel } else { Work::Mill }, prepare / 2),
        ],
        rounds: 5,
        cook: (cook > 0).then_some(CookWork { minutes: cook, begun: false, kettles: 1, rounds: 1 }),
        loads: vec![load("load 1", 85, false), load("load 2", 85, false)],
    };
    let (day, blocks) =
        tasks(&[batch("a", 50, 0), batch("b", 30, 120), batch("c", 20, 40)], CANNER, None, kitchen(), 900);
    let layout = shortest(&day, STEPS);
    assert_eq!(layout.status, Status::Optimal, "{layout:?}");
    let lanes = lanes(&day, &layout.starts);
    let needed: u32 = day.tasks.iter().flat_map(|task| task.uses.each()).sum();
    assert_eq!(lanes.len(), needed as usize);
    let heats = blocks.iter().position(|block| block.work == Work::Heat).unwrap();
    assert!(layout.starts[heats] < 60, "the canner heats beside the preparation");
}

#[test]
fn a_shared_load_waits_for_the_fruit_of_every_batch_in_it() {
    let batch = |code: &str, minutes, loads| BatchWork {
        code: code.to_owned(),
        prepare: vec![part(Work::Wash, minutes)],
        rounds: 1,
        cook: None,
        loads,
    };
    let shared = LoadWork { shared_with: vec!["b".to_owned()], ..load("load 1", 85, false) };
    let (day, blocks) =
        tasks(&[batch("a", 10, vec![shared]), batch("b", 50, Vec::new())], CANNER, None, kitchen(), 600);
    let layout = shortest(&day, STEPS);
    let fill = blocks.iter().position(|block| block.work == Work::Fill).unwrap();
    assert_eq!(layout.starts[fill], 60, "{layout:?}");
}

#[test]
fn each_lift_takes_its_minutes_and_hot_food_waits_an_hour_at_the_most() {
    let batch = BatchWork {
        code: "a".to_owned(),
        prepare: vec![part(Work::Wash, 10)],
        rounds: 1,
        cook: Some(CookWork { minutes: 40, begun: false, kettles: 1, rounds: 1 }),
        loads: vec![load("load 1", 85, false), load("load 2", 85, false)],
    };
    let (day, blocks) = tasks(&[batch], Turnaround { lifts: 7, ..CANNER }, None, kitchen(), 900);
    let of = |work: Work| -> Vec<usize> {
        (0..blocks.len()).filter(|place| blocks[*place].work == work).collect()
    };
    assert!(of(Work::Lift).iter().all(|lift| day.tasks[*lift].minutes == 7));
    let (cook, fills) = (of(Work::Cook)[0], of(Work::Fill));
    let waits = |fill: usize| {
        let after = day.tasks[fill].after.iter().find(|after| after.task == cook);
        after.map(|after| after.most)
    };
    // Only the first jars must come soon; the kettle keeps the rest hot.
    assert_eq!((waits(fills[0]), waits(fills[1])), (Some(Some(60)), Some(None)));
    // Filled jars wait ten minutes for their canner.
    let loads = of(Work::Load);
    assert!(day.tasks[loads[0]].after.iter().any(|after| after.task == fills[0] && after.most == Some(10)));
}

#[test]
fn what_has_begun_has_one_minute_to_begin_at() {
    let begun = BatchWork {
        code: "a".to_owned(),
        prepare: Vec::new(),
        rounds: 1,
        cook: None,
        loads: vec![load("load 1", 60, true), load("load 2", 85, false)],
    };
    let (day, blocks) = tasks(&[begun], CANNER, None, kitchen(), 900);
    for (task, block) in day.tasks.iter().zip(&blocks) {
        assert_eq!(task.has_begun(), block.begun, "{}", block.key);
    }
    let pause = Pause { between: (100, 160), minutes: 30 };
    let (day, blocks) = tasks(
        &[BatchWork {
            code: "b".to_owned(),
            prepare: vec![part(Work::Wash, 5)],
            rounds: 1,
            cook: None,
            loads: Vec::new(),
        }],
        CANNER,
        Some(pause),
        kitchen(),
        900,
    );
    let place = blocks.iter().position(|block| block.work == Work::Pause).unwrap();
    assert!(!day.tasks[place].has_begun(), "a break that may lie anywhere near its hour has not begun");
}

#[test]
fn the_households_own_pace_moves_the_usual_one() {
    assert!((own_pace(&[]) - 1.0).abs() < 1e-9);
    // 40 minutes that took 60: half as long again, a third of the weight.
    assert!((own_pace(&[(40.0, 60.0)]) - 3.5 / 3.0).abs() < 1e-9);
    assert!((own_pace(&[(40.0, 60.0); 98]) - 1.49).abs() < 1e-9);
    assert!((own_pace(&[(40.0, 0.1), (40.0, 900.0)]) - 1.0).abs() < 1e-9, "forgotten touches");
}

#[test]
fn a_second_pair_of_hands_peels_while_the_first_blanches() {
    let batch = BatchWork {
        code: "a".to_owned(),
        prepare: vec![part(Work::Blanch, 20), part(Work::Peel, 30)],
        rounds: 10,
        cook: None,
        loads: Vec::new(),
    };
    let length = |people| {
        let has = Needs { people, ..kitchen() };
        shortest(&tasks(std::slice::from_ref(&batch), CANNER, None, has, 600).0, STEPS).makespan
    };
    // One after the other alone; with two, a round of two minutes and then the peeling.
    assert_eq!((length(1), length(2)), (Some(50), Some(32)));
    // Who is quicker than the blanching ends a round after it.
    assert_eq!(taken_over(20, 10, 10), -9);
    assert_eq!(taken_over(20, 10, 1), 0);
}

#[test]
fn the_canner_is_not_heated_long_before_its_load_and_the_break_lies_near_its_hour() {
    let batch = BatchWork {
        code: "a".to_owned(),
        prepare: vec![part(Work::Wash, 90)],
        rounds: 1,
        cook: None,
        loads: vec![load("load 1", 85, false)],
    };
    let pause = Pause { between: (110, 170), minutes: 20 };
    let (day, blocks) = tasks(&[batch], CANNER, Some(pause), kitchen(), 600);
    let wish = Wish { together: together(&day, &blocks), before: Vec::new() };
    let time = STEPS;
    let layout = lay_out(&day, &wish, Limits { length: time, waiting: time });
    let at = |starts: &[u32], work| starts[blocks.iter().position(|block| block.work == work).unwrap()];
    // 90 to wash, 12 to fill; 35 to heat, just before.
    assert_eq!((at(&layout.starts, Work::Load), at(&layout.starts, Work::Heat)), (102, 67));
    let sat_down = break_near_its_hour(&day, &blocks, &layout.starts);
    assert_eq!(at(&sat_down, Work::Pause), 140);
    assert_eq!(faults(&day, &sat_down, 600), Vec::<String>::new());
}

#[test]
fn only_what_boils_at_the_sink_takes_a_burner_and_only_hands_are_held_together() {
    let parts = [Work::Wash, Work::Core, Work::Blanch, Work::Peel, Work::Mill].map(|work| part(work, 10));
    let batch = BatchWork {
        code: "a".to_owned(),
        prepare: parts.to_vec(),
        rounds: 1,
        cook: Some(CookWork { minutes: 60, begun: false, kettles: 1, rounds: 1 }),
        loads: vec![load("load 1", 85, false)],
    };
    let (day, blocks) = tasks(&[batch], CANNER, None, kitchen(), 900);
    for (task, block) in day.tasks.iter().zip(&blocks) {
        if parts.iter().any(|part| part.work == block.work) {
            let burners = u32::from(matches!(block.work, Work::Blanch | Work::Mill));
            assert_eq!(task.uses.burners, burners, "{:?}", block.work);
        }
    }
    let hands = &together(&day, &blocks)[0];
    let with_hands: Vec<usize> =
        (0..day.tasks.len()).filter(|place| day.tasks[*place].uses.people > 0).collect();
    assert_eq!(*hands, with_hands);
    assert!(hands.len() < day.tasks.len(), "a canner boils without hands");
}

#[test]
fn each_cold_canner_is_heated_for_the_batch_that_can_use_it_soonest() {
    let batch = |code: &str, cook| BatchWork {
        code: code.to_owned(),
        prepare: vec![part(Work::Wash, 20)],
        rounds: 1,
        cook: Some(CookWork { minutes: cook, begun: false, kettles: 1, rounds: 1 }),
        loads: vec![load("load 1", 85, false)],
    };
    let slow_first = [batch("sauce", 240), batch("juice", 20)];
    let starts = |canners: u32, burners: u32| {
        let has = Needs { canners, burners, ..kitchen() };
        let (day, blocks) = tasks(&slow_first, CANNER, None, has, 900);
        let starts = shortest(&day, STEPS).starts;
        let heats = blocks.iter().filter(|block| block.work == Work::Heat).count();
        let juice = blocks.iter().position(|block| block.key == "juice load load 1").unwrap();
        (heats, starts[juice])
    };
    // Washed twice, cooked, filled: the juice does not wait for the sauce to be thick.
    let (heats, juice) = starts(1, 4);
    assert!(heats == 1 && juice <= 80, "{juice}");
    assert_eq!(starts(2, 4).0, 2);
    assert_eq!(starts(2, 3).0, 1, "three burners boil one canner and its water for topping up");
}

#[test]
fn a_load_that_boils_stays_and_the_canner_is_not_heated_again() {
    let boiling = BatchWork {
        code: "a".to_owned(),
        prepare: Vec::new(),
        rounds: 1,
        cook: None,
        loads: vec![load("load 1", 30, true), load("load 2", 80, false)],
    };
    let (day, blocks) = tasks(&[boiling], Turnaround { hot: 1, ..CANNER }, None, kitchen(), 600);
    assert!(blocks.iter().all(|block| block.work != Work::Heat));
    let layout = shortest(&day, STEPS);
    // 30 min, 5 to lift, 80 min, 5 to lift; the jars are filled meanwhile.
    assert_eq!(layout.makespan, Some(120));
}
