//! Several canners, jars that leave early or come late, and loads that hold jars of several batches.

use bodega_core::jars::bench::JarStep;
use bodega_model::canner::events::{BoilEvent, Phase};
use bodega_model::crates::fruit::Condition;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, CannerId, JarId, LoadId};
use bodega_model::measures::moment::{Minutes, Touched};
use bodega_model::records::batch::Draw;
use bodega_model::records::canner::CannerChange;
use bodega_model::records::kitchen::KitchenChange;
use bodega_model::records::load::{JarMoment, NewGroup, SharedLoad};
use bodega_model::tables::process::Method;
use bodega_model::towel::seal::LidVerdict;
use bodega_store::{KeptClock, Store, StoreError, ToldBy};

use crate::common::{NOW, batch, lot, make_ready};
use crate::undo::undo;

/// One batch of three quarts in two loads, every jar ready.
fn ready_batch(store: &Store) -> BatchId {
    let lot = lot(store, 4_000, Condition::FirmRipe);
    let batch = store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW).unwrap();
    for load in store.batch_loads(batch.id).unwrap() {
        make_ready(store, load.id, NOW);
    }
    batch.id
}

#[test]
fn each_step_ticks_those_before_it_and_takes_those_after_it_back() {
    let store = Store::in_memory().unwrap();
    let lot = lot(&store, 4_000, Condition::FirmRipe);
    store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW).unwrap();
    let jar = store.open_loads().unwrap()[0].jars[0].id;
    store.tick_jar(jar, JarStep::Acid, true, NOW).unwrap();
    let wiped = store.tick_jar(jar, JarStep::Rim, true, NOW).unwrap();
    assert_eq!((wiped.filled, wiped.bubbles, wiped.rim, wiped.lid), (true, true, true, false));
    let back = store.tick_jar(jar, JarStep::Bubbles, false, NOW).unwrap();
    assert_eq!((back.acid, back.filled, back.bubbles, back.rim), (true, true, false, false));
}

#[test]
fn two_canners_boil_at_once_and_each_takes_one_load() {
    let store = Store::in_memory().unwrap();
    let batch = ready_batch(&store);
    let loads = store.batch_loads(batch).unwrap();
    let second = store.add_canner("tall pot", Method::BoilingWater).unwrap();
    let closed = store.add_canner("pressure pot", Method::PressureDial).unwrap();
    assert!(matches!(store.add_canner("tall pot", Method::BoilingWater), Err(StoreError::NameTaken { .. })));
    assert!(matches!(store.move_load(loads[1].id, closed.id), Err(StoreError::OtherMethod)));
    store.add_event(loads[0].id, BoilEvent::JarsIn, NOW).unwrap();
    assert!(matches!(
        store.add_event(loads[1].id, BoilEvent::JarsIn, NOW),
        Err(StoreError::CannerBusy { .. })
    ));
    store.move_load(loads[1].id, second.id).unwrap();
    store.add_event(loads[1].id, BoilEvent::JarsIn, NOW).unwrap();
    assert!(matches!(store.move_load(loads[1].id, CannerId(1)), Err(StoreError::LoadBegun)));
    let steam = CannerChange { method: Some(Method::AtmosphericSteam), ..CannerChange::default() };
    assert!(matches!(store.change_canner(second.id, &steam), Err(StoreError::CannerPlanned { .. })));
    store.change_canner(closed.id, &steam).unwrap();
    let chosen = KitchenChange { canner: Some(closed.id), ..KitchenChange::default() };
    assert_eq!(
        store.change_kitchen(&chosen, &ToldBy::here(NOW)).unwrap().canner.method,
        Method::AtmosphericSteam
    );
}

#[test]
fn a_jar_that_breaks_never_reaches_the_towel_and_one_lifted_early_is_not_said_to_hold() {
    let store = Store::in_memory().unwrap();
    let batch = ready_batch(&store);
    let load = &store.batch_loads(batch).unwrap()[0];
    let [first, second] = [load.jars[0].id, load.jars[1].id];
    store.add_event(load.id, BoilEvent::Boils, NOW).unwrap();
    store.add_jar_event(load.id, JarMoment::Broken(first), NOW.plus_minutes(5)).unwrap();
    assert!(matches!(
        store.add_jar_event(load.id, JarMoment::Out(first), NOW.plus_minutes(6)),
        Err(StoreError::WhichJar)
    ));
    store.add_jar_event(load.id, JarMoment::Out(second), NOW.plus_minutes(30)).unwrap();
    // A third goes in late: the rest starts again, and so it does when that is taken back.
    let more = store.add_jar_event(load.id, JarMoment::Added(JarSize::Quart), NOW.plus_minutes(31)).unwrap();
    assert_eq!(more.jars.len(), 3);
    assert_eq!(undo(&store, load.id, NOW).unwrap().jars.len(), 2, "the late jar is gone again");
    store.add_jar_event(load.id, JarMoment::Added(JarSize::Quart), NOW.plus_minutes(31)).unwrap();
    for (event, minute) in [(BoilEvent::Boils, 40), (BoilEvent::HeatOff, 90), (BoilEvent::Lifted, 95)] {
        store.add_event(load.id, event, NOW.plus_minutes(minute)).unwrap();
    }
    let towel = store.towel().unwrap().remove(0);
    let there: Vec<JarId> = towel.jars.iter().map(|jar| jar.id).collect();
    assert!(!there.contains(&first) && there.contains(&second) && there.len() == 2, "{towel:?}");
    assert!(matches!(
        store.judge_seals(&[second], Some(LidVerdict::Holds), NOW.plus_minutes(900)),
        Err(StoreError::NotProcessed { .. })
    ));
    let late = there.into_iter().find(|id| *id != second).unwrap();
    store.judge_seals(&[late], Some(LidVerdict::Holds), NOW.plus_minutes(900)).unwrap();
}

#[test]
fn loads_of_two_batches_are_put_together_and_survive_one_of_them_leaving() {
    let store = Store::in_memory().unwrap();
    let [first, second] = [0; 2].map(|_| {
        let lot = lot(&store, 4_000, Condition::FirmRipe);
        store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW).unwrap().id
    });
    let before = store.open_loads().unwrap();
    let ids: Vec<LoadId> = before.iter().map(|load| load.id).collect();
    let jars: Vec<JarId> = before.iter().flat_map(|load| load.jars.iter().map(|jar| jar.id)).collect();
    let group =
        |jars: &[JarId]| NewGroup { batch: first, minutes: Minutes(50), psi: None, jars: jars.to_vec() };
    assert!(matches!(store.regroup(&ids, &[group(&jars[1..])]), Err(StoreError::NotTogether)));
    assert_eq!(store.open_loads().unwrap().len(), 4, "all or nothing");
    store.regroup(&ids, &[group(&jars)]).unwrap();
    let load = store.open_loads().unwrap().remove(0);
    assert_eq!((load.jars.len(), load.position, load.of, load.batch.id), (6, 1, 1, first));
    store.remove_batch(first, true, None, NOW).unwrap();
    let left = store.open_loads().unwrap().remove(0);
    assert_eq!((left.jars.len(), left.batch.id), (3, second), "the other batch's jars stay on the bench");
    assert_eq!(left.clock.phase(NOW), Phase::Waiting);
    store.remove_batch(first, false, None, NOW).unwrap();
    assert_eq!(store.open_loads().unwrap()[0].jars.len(), 6, "and come back");
}

#[test]
fn batches_that_are_set_out_together_share_loads_or_none_of_them_is_there() {
    let store = Store::in_memory().unwrap();
    let id = lot(&store, 20_000, Condition::FirmRipe);
    let drawing = || batch(vec![Draw { lot: id, weight_g: 4_000 }]);
    let both = [drawing(), drawing()];
    let load = |jars: &[(usize, u32)]| SharedLoad { jars: jars.to_vec(), minutes: Minutes(50), psi: None };
    let too_few = store.add_batches(&both, &[load(&[(0, 3), (1, 2)])], NOW);
    assert!(matches!(too_few, Err(StoreError::NotTogether)), "{too_few:?}");
    assert_eq!((store.open_batches().unwrap().len(), store.open_loads().unwrap().len()), (0, 0));
    assert_eq!(store.lots().unwrap()[0].left_g, 20_000);
    let added = store.add_batches(&both, &[load(&[(0, 2)]), load(&[(0, 1), (1, 3)])], NOW).unwrap();
    let stand: Vec<Vec<BatchId>> = store
        .open_loads()
        .unwrap()
        .iter()
        .map(|load| load.jars.iter().map(|jar| jar.batch).collect())
        .collect();
    let [first, second] = [added[0].id, added[1].id];
    assert_eq!(stand, [vec![first, first], vec![first, second, second, second]]);
}

#[test]
fn after_a_restart_of_the_machine_only_what_still_counted_is_asked_about() {
    let store = Store::in_memory().unwrap();
    assert_eq!(store.kept_clock().unwrap(), None);
    let kept = KeptClock { run: "monday".to_owned(), offset: 5, seen: NOW };
    store.keep_clock(&kept).unwrap();
    store.keep_clock(&KeptClock { seen: NOW.plus_minutes(1), ..kept.clone() }).unwrap();
    assert_eq!(store.kept_clock().unwrap().map(|kept| kept.seen), Some(NOW.plus_minutes(1)));
    let id = lot(&store, 10_000, Condition::FirmRipe);
    let batch = store.add_batch(&batch(vec![Draw { lot: id, weight_g: 4_000 }]), NOW).unwrap().id;
    let load = store.batch_loads(batch).unwrap()[0].id;
    assert_eq!(store.mark_unwatched(None, NOW).unwrap(), [], "nothing is in the canner");
    make_ready(&store, load, NOW);
    store.add_event(load, BoilEvent::JarsIn, NOW).unwrap();
    assert_eq!(store.mark_unwatched(None, NOW.plus_minutes(5)).unwrap(), [], "nothing counts yet");
    store.add_event(load, BoilEvent::Boils, NOW.plus_minutes(20)).unwrap();
    // It was full before the machine went off, and stays so.
    let (later, morning) = (NOW.plus_minutes(71), NOW.plus_minutes(900));
    assert_eq!(store.mark_unwatched(Some(later), morning).unwrap(), []);
    assert_eq!(store.mark_unwatched(Some(NOW.plus_minutes(69)), morning).unwrap(), [load]);
    let phase = |store: &Store| store.load(load).unwrap().clock.phase(morning);
    assert_eq!(phase(&store), Phase::Unwatched { since: NOW.plus_minutes(20), at: morning });
    assert_eq!(store.mark_unwatched(None, morning).unwrap(), [], "it is asked once");
    assert!(
        matches!(store.undo_event(load, morning, morning), Err(StoreError::OutOfOrder(_))),
        "and not taken back"
    );
    let answered = NOW.plus_minutes(901);
    store.add_event(load, BoilEvent::HeldOn, answered).unwrap();
    assert_eq!(phase(&store), Phase::TimeUp { at: NOW.plus_minutes(70) });
    store.undo_event(load, answered, answered).unwrap();
    assert_eq!(phase(&store), Phase::Unwatched { since: NOW.plus_minutes(20), at: morning });
}

#[test]
fn a_step_of_the_clock_is_written_down_counts_nothing_and_is_not_what_is_taken_back() {
    let store = Store::in_memory().unwrap();
    let batch = ready_batch(&store);
    let load = store.batch_loads(batch).unwrap()[0].id;
    store.note_clock_set(NOW).unwrap();
    assert!(!store.load(load).unwrap().clock.has_begun(), "nothing is in a canner");
    store.add_event(load, BoilEvent::JarsIn, NOW).unwrap();
    store.add_event(load, BoilEvent::Boils, NOW.plus_minutes(20)).unwrap();
    store.note_clock_set(NOW.plus_minutes(30)).unwrap();
    let clock = store.load(load).unwrap().clock;
    assert_eq!(clock.happened().last().map(|item| item.event), Some(BoilEvent::ClockSet));
    let counting = Phase::Counting { since: NOW.plus_minutes(20), ends: NOW.plus_minutes(70) };
    assert_eq!(clock.phase(NOW.plus_minutes(40)), counting);
    // A touch that a page kept comes after the note, and is still the next thing said.
    let late = Touched { at: NOW.plus_minutes(29), late: true };
    store.add_event(load, BoilEvent::ToppedUpBoiling, late).unwrap();
    let topped = store.load(load).unwrap().clock.last_said().unwrap().at;
    store.undo_event(load, topped, NOW.plus_minutes(41)).unwrap();
    store.undo_event(load, NOW.plus_minutes(20), NOW.plus_minutes(42)).unwrap();
    store.undo_event(load, NOW, NOW.plus_minutes(43)).unwrap();
    assert!(!store.load(load).unwrap().clock.has_begun(), "it never was in, and only a note is left of it");
}
