//! The boil clock against histories it was not written for, and against a count made minute by minute.

use bodega_model::canner::clock::{BoilClock, REST, REST_AFTER_PRESSURE, VENT};
use bodega_model::canner::events::{BoilEvent, Fate, Happened, Phase};
use bodega_model::measures::ids::JarId;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::tables::process::Method;
use proptest::prelude::*;

use super::kitchen::{START, at, happened};

fn any_method() -> impl Strategy<Value = Method> {
    prop::sample::select(Method::ALL)
}

/// Anything in any order at any time, as another program or an older one may have written it.
fn foreign() -> impl Strategy<Value = Vec<Happened>> {
    let event = (prop::sample::select(BoilEvent::ALL), -300_i64..600, prop::option::of(1_i64..4));
    let item = event.prop_map(|(event, minute, jar)| Happened { event, at: at(minute), jar: jar.map(JarId) });
    prop::collection::vec(item, 0..25)
}

/// The longest unbroken boil, counted minute by minute: it boils when somebody said so and nobody has said since that it
/// does not. Knows nothing of stages.
fn longest_boil(items: &[Happened], until: Moment) -> i64 {
    let mut boils = false;
    // Minutes of which nobody knows whether it boiled.
    let mut unknown: Option<i64> = None;
    let (mut minutes, mut longest) = (0, 0);
    let mut minute = START.plus_minutes(-400);
    while minute < until {
        let here = |item: &&Happened| item.at == minute;
        for item in items.iter().filter(here) {
            match item.event {
                BoilEvent::Boils if !boils || unknown.is_some() => {
                    (boils, minutes, unknown) = (true, 0, None)
                }
                BoilEvent::Unwatched if boils => unknown = unknown.or(Some(0)),
                BoilEvent::HeldOn => {
                    minutes += unknown.take().unwrap_or(0);
                    longest = minutes.max(longest);
                }
                BoilEvent::BoilLost
                | BoilEvent::PoundsRaised
                | BoilEvent::ToppedUpCold
                | BoilEvent::JarOut
                | BoilEvent::JarAdded
                | BoilEvent::HeatOff
                | BoilEvent::Lifted => (boils, unknown) = (false, None),
                _ => {}
            }
        }
        match &mut unknown {
            Some(unknown) => *unknown += 1,
            None => minutes += i64::from(boils),
        }
        longest = minutes.max(longest);
        minute = minute.plus_minutes(1);
    }
    longest
}

proptest! {
    #[test]
    fn whatever_is_stored_has_a_meaning(method in any_method(), items in foreign(), required in 1_u32..120, now in -300_i64..900) {
        let clock = BoilClock::replay(method, Minutes(required), &items);
        let _ = (clock.phase(at(now)), clock.lifting(), clock.times_lost());
        prop_assert_eq!(clock.happened().len(), items.len(), "nothing is lost");
        prop_assert!(clock.happened().is_sorted_by_key(|item| item.at), "time does not go back");
        let again = BoilClock::replay(method, Minutes(required), clock.happened());
        prop_assert_eq!(again, clock);
    }

    #[test]
    fn no_history_counts_more_than_was_boiled(method in any_method(), items in foreign(), required in 1_u32..120) {
        let clock = BoilClock::replay(method, Minutes(required), &items);
        let end = clock.happened().last().map_or(START, |last| last.at).plus_minutes(60);
        let counted = clock.unbroken_ms(end) / 60_000;
        prop_assert!(counted <= longest_boil(clock.happened(), end), "{counted} counted of {:?}", clock.happened());
        let is_long = counted >= i64::from(required);
        prop_assert_eq!(clock.is_processed(end), is_long);
    }

    #[test]
    fn a_retimed_clock_keeps_its_history_and_answers_by_the_new_time(items in foreign(), required in 1_u32..120, new in 1_u32..120) {
        let clock = BoilClock::replay(Method::BoilingWater, Minutes(required), &items);
        let retimed = clock.retimed(Minutes(new));
        prop_assert_eq!(retimed.clone(), BoilClock::replay(Method::BoilingWater, Minutes(new), &items));
        prop_assert_eq!(retimed.happened(), clock.happened());
    }

    #[test]
    fn what_is_refused_changes_nothing_and_what_is_taken_is_kept(method in any_method(), said in prop::collection::vec((prop::sample::select(BoilEvent::ALL), 0_i64..30), 0..25)) {
        let mut clock = BoilClock::new(method, Minutes(40));
        let mut minute = 0;
        for (event, after) in said {
            minute += after;
            match clock.after(event, None, at(minute)) {
                Ok(next) => {
                    prop_assert_eq!(next.happened().len(), clock.happened().len() + 1);
                    prop_assert_eq!(next.happened().last().unwrap().event, event);
                    clock = next;
                }
                Err(refused) => prop_assert_eq!(refused.said, event.says(method)),
            }
        }
    }
}

fn run(method: Method, events: &[(BoilEvent, i64)]) -> BoilClock {
    BoilClock::replay(method, Minutes(50), &happened(events))
}

/// What may be said at each phase of each canner; everything else is refused.
#[test]
fn at_each_phase_only_what_can_happen_there_may_be_said() {
    use BoilEvent::{
        BoilLost, Boils, HeatOff, JarAdded, JarBroken, JarOut, JarsIn, Lifted, PressureDown, RanDry,
        ToppedUpBoiling, ToppedUpCold, Vents,
    };
    use Method::{AtmosphericSteam, BoilingWater, PressureDial, PressureWeighted};
    let check = |method: Method, so_far: &[(BoilEvent, i64)], now: i64, allowed: &[BoilEvent]| {
        let clock = run(method, so_far);
        for event in BoilEvent::ALL {
            let taken = clock.after(*event, None, at(now)).is_ok();
            assert_eq!(taken, allowed.contains(event), "{method}: {event} after {so_far:?} at {now}");
        }
    };
    let water_jars = [JarBroken, JarOut, JarAdded];
    check(BoilingWater, &[], 0, &[JarsIn, Boils]);
    check(AtmosphericSteam, &[], 0, &[JarsIn]);
    let heating = [[Boils, ToppedUpBoiling, ToppedUpCold].as_slice(), &water_jars].concat();
    check(BoilingWater, &[(JarsIn, 0)], 5, &heating);
    check(AtmosphericSteam, &[(JarsIn, 0)], 5, &[[Boils, RanDry].as_slice(), &water_jars].concat());
    let counting = [[BoilLost, HeatOff, ToppedUpBoiling, ToppedUpCold].as_slice(), &water_jars].concat();
    check(BoilingWater, &[(JarsIn, 0), (Boils, 10)], 20, &counting);
    check(AtmosphericSteam, &[(JarsIn, 0), (Boils, 10)], 20, &[BoilLost, RanDry, HeatOff, JarBroken]);
    let lost = [[Boils, HeatOff, ToppedUpBoiling, ToppedUpCold].as_slice(), &water_jars].concat();
    check(BoilingWater, &[(JarsIn, 0), (Boils, 10), (BoilLost, 20)], 25, &lost);
    check(
        AtmosphericSteam,
        &[(JarsIn, 0), (Boils, 10), (BoilLost, 20)],
        25,
        &[Boils, RanDry, HeatOff, JarBroken],
    );
    let dry = [(JarsIn, 0), (Boils, 10), (RanDry, 20)];
    check(AtmosphericSteam, &dry, 25, &[Boils, RanDry, HeatOff, JarBroken]);
    assert_eq!(run(AtmosphericSteam, &dry).phase(at(25)), Phase::BoilLost { at: at(20) });
    for method in [BoilingWater, AtmosphericSteam] {
        check(method, &[(JarsIn, 0), (Boils, 10)], 60, &[HeatOff, JarBroken]);
        check(method, &[(JarsIn, 0), (Boils, 10), (HeatOff, 60)], 62, &[Lifted, JarBroken]);
        check(method, &[(JarsIn, 0), (Boils, 10), (HeatOff, 60)], 90, &[Lifted, JarBroken]);
        check(method, &[(JarsIn, 0), (Boils, 10), (HeatOff, 60), (Lifted, 66)], 70, &[]);
    }
    for method in [PressureDial, PressureWeighted] {
        check(method, &[], 0, &[JarsIn]);
        check(method, &[(JarsIn, 0)], 5, &[Vents, JarBroken]);
        check(method, &[(JarsIn, 0), (Vents, 5)], 14, &[JarBroken]);
        check(method, &[(JarsIn, 0), (Vents, 5)], 15, &[Boils, JarBroken]);
        check(method, &[(JarsIn, 0), (Vents, 5), (Boils, 20)], 30, &[BoilLost, HeatOff, JarBroken]);
        check(method, &[(JarsIn, 0), (Vents, 5), (Boils, 20), (HeatOff, 70)], 71, &[PressureDown]);
        let down = [(JarsIn, 0), (Vents, 5), (Boils, 20), (HeatOff, 70), (PressureDown, 90)];
        check(method, &down, 95, &[Lifted, JarBroken]);
    }
}

/// Minutes of USDA Guide 1, from memory: vent 10, rest 5 in water and 10 after pressure.
#[test]
fn rest_and_venting_are_as_long_as_the_guide_says() {
    assert_eq!((VENT, REST, REST_AFTER_PRESSURE), (Minutes(10), Minutes(5), Minutes(10)));
    for (method, rest) in [
        (Method::BoilingWater, 5),
        (Method::AtmosphericSteam, 5),
        (Method::PressureDial, 10),
        (Method::PressureWeighted, 10),
    ] {
        assert_eq!(run(method, &[]).rest(), Minutes(rest), "{method}");
    }
}

#[test]
fn each_phase_ends_at_its_minute() {
    use BoilEvent::{Boils, HeatOff, JarsIn, Lifted, PressureDown, Vents};
    let ms = |moment: Moment, by: i64| Moment(moment.0 + by);
    let pressure = run(Method::PressureDial, &[(JarsIn, 0), (Vents, 5)]);
    assert_eq!(pressure.phase(ms(at(15), -1)), Phase::Venting { since: at(5), ends: at(15) });
    assert_eq!(pressure.phase(at(15)), Phase::Vented { at: at(15) });
    let water = run(Method::BoilingWater, &[(JarsIn, 0), (Boils, 20)]);
    assert_eq!(water.phase(ms(at(70), -1)), Phase::Counting { since: at(20), ends: at(70) });
    assert_eq!(water.phase(at(70)), Phase::TimeUp { at: at(70) });
    let off = run(Method::BoilingWater, &[(JarsIn, 0), (Boils, 20), (HeatOff, 70)]);
    assert_eq!(off.phase(ms(at(75), -1)), Phase::Resting { since: at(70), ends: at(75) });
    assert_eq!(off.phase(at(75)), Phase::Rested { at: at(75) });
    let down = [(JarsIn, 0), (Vents, 5), (Boils, 20), (HeatOff, 70), (PressureDown, 90)];
    let down = run(Method::PressureDial, &down);
    assert_eq!(down.phase(ms(at(100), -1)), Phase::Resting { since: at(90), ends: at(100) });
    assert_eq!(down.phase(at(100)), Phase::Rested { at: at(100) });
    let lifted = run(Method::BoilingWater, &[(JarsIn, 0), (Boils, 20), (HeatOff, 70), (Lifted, 77)]);
    assert_eq!(lifted.phase(at(500)), Phase::Lifted { at: at(77) });
    assert_eq!(run(Method::BoilingWater, &[(JarsIn, 0)]).phase(at(9)), Phase::Heating { since: at(0) });
}

#[test]
fn a_boil_that_was_lost_is_told_from_heat_that_was_turned_off() {
    use BoilEvent::{BoilLost, Boils, HeatOff, ToppedUpCold};
    let lost = |events: &[(BoilEvent, i64)]| run(Method::BoilingWater, events).times_lost();
    assert_eq!(lost(&[]), 0);
    assert_eq!(lost(&[(Boils, 0)]), 0);
    assert_eq!(lost(&[(Boils, 0), (HeatOff, 50)]), 0);
    assert_eq!(lost(&[(Boils, 0), (HeatOff, 20)]), 0, "an end is not a loss");
    assert_eq!(lost(&[(Boils, 0), (BoilLost, 20)]), 1);
    assert_eq!(lost(&[(Boils, 0), (BoilLost, 20), (Boils, 22), (ToppedUpCold, 40), (Boils, 50)]), 2);
    assert_eq!(lost(&[(Boils, 0), (BoilLost, 20), (Boils, 22), (HeatOff, 30)]), 1);
    assert_eq!(lost(&[(Boils, 0), (BoilLost, 20), (Boils, 22), (HeatOff, 72)]), 1);
    assert_eq!(lost(&[(Boils, 0), (BoilLost, 50), (Boils, 55), (HeatOff, 60)]), 0, "the full time was done");
}

#[test]
fn the_boil_that_counts_is_the_last() {
    use BoilEvent::{BoilLost, Boils, HeatOff};
    let held = |events: &[(BoilEvent, i64)], now: i64| {
        run(Method::BoilingWater, events).unbroken_ms(at(now)) / 60_000
    };
    assert_eq!(held(&[], 100), 0);
    assert_eq!(held(&[(Boils, 0)], 30), 30);
    assert_eq!(held(&[(Boils, 0), (Boils, 10)], 30), 30, "said twice, it still boils since the first");
    assert_eq!(held(&[(Boils, 0), (HeatOff, 40)], 300), 40);
    assert_eq!(held(&[(Boils, 0), (BoilLost, 40)], 300), 40);
    assert_eq!(held(&[(Boils, 0), (BoilLost, 40), (Boils, 45)], 50), 5);
    assert_eq!(held(&[(Boils, 20)], 10), 0, "a clock that was set back counts nothing");
}

#[test]
fn an_old_event_that_says_nothing_where_the_load_stands_moves_nothing() {
    use BoilEvent::{Boils, HeatOff, JarsIn, Lifted, PressureDown, Vents};
    let phase = |events: &[(BoilEvent, i64)]| run(Method::BoilingWater, events).phase(at(300));
    assert_eq!(phase(&[(JarsIn, 0), (Lifted, 20), (Lifted, 30)]), Phase::Lifted { at: at(20) }, "out is out");
    assert_eq!(phase(&[(JarsIn, 0), (Lifted, 20), (Boils, 30)]), Phase::Lifted { at: at(20) });
    assert_eq!(phase(&[(JarsIn, 0), (Vents, 5)]), Phase::Heating { since: at(0) }, "water does not vent");
    assert_eq!(phase(&[(JarsIn, 0), (PressureDown, 5)]), Phase::Heating { since: at(0) });
    let off = [(JarsIn, 0), (Boils, 20), (HeatOff, 70)];
    let and = |event| phase(&[off[0], off[1], off[2], event]);
    assert_eq!(and((Boils, 71)), Phase::Rested { at: at(75) });
    assert_eq!(and((HeatOff, 90)), Phase::Rested { at: at(75) });
    let venting = [(JarsIn, 0), (Vents, 5), (Vents, 9)];
    assert_eq!(run(Method::PressureDial, &venting).phase(at(15)), Phase::Vented { at: at(15) });
    let dropping = [(JarsIn, 0), (Vents, 5), (Boils, 20), (HeatOff, 40), (HeatOff, 60)];
    assert_eq!(run(Method::PressureDial, &dropping).phase(at(99)), Phase::Dropping { since: at(40) });
    // Heat off from every stage before the rest.
    for events in [
        &[(HeatOff, 9)][..],
        &[(JarsIn, 0), (HeatOff, 9)],
        &[(Boils, 0), (BoilEvent::BoilLost, 5), (HeatOff, 9)],
    ] {
        assert_eq!(phase(events), Phase::Rested { at: at(14) }, "{events:?}");
        let pressed = run(Method::PressureWeighted, events).phase(at(300));
        assert_eq!(pressed, Phase::Dropping { since: at(9) }, "{events:?}");
    }
}

#[test]
fn lifting_is_timed_from_the_end_of_the_rest() {
    use BoilEvent::{Boils, HeatOff, JarsIn, Lifted, PressureDown, Vents};
    let water = [(JarsIn, 0), (Boils, 20), (HeatOff, 70), (Lifted, 80)];
    assert_eq!(run(Method::BoilingWater, &water).lifting(), Some(at(80).since(at(75))));
    let pressure = [(JarsIn, 0), (Vents, 5), (Boils, 20), (HeatOff, 70), (PressureDown, 90), (Lifted, 104)];
    assert_eq!(run(Method::PressureDial, &pressure).lifting(), Some(at(104).since(at(100))));
    assert_eq!(run(Method::BoilingWater, &water[..3]).lifting(), None);
    assert_eq!(run(Method::BoilingWater, &[(Lifted, 80)]).lifting(), None);
}

#[test]
fn a_jars_fate_is_its_own() {
    use BoilEvent::{Boils, JarBroken, JarOut};
    let jar =
        |event: BoilEvent, minute: i64, id: i64| Happened { event, at: at(minute), jar: Some(JarId(id)) };
    let boils = Happened { event: Boils, at: at(0), jar: None };
    let clock = BoilClock::replay(
        Method::BoilingWater,
        Minutes(50),
        &[
            boils,
            jar(JarOut, 40, 1),
            jar(JarBroken, 45, 2),
            Happened { at: at(45), ..boils },
            jar(JarOut, 70, 3),
        ],
    );
    assert_eq!(clock.fate(JarId(1), Minutes(40)), Fate::OutInTime);
    assert_eq!(clock.fate(JarId(1), Minutes(41)), Fate::OutTooEarly);
    assert_eq!(clock.fate(JarId(2), Minutes(1)), Fate::Broken);
    assert_eq!(clock.fate(JarId(3), Minutes(25)), Fate::OutInTime, "25 minutes of the boil it stood in");
    assert_eq!(clock.fate(JarId(3), Minutes(26)), Fate::OutTooEarly);
    assert_eq!(clock.fate(JarId(4), Minutes(500)), Fate::Stayed);
}

#[test]
fn heat_off_too_early_is_not_processed_until_the_full_time_was_counted_again() {
    use BoilEvent::{Boils, HeatAgain, HeatOff, JarsIn, Lifted};
    let early = [(JarsIn, 0), (Boils, 10), (HeatOff, 40)];
    let clock =
        |events: &[(BoilEvent, i64)]| BoilClock::replay(Method::BoilingWater, Minutes(50), &happened(events));
    let with = |more: &[(BoilEvent, i64)]| clock(&[&early[..], more].concat());
    assert!(with(&[]).ended_short(at(41)) && !with(&[]).is_processed(at(41)));
    assert!(with(&[(Lifted, 46)]).ended_short(at(500)), "lifting does not make it processed");
    let again = with(&[(HeatAgain, 42)]);
    assert_eq!(again.phase(at(43)), Phase::Heating { since: at(42) });
    assert!(!again.ended_short(at(43)));
    let boiled = with(&[(HeatAgain, 42), (Boils, 50), (HeatOff, 100)]);
    assert!(boiled.is_processed(at(100)) && !boiled.ended_short(at(100)));
    assert_eq!((boiled.times_lost(), boiled.unbroken_ms(at(100))), (0, 50 * 60_000));
    let short_again = with(&[(HeatAgain, 42), (Boils, 50), (HeatOff, 99)]);
    assert!(short_again.ended_short(at(99)));
    // It can be said as long as the jars are not processed, and not after.
    assert!(with(&[]).after(HeatAgain, None, at(41)).is_ok());
    assert!(boiled.after(HeatAgain, None, at(101)).is_err());
    let pressed = [(JarsIn, 0), (BoilEvent::Vents, 5), (Boils, 15), (HeatOff, 20)];
    let dropping = BoilClock::replay(Method::PressureDial, Minutes(20), &happened(&pressed));
    assert_eq!(dropping.phase(at(21)), Phase::Dropping { since: at(20) });
    let heated = dropping.after(HeatAgain, None, at(22)).unwrap();
    assert_eq!(heated.phase(at(22)), Phase::Heating { since: at(22) });
}

#[test]
fn a_boil_that_falls_after_its_full_time_is_full_and_counts_no_minute_more() {
    use BoilEvent::{BoilLost, Boils, HeatOff, JarsIn};
    let clock = |lost: i64, required: u32| {
        let events = [(JarsIn, 0), (Boils, 10), (BoilLost, lost)];
        BoilClock::replay(Method::BoilingWater, Minutes(required), &happened(&events))
    };
    let full = clock(60, 50);
    assert_eq!(full.phase(at(80)), Phase::TimeUp { at: at(60) });
    assert!(full.is_processed(at(80)));
    assert_eq!((full.unbroken_ms(at(80)), full.times_lost()), (50 * 60_000, 0));
    assert_eq!(
        full.after(HeatOff, None, at(80)).unwrap().phase(at(80)),
        Phase::Resting { since: at(80), ends: at(85) }
    );
    assert_eq!(clock(59, 50).phase(at(80)), Phase::BoilLost { at: at(59) });
    // A time that is corrected later is held against the same boil.
    assert_eq!(full.retimed(Minutes(55)).phase(at(80)), Phase::BoilLost { at: at(60) });
}

#[test]
fn raising_the_pounds_starts_the_time_again() {
    use BoilEvent::{Boils, JarsIn, PoundsRaised, Vents};
    let events = [(JarsIn, 0), (Vents, 5), (Boils, 15)];
    let counting = BoilClock::replay(Method::PressureDial, Minutes(20), &happened(&events));
    assert!(counting.counts_at_pressure());
    let raised = [&events[..], &[(PoundsRaised, 25), (Boils, 27)]].concat();
    let raised = BoilClock::replay(Method::PressureDial, Minutes(15), &happened(&raised));
    assert_eq!(raised.phase(at(28)), Phase::Counting { since: at(27), ends: at(42) });
    let water = BoilClock::replay(Method::BoilingWater, Minutes(20), &happened(&[(JarsIn, 0), (Boils, 1)]));
    assert!(!water.counts_at_pressure());
}
