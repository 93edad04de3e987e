//! What the records refuse, in the words that a person reads, and that nothing has changed after it.

use std::collections::BTreeMap;

use bodega_core::jars::bench::JarStep;
use bodega_core::towel::seal::NoRescue;
use bodega_model::canner::events::BoilEvent;
use bodega_model::crates::fruit::{Condition, Kind};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::{JarSize, Mouth};
use bodega_model::measures::ids::{BatchId, CannerId, ContainerId, CookId, JarId, KettleId, LoadId, LotId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::records::batch::Draw;
use bodega_model::records::canner::{CannerChange, PotSize, USUAL_CAPACITY};
use bodega_model::records::kitchen::KitchenChange;
use bodega_model::records::lot::LotChange;
use bodega_model::records::stock::Item;
use bodega_model::tables::process::{Method, ProcessOption};
use bodega_model::towel::seal::{LidVerdict, Rescue};
use bodega_store::{Store, StoreError, ToldBy};

use crate::common::{NOW, batch, lot, make_ready, told};
use crate::undo::undo;

fn kitchen() -> (Store, BatchId, Vec<LoadId>) {
    let store = Store::in_memory().unwrap();
    let lot = lot(&store, 4_000, Condition::FirmRipe);
    let batch = store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW).unwrap();
    let loads = store.batch_loads(batch.id).unwrap().into_iter().map(|load| load.id).collect();
    (store, batch.id, loads)
}

/// A whole load on the towel.
fn lifted(store: &Store, load: LoadId, from: Moment) {
    make_ready(store, load, from);
    for (event, minute) in
        [(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 20), (BoilEvent::HeatOff, 70), (BoilEvent::Lifted, 76)]
    {
        store.add_event(load, event, from.plus_minutes(minute)).unwrap();
    }
}

#[test]
fn what_is_not_there_is_named() {
    let store = Store::in_memory().unwrap();
    let said = |error: StoreError| error.to_string();
    let all = [
        said(store.lot(LotId(9)).unwrap_err()),
        said(store.batch(BatchId(9)).unwrap_err()),
        said(store.load(LoadId(9)).unwrap_err()),
        said(store.canner(CannerId(9)).unwrap_err()),
        said(store.kettle(KettleId(9)).unwrap_err()),
        said(store.cook(CookId(9)).unwrap_err()),
        said(store.jar(JarId(9)).unwrap_err()),
        said(store.container(ContainerId(9)).unwrap_err()),
    ];
    for (text, what) in
        all.iter().zip(["lot", "batch", "load", "canner", "kettle", "cook", "jar", "container"])
    {
        assert!(text.contains(what) && text.contains('9'), "{text}");
    }
}

#[test]
fn a_step_before_the_acid_and_a_load_that_is_not_ready_are_refused() {
    let (store, _, loads) = kitchen();
    let before = store.load(loads[0]).unwrap();
    let jar = before.jars[0].id;
    let refused = store.tick_jar(jar, JarStep::Filled, true, NOW).unwrap_err();
    assert!(refused.to_string().starts_with("jar 1 has no acid yet; acid goes in before the food"));
    let refused = store.add_event(loads[0], BoilEvent::JarsIn, NOW).unwrap_err();
    assert_eq!(refused.to_string(), "2 of 2 jars are not ready: 2 without acid");
    store.tick_load(loads[0], JarStep::Acid, NOW).unwrap();
    let refused = store.add_event(loads[0], BoilEvent::JarsIn, NOW).unwrap_err();
    assert_eq!(refused.to_string(), "2 of 2 jars are not ready: not all have their lids on");
    assert!(!store.load(loads[0]).unwrap().clock.has_begun());
}

#[test]
fn a_named_part_of_a_canner_changes_and_the_rest_stays() {
    let store = Store::in_memory().unwrap();
    let first = store.kitchen().unwrap().canner;
    assert_eq!(first.capacity, BTreeMap::from(USUAL_CAPACITY));
    let change = |capacity: &[(JarSize, Option<u32>)]| {
        let capacity = Some(capacity.iter().copied().collect());
        store.change_canner(first.id, &CannerChange { capacity, ..CannerChange::default() }).unwrap()
    };
    let five = change(&[(JarSize::Quart, Some(5))]);
    let mut expected = first.capacity.clone();
    expected.insert(JarSize::Quart, 5);
    assert_eq!(five.capacity, expected);
    expected.remove(&JarSize::HalfPint);
    assert_eq!(change(&[(JarSize::HalfPint, None)]).capacity, expected);
    assert_eq!(change(&[]).capacity, expected);

    let pot = PotSize {
        inner_diameter_mm: 300.0,
        inner_length_mm: None,
        inner_height_mm: 250.0,
        rack_height_mm: 10.0,
    };
    let with_pot = CannerChange { pot: Some(pot), power_w: Some(2000.0), ..CannerChange::default() };
    let changed = store.change_canner(first.id, &with_pot).unwrap();
    assert_eq!(
        (changed.pot, changed.power_w, &changed.capacity, &changed.name),
        (Some(pot), Some(2000.0), &expected, &first.name)
    );
    let named = CannerChange { name: Some("tall pot".to_owned()), ..CannerChange::default() };
    let changed = store.change_canner(first.id, &named).unwrap();
    assert_eq!((changed.name.as_str(), changed.pot, changed.power_w), ("tall pot", Some(pot), Some(2000.0)));
}

#[test]
fn a_figure_comes_back_as_it_was_given() {
    let store = Store::in_memory().unwrap();
    for feet in [900.0, 1000.0, 2640.0, 0.1, -3.5, 9999.999] {
        let change = KitchenChange { altitude_ft: Some(feet), ..KitchenChange::default() };
        assert_eq!(store.change_kitchen(&change, &ToldBy::here(NOW)).unwrap().altitude_ft, Some(feet));
        assert_eq!(store.kitchen().unwrap().altitude_ft, Some(feet));
    }
    let changed = store
        .change_kitchen(&KitchenChange { people: Some(3), ..KitchenChange::default() }, &ToldBy::here(NOW))
        .unwrap();
    assert_eq!((changed.people, changed.altitude_ft), (3, Some(9999.999)));
}

#[test]
fn a_time_that_is_refused_leaves_the_load_as_it_is_and_one_that_is_found_keeps_its_events() {
    let (store, _, loads) = kitchen();
    make_ready(&store, loads[0], NOW);
    store.add_event(loads[0], BoilEvent::JarsIn, NOW).unwrap();
    store.add_event(loads[0], BoilEvent::Boils, NOW.plus_minutes(20)).unwrap();
    let before = store.load(loads[0]).unwrap();
    let refused = store.retime_load(loads[0], |_, _| Err::<ProcessOption, _>(StoreError::NothingToUndo), NOW);
    assert!(refused.is_err());
    assert_eq!(store.load(loads[0]).unwrap(), before);
    let longer = store
        .retime_load(
            loads[0],
            |load, kitchen| {
                assert_eq!((load.id, kitchen.canners.len()), (loads[0], 1));
                Ok::<_, StoreError>(ProcessOption { minutes: Minutes(55), psi: None })
            },
            NOW,
        )
        .unwrap();
    assert_eq!(longer.clock.required(), Minutes(55));
    assert_eq!(longer.clock.happened(), before.clock.happened());
    assert_eq!(store.load(loads[0]).unwrap(), longer);
    assert_eq!(store.load(loads[1]).unwrap().clock.required(), Minutes(50), "the other load stays");
}

#[test]
fn a_lid_holds_only_on_a_jar_that_was_processed_and_a_rescue_needs_a_failed_lid() {
    let (store, batch, loads) = kitchen();
    let jar = store.load(loads[0]).unwrap().jars[0].id;
    let early = store.judge_seals(&[jar], Some(LidVerdict::Holds), NOW).unwrap_err();
    assert!(matches!(early, StoreError::NotOnTowel { number: 1 }), "{early}");
    lifted(&store, loads[0], NOW);
    let later = NOW.plus_minutes(15 * 60);
    let refused = store.rescue(&[jar], Some(Rescue::Refrigerator), None, later).unwrap_err();
    assert!(
        matches!(refused, StoreError::NoRescue { number: 1, reason: NoRescue::NothingWrong }),
        "{refused}"
    );
    store.judge_seals(&[jar], Some(LidVerdict::Failed), later).unwrap();
    store.rescue(&[jar], Some(Rescue::Refrigerator), None, later).unwrap();
    assert_eq!(store.rescued().unwrap().len(), 1);
    store.rescue(&[jar], None, None, later).unwrap();
    assert!(store.rescued().unwrap().is_empty());
    // A day later it is not processed again.
    let late =
        store.rescue(&[jar], Some(Rescue::Reprocess), None, NOW.plus_minutes(76 + 24 * 60 + 1)).unwrap_err();
    assert!(late.to_string().contains("24 hours") || late.to_string().contains("day"), "{late}");
    assert!(store.batch_jars(batch).unwrap().iter().all(|jar| jar.earlier_loads.is_empty()));
    store.rescue(&[jar], Some(Rescue::Reprocess), None, later).unwrap();
    let again = store.jar(jar).unwrap();
    assert_eq!((again.earlier_loads.len(), again.verdict, again.lifted_at), (1, None, None));
}

#[test]
fn work_that_has_begun_keeps_its_batch_on_the_line() {
    let (store, batch, loads) = kitchen();
    store.tick_load(loads[0], JarStep::Acid, NOW).unwrap();
    let refused = store.remove_batch(batch, true, None, NOW).unwrap_err();
    assert!(matches!(refused, StoreError::BatchBegun { .. }), "{refused}");
    assert_eq!(store.open_loads().unwrap().len(), 2);
    for jar in store.load(loads[0]).unwrap().jars {
        store.tick_jar(jar.id, JarStep::Acid, false, NOW).unwrap();
    }
    store.remove_batch(batch, true, None, NOW).unwrap();
    assert!(store.open_loads().unwrap().is_empty());
    assert_eq!(store.lots().unwrap()[0].left_g, 4_000, "its fruit is back in the crate");
}

#[test]
fn a_lot_is_not_changed_below_what_batches_took() {
    let (store, _, _) = kitchen();
    let id = store.lots().unwrap().first().map_or(LotId(1), |lot| lot.id);
    let kind = LotChange { kind: Some(Kind::Slicer), ..LotChange::default() };
    let _ = store.change_lot(id, &kind, NOW);
    let drawn = Draw { lot: LotId(1), weight_g: 1 };
    let refused = store.add_batch(&batch(vec![drawn]), NOW).unwrap_err();
    assert!(refused.to_string().contains("left"), "{refused}");
    assert_eq!(told(|tell| store.all_batches(tell)).unwrap().len(), 1);
}

#[test]
fn what_was_counted_goes_down_by_what_batches_take() {
    let store = Store::in_memory().unwrap();
    store.count_stock(Item::Jar(JarSize::Quart), 10.0, None, NOW).unwrap();
    store.count_stock(Item::Lid(Mouth::Regular), 5.0, None, NOW).unwrap();
    store.count_stock(Item::Acid(Agent::CitricAcid), 100.0, None, NOW).unwrap();
    let lot = lot(&store, 4_000, Condition::FirmRipe);
    store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW.plus_minutes(1)).unwrap();
    let cupboard = store.cupboard().unwrap();
    let quarts = cupboard.jars.iter().find(|line| line.jar == JarSize::Quart).unwrap();
    assert_eq!((quarts.counted, quarts.used, quarts.left()), (Some(10), 3, Some(7)));
    let pints = cupboard.jars.iter().find(|line| line.jar == JarSize::Pint).unwrap();
    assert_eq!((pints.counted, pints.left()), (None, None));
    let lids = cupboard.lids.iter().find(|line| line.mouth == Mouth::Regular).unwrap();
    assert_eq!(lids.left(), Some(2));
    // Three quarts take ½ tsp each, 7.5 g.
    let citric = cupboard.acids.iter().find(|line| line.agent == Agent::CitricAcid).unwrap();
    assert!((citric.left().unwrap() - 92.5).abs() < 1e-9);
}

#[test]
fn the_last_event_is_taken_back_and_no_more_than_there_is() {
    let (store, _, loads) = kitchen();
    let nothing = undo(&store, loads[0], NOW).unwrap_err();
    assert_eq!(nothing.to_string(), "there is nothing to take back");
    make_ready(&store, loads[0], NOW);
    store.add_event(loads[0], BoilEvent::JarsIn, NOW).unwrap();
    store.add_event(loads[0], BoilEvent::Boils, NOW.plus_minutes(20)).unwrap();
    let back = undo(&store, loads[0], NOW.plus_minutes(21)).unwrap();
    assert_eq!(back.clock.happened().len(), 1);
    let method = CannerChange { method: Some(Method::AtmosphericSteam), ..CannerChange::default() };
    let planned = store.change_canner(CannerId(1), &method).unwrap_err();
    assert!(matches!(planned, StoreError::CannerPlanned { .. }), "{planned}");
    undo(&store, loads[0], NOW.plus_minutes(22)).unwrap();
    assert!(!store.load(loads[0]).unwrap().clock.has_begun());
}
