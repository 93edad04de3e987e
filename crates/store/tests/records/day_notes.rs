//! What is said of the day's blocks, and what the jars tell of the household's pace.

use bodega_core::jars::bench::JarStep;
use bodega_model::crates::fruit::Condition;
use bodega_model::measures::ids::JarId;
use bodega_model::measures::moment::Minutes;
use bodega_model::records::batch::Draw;
use bodega_model::records::day::{BlockNote, Mark};
use bodega_store::Store;

use crate::common::{NOW, batch, lot, make_ready};

#[test]
fn a_block_begins_is_done_and_waits_again_and_keeps_its_slip() {
    let store = Store::in_memory().unwrap();
    let at = |minutes| NOW.plus_minutes(minutes);
    store.set_slip("a wash", 8, 10).unwrap();
    store.mark_block("a wash", 8, Mark::Begun, at(0)).unwrap();
    store.mark_block("a wash", 8, Mark::Done, at(20)).unwrap();
    let note = BlockNote {
        block: "a wash".to_owned(),
        slip: 10,
        usual: 8,
        began_at: Some(at(0)),
        ended_at: Some(at(20)),
    };
    assert_eq!(store.block_notes().unwrap().first(), Some(&note));
    // Begun again is going on with it: it began when it began.
    store.mark_block("a wash", 8, Mark::Begun, at(25)).unwrap();
    assert_eq!(store.block_notes().unwrap(), [BlockNote { ended_at: None, ..note.clone() }]);
    store.mark_block("a wash", 8, Mark::Waits, at(26)).unwrap();
    assert_eq!(store.block_notes().unwrap(), [BlockNote { began_at: None, ended_at: None, ..note }]);
    store.set_slip("a wash", 8, 0).unwrap();
    assert_eq!(store.block_notes().unwrap(), [], "nothing is said of it any more");
    store.mark_block("a peel", 30, Mark::Done, at(40)).unwrap();
    assert_eq!(store.block_notes().unwrap()[0].began_at, None, "nobody said when");
}

#[test]
fn filling_is_timed_from_the_first_acid_to_the_last_lid_of_whole_loads() {
    let store = Store::in_memory().unwrap();
    let lot = lot(&store, 4_000, Condition::FirmRipe);
    let batch = store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW).unwrap();
    let loads = store.batch_loads(batch.id).unwrap();
    let jars: Vec<JarId> = loads[0].jars.iter().map(|jar| jar.id).collect();
    for (jar, minute) in jars.iter().zip([0, 6]) {
        store.tick_jar(*jar, JarStep::Acid, true, NOW.plus_minutes(minute)).unwrap();
    }
    assert_eq!(store.filling_times().unwrap(), [], "not done yet");
    for (jar, minute) in jars.iter().zip([5, 13]) {
        store.tick_jar(*jar, JarStep::Lid, true, NOW.plus_minutes(minute)).unwrap();
    }
    make_ready(&store, loads[1].id, NOW.plus(Minutes(40)));
    assert_eq!(
        store.filling_times().unwrap(),
        [(2, NOW, NOW.plus_minutes(13)), (1, NOW.plus_minutes(40), NOW.plus_minutes(40))]
    );
}
