//! A disk that is full: said in words, on every screen, until it is over.

use std::path::Path;
use std::process::Command;
use std::time::Duration;

use serde_json::json;

use crate::common::{PROGRAM, Running};

/// The program on a disk of 1.5 MB of its own that nobody else sees; `None` where this machine does not let us make one.
fn on_a_small_disk(folder: &Path) -> Option<Running> {
    let may = |ways: &[&str]| {
        Command::new("unshare").args(ways).arg("true").status().is_ok_and(|done| done.success())
    };
    let ways: &[&str] = [["-m"].as_slice(), &["-r", "-m"]].into_iter().find(|ways| may(ways))?;
    let mut command = Command::new("unshare");
    // The other side of the disk: what the test writes to fill it goes through the program's own namespace.
    let script = "mount -t tmpfs -o size=1536k,mode=700 tmpfs \"$1\" && exec \"$2\" serve --data \"$1/kitchen\" --port 0";
    command.args(ways).args(["sh", "-c", script, "sh"]).arg(folder).arg(PROGRAM);
    Some(Running::of(command))
}

#[test]
fn a_full_disk_is_said_in_words_loses_nothing_and_is_over_when_there_is_room() {
    let folder = tempfile::tempdir().unwrap();
    let Some(running) = on_a_small_disk(folder.path()) else {
        eprintln!("this machine lets nobody mount a disk of their own; the test needs one");
        return;
    };
    let mut kept = 0;
    let refused = loop {
        let (status, answer) = running.weigh_in(22);
        if status != 201 {
            break (status, answer);
        }
        kept += 1;
        assert!(kept < 20_000, "the disk does not fill");
    };
    assert_eq!((refused.0, &refused.1["code"]), (507, &json!("disk_full")), "{}", refused.1);
    assert!(refused.1["detail"].as_str().unwrap().contains("Make room"), "{}", refused.1);
    assert_eq!(running.lots(), kept, "what was acknowledged is there, and nothing else");
    let troubles = running.ask("GET", "/api/counter", None).1["troubles"].clone();
    assert!(troubles[0].as_str().unwrap().starts_with("The disk is full"), "{troubles}");
    // The disk is seen through the program's own view of it.
    let room = format!("/proc/{}/root{}/kitchen/backups", running.id(), folder.path().display());
    for file in std::fs::read_dir(&room).unwrap() {
        std::fs::remove_file(file.unwrap().path()).unwrap();
    }
    let over = (0..100).any(|_| {
        std::thread::sleep(Duration::from_millis(100));
        running.ask("GET", "/api/counter", None).1["troubles"].as_array().unwrap().is_empty()
    });
    assert!(over, "{}", running.ask("GET", "/api/counter", None).1["troubles"]);
    assert_eq!(running.weigh_in(22).0, 201);
}

#[test]
fn a_daily_backup_that_fails_stands_on_every_screen() {
    let folder = tempfile::tempdir().unwrap();
    // Something else has the name that the backups need.
    std::fs::write(folder.path().join("backups"), "a shopping list").unwrap();
    let running = Running::serve(folder.path(), &[]);
    let said = (0..100).find_map(|_| {
        std::thread::sleep(Duration::from_millis(100));
        let troubles = running.ask("GET", "/api/counter", None).1["troubles"].clone();
        troubles[0].as_str().map(str::to_owned)
    });
    let said = said.expect("nothing was said");
    assert!(said.starts_with("Today's backup could not be made: "), "{said}");
    assert_eq!(running.weigh_in(22).0, 201, "the kitchen goes on");
}
