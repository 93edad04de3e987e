use crate::canner::clock::BoilClock;
use crate::canner::events::{BoilEvent, Fate, Happened, Phase};
use crate::measures::ids::JarId;
use crate::measures::moment::{Minutes, Moment};
use crate::tables::process::Method;

const START: Moment = Moment(1_790_000_000_000);

fn at(minute: i64) -> Moment {
    START.plus_minutes(minute)
}

fn run(events: &[(BoilEvent, i64)]) -> BoilClock {
    let happened: Vec<Happened> =
        events.iter().map(|(event, minute)| Happened { event: *event, at: at(*minute), jar: None }).collect();
    BoilClock::replay(Method::BoilingWater, Minutes(50), &happened)
}

#[test]
fn clock_starts_at_the_boil_and_not_when_the_jars_go_in() {
    let clock = run(&[(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 22)]);
    assert_eq!(clock.phase(at(40)), Phase::Counting { since: at(22), ends: at(72) });
    assert!(!clock.is_processed(Moment(at(72).0 - 1)), "a millisecond early is early");
    assert!(clock.is_processed(at(72)));
    assert_eq!(clock.phase(at(72)), Phase::TimeUp { at: at(72) });
}

#[test]
fn lifting_counts_from_the_end_of_the_rest() {
    let off = [(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 20), (BoilEvent::HeatOff, 70)];
    assert_eq!(run(&off).lifting(), None);
    let out = run(&[off[0], off[1], off[2], (BoilEvent::Lifted, 83)]);
    // 5 min of rest, then 8 min to lift.
    assert_eq!(out.lifting(), Some(at(83).since(at(75))));
}

#[test]
fn lost_boil_starts_again_from_zero() {
    let clock = run(&[
        (BoilEvent::JarsIn, 0),
        (BoilEvent::Boils, 20),
        (BoilEvent::BoilLost, 69),
        (BoilEvent::Boils, 75),
    ]);
    assert_eq!(clock.phase(at(80)), Phase::Counting { since: at(75), ends: at(125) });
    assert!(!clock.is_processed(at(124)));
    assert!(clock.is_processed(at(125)));
    assert_eq!(clock.times_lost(), 1);
}

#[test]
fn heat_off_too_early_is_recorded_and_not_processed() {
    let clock = run(&[(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 49)]);
    assert!(!clock.is_processed(at(200)), "time after the heat is off does not count");
}

#[test]
fn rest_then_lifted() {
    let clock = run(&[(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50)]);
    assert_eq!(clock.phase(at(54)), Phase::Resting { since: at(50), ends: at(55) });
    assert_eq!(clock.phase(at(55)), Phase::Rested { at: at(55) });
    let done = clock.after(BoilEvent::Lifted, None, at(56)).unwrap();
    assert_eq!(done.phase(at(99)), Phase::Lifted { at: at(56) });
    assert!(done.is_processed(at(99)));
}

#[test]
fn events_out_of_order_are_refused_with_what_comes_next() {
    for (before, event, next) in [
        (vec![], BoilEvent::BoilLost, "\"Boil lost\" does not follow here; next comes \"Jars are in\""),
        (
            vec![(BoilEvent::JarsIn, 0)],
            BoilEvent::Lifted,
            "\"Jars are out\" does not follow here; next comes \"It boils\"",
        ),
        (
            vec![(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50), (BoilEvent::Lifted, 56)],
            BoilEvent::Boils,
            "\"It boils\" does not follow here; next comes nothing: this load is done",
        ),
    ] {
        let error = run(&before).after(event, None, at(60)).unwrap_err();
        assert_eq!(error.to_string(), next);
    }
}

#[test]
fn a_clock_set_back_cannot_lengthen_a_boil() {
    let clock = run(&[(BoilEvent::Boils, 30), (BoilEvent::BoilLost, 10), (BoilEvent::Boils, 12)]);
    assert_eq!(clock.unbroken_ms(at(40)), Minutes(10).ms(), "the second boil counts from minute 30");
}

#[test]
fn only_boiling_water_is_poured_in_without_starting_again() {
    let boiling = run(&[(BoilEvent::Boils, 0), (BoilEvent::ToppedUpBoiling, 20)]);
    assert_eq!(boiling.phase(at(30)), Phase::Counting { since: at(0), ends: at(50) });
    let cold = run(&[(BoilEvent::Boils, 0), (BoilEvent::ToppedUpCold, 20), (BoilEvent::Boils, 24)]);
    assert_eq!(cold.phase(at(30)), Phase::Counting { since: at(24), ends: at(74) });
    assert_eq!((boiling.times_lost(), cold.times_lost()), (0, 1));
    assert!(boiling.is_processed(at(50)) && !cold.is_processed(at(73)));
}

#[test]
fn a_jar_in_the_middle_starts_the_others_again_and_is_judged_by_its_own_time() {
    let clock = run(&[(BoilEvent::Boils, 0)]).after(BoilEvent::JarOut, Some(JarId(7)), at(36)).unwrap();
    assert_eq!(clock.phase(at(37)), Phase::BoilLost { at: at(36) });
    assert_eq!(clock.fate(JarId(7), Minutes(35)), Fate::OutInTime);
    assert_eq!(clock.fate(JarId(7), Minutes(40)), Fate::OutTooEarly);
    assert_eq!(clock.fate(JarId(8), Minutes(40)), Fate::Stayed);
    let broken = run(&[(BoilEvent::Boils, 0)]).after(BoilEvent::JarBroken, Some(JarId(3)), at(9)).unwrap();
    assert_eq!(broken.phase(at(10)), Phase::Counting { since: at(0), ends: at(50) });
    assert_eq!(broken.fate(JarId(3), Minutes(50)), Fate::Broken);
}

#[test]
fn a_pressure_canner_vents_ten_minutes_counts_at_pressure_and_drops_by_itself() {
    let mut clock = BoilClock::new(Method::PressureWeighted, Minutes(25));
    for (event, minute) in [(BoilEvent::JarsIn, 0), (BoilEvent::Vents, 12)] {
        clock = clock.after(event, None, at(minute)).unwrap();
    }
    let early = clock.after(BoilEvent::Boils, None, at(21)).unwrap_err();
    assert_eq!(
        early.to_string(),
        "\"Pressure is up\" does not follow here; next comes the full 10 minutes of venting, then the weight"
    );
    assert_eq!(clock.phase(at(22)), Phase::Vented { at: at(22) });
    for (event, minute) in
        [(BoilEvent::Boils, 26), (BoilEvent::BoilLost, 40), (BoilEvent::Boils, 44), (BoilEvent::HeatOff, 69)]
    {
        clock = clock.after(event, None, at(minute)).unwrap();
    }
    assert!(clock.is_processed(at(70)) && clock.times_lost() == 1);
    assert!(clock.after(BoilEvent::Lifted, None, at(90)).is_err(), "not before the pressure is down");
    assert!(clock.after(BoilEvent::ToppedUpBoiling, None, at(90)).is_err(), "a closed canner is not opened");
    clock = clock.after(BoilEvent::PressureDown, None, at(110)).unwrap();
    assert_eq!(clock.phase(at(115)), Phase::Resting { since: at(110), ends: at(120) });
}

#[test]
fn what_nobody_timed_counts_only_when_somebody_knows_that_it_held() {
    use BoilEvent::{BoilLost, Boils, HeatOff, HeldOn, JarsIn, Unwatched};
    let until_then = [(JarsIn, 0), (Boils, 20), (Unwatched, 200)];
    let off = run(&until_then);
    assert_eq!(off.phase(at(500)), Phase::Unwatched { since: at(20), at: at(200) });
    assert!(!off.is_processed(at(500)), "three hours by the wall are no boil");
    assert_eq!((off.unbroken_ms(at(500)), off.times_lost()), (0, 0));
    let then = |events: &[(BoilEvent, i64)]| run(&[&until_then, events].concat());
    // It held: the count goes on from where it began.
    let held = then(&[(HeldOn, 205)]);
    assert_eq!(held.phase(at(210)), Phase::TimeUp { at: at(70) });
    assert!(held.is_processed(at(210)));
    let short = run(&[(JarsIn, 0), (Boils, 20), (Unwatched, 40), (HeldOn, 41)]);
    assert_eq!(short.phase(at(45)), Phase::Counting { since: at(20), ends: at(70) });
    // It did not, or the heat was turned off unseen: the whole time again.
    let lost = then(&[(BoilLost, 205), (Boils, 215)]);
    assert_eq!(lost.phase(at(220)), Phase::Counting { since: at(215), ends: at(265) });
    let anew = then(&[(Boils, 215)]);
    assert_eq!(anew.unbroken_ms(at(220)), 5 * 60_000, "what was before does not count");
    let ended = then(&[(HeatOff, 205)]);
    assert!(ended.ended_short(at(300)) && !ended.is_processed(at(300)));
    assert!(off.after(BoilEvent::Lifted, None, at(210)).is_err(), "it is asked first");
    // Twice off is asked once.
    assert_eq!(then(&[(Unwatched, 300)]).phase(at(301)), Phase::Unwatched { since: at(20), at: at(200) });
    let vents = BoilClock::replay(
        Method::PressureDial,
        Minutes(20),
        &[(JarsIn, 0), (BoilEvent::Vents, 10), (Unwatched, 60)].map(|(event, minute)| Happened {
            event,
            at: at(minute),
            jar: None,
        }),
    );
    assert_eq!(vents.phase(at(61)), Phase::Heating { since: at(60) }, "it vents once more");
}
