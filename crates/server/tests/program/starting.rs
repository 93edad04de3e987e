//! Records that are whole, lost or another's when the program starts.

use std::io::{Read, Write};
use std::net::TcpStream;
use std::process::Command;
use std::time::{Duration, Instant};

use bodega_store::FILE_NAME;
use serde_json::json;

use crate::common::{PROGRAM, Running, bodega, said};

#[test]
fn a_second_program_on_the_same_records_is_refused_and_a_backup_is_not() {
    let folder = tempfile::tempdir().unwrap();
    let running = Running::serve(folder.path(), &[]);
    assert_eq!(running.weigh_in(22).0, 201);
    let (code, words) = said(bodega("serve", folder.path(), &[]));
    assert!(code == Some(1) && words.contains("another Bodega"), "{code:?} {words}");
    let file = folder.path().join("mine.db").display().to_string();
    assert_eq!(said(bodega("backup", folder.path(), &[&file])).0, Some(0));
    let (code, words) = said(bodega("backup", folder.path(), &[&file]));
    assert!(code == Some(1) && words.contains("--force"), "{code:?} {words}");
    assert_eq!(said(bodega("backup", folder.path(), &[&file, "--force"])).0, Some(0));
    let (code, words) = said(bodega("restore", folder.path(), &[&file]));
    assert!(code == Some(1) && words.contains("stop that one first"), "{code:?} {words}");
    assert_eq!(running.lots(), 1);
    drop(running);
    assert_eq!(said(bodega("restore", folder.path(), &[&file])).0, Some(0));
}

/// A folder with a backup of two lots, whose records are gone.
fn lost() -> tempfile::TempDir {
    let folder = tempfile::tempdir().unwrap();
    let running = Running::serve(folder.path(), &[]);
    running.weigh_in(22);
    running.weigh_in(30);
    drop(running);
    let backups = folder.path().join("backups");
    for file in std::fs::read_dir(&backups).unwrap() {
        std::fs::remove_file(file.unwrap().path()).unwrap();
    }
    let daily = backups.join("daily-2026-09-14.db").display().to_string();
    assert_eq!(said(bodega("backup", folder.path(), &[&daily])).0, Some(0));
    std::fs::remove_file(folder.path().join(FILE_NAME)).unwrap();
    folder
}

#[test]
fn lost_records_end_the_program_with_the_choice_in_words() {
    let folder = lost();
    let (code, words) = said(bodega("serve", folder.path(), &[]));
    assert_eq!(code, Some(1), "{words}");
    for part in ["are missing", "daily-2026-09-14.db", "bodega restore", "--new"] {
        assert!(words.contains(part), "{part}: {words}");
    }
    assert!(!folder.path().join(FILE_NAME).exists(), "nothing was begun");
    let anew = Running::serve(folder.path(), &["--new"]);
    assert_eq!(anew.lots(), 0);
}

#[test]
fn a_page_offers_the_choice_where_nobody_sees_the_words() {
    for (choice, lots) in [("backup", 2), ("new", 0)] {
        let folder = lost();
        let running = Running::serve(folder.path(), &["--rescue"]);
        let (status, page) = running.ask("GET", "/canner", None);
        let page = page.as_str().unwrap();
        assert!(
            status == 503 && page.contains("are missing") && page.contains("daily-2026-09-14.db"),
            "{page}"
        );
        let (status, problem) = running.weigh_in(10);
        assert_eq!((status, &problem["code"]), (503, &json!("not_open")));
        let (status, problem) = running.ask("POST", "/api/rescue", Some(&json!({"choice": "perhaps"})));
        assert_eq!((status, &problem["field"]), (422, &json!("choice")));
        assert_eq!(running.ask("POST", "/api/rescue", Some(&json!({"choice": choice}))).0, 204);
        let opened = (0..100).find(|_| {
            std::thread::sleep(std::time::Duration::from_millis(100));
            running.ask("GET", "/api/health", None).0 == 200
        });
        assert!(opened.is_some(), "{choice}: it did not open");
        assert_eq!(running.lots(), lots, "{choice}");
    }
}

/// Sockets that a process has open.
#[cfg(target_os = "linux")]
fn sockets(process: u32) -> usize {
    let files = std::fs::read_dir(format!("/proc/{process}/fd")).unwrap().filter_map(Result::ok);
    let links = files.filter_map(|file| std::fs::read_link(file.path()).ok());
    links.filter(|link| link.to_string_lossy().starts_with("socket:")).count()
}

#[cfg(target_os = "linux")]
#[test]
fn streams_of_pages_that_are_gone_are_let_go() {
    let folder = tempfile::tempdir().unwrap();
    let running = Running::serve(folder.path(), &[]);
    let host = running.address.trim_start_matches("http://").to_owned();
    let before = sockets(running.id());
    let open = || {
        let mut stream = TcpStream::connect(&host).unwrap();
        write!(stream, "GET /api/live HTTP/1.1\r\nHost: {host}\r\n\r\n").unwrap();
        let mut first = [0; 12];
        stream.read_exact(&mut first).unwrap();
        assert_eq!(&first, b"HTTP/1.1 200");
        stream
    };
    let pages: Vec<TcpStream> = (0..30).map(|_| open()).collect();
    assert!(sockets(running.id()) >= before + 30);
    drop(pages);
    let gone_at = Instant::now();
    while sockets(running.id()) > before + 2 {
        assert!(gone_at.elapsed() < Duration::from_secs(5), "{} stay", sockets(running.id()) - before);
        std::thread::sleep(Duration::from_millis(50));
    }
}

#[test]
fn records_of_a_newer_program_and_a_taken_port_have_words_of_their_own() {
    let folder = tempfile::tempdir().unwrap();
    drop(Running::serve(folder.path(), &[]));
    let raw = rusqlite::Connection::open(folder.path().join(FILE_NAME)).unwrap();
    raw.pragma_update(None, "user_version", 9_999).unwrap();
    drop(raw);
    for more in [[].as_slice(), &["--rescue"]] {
        let (code, words) = said(bodega("serve", folder.path(), more));
        assert!(code == Some(1) && words.contains("newer Bodega") && !words.contains("damaged"), "{words}");
    }
    let other = tempfile::tempdir().unwrap();
    let running = Running::serve(other.path(), &[]);
    let port = running.address.rsplit(':').next().unwrap().to_owned();
    let mut second = Command::new(PROGRAM);
    second.args(["serve", "--port", &port, "--data"]).arg(folder.path());
    let (code, words) = said(second);
    assert!(code == Some(1) && words.contains("is taken") && words.contains("--port"), "{words}");
}

#[test]
fn the_service_starts_what_this_program_understands() {
    let unit = include_str!("../../../../packaging/bodega.service");
    let line = unit.lines().find_map(|line| line.strip_prefix("ExecStart=/usr/bin/bodega ")).unwrap();
    let home = tempfile::tempdir().unwrap();
    let line = line.replace("%h", home.path().to_str().unwrap());
    let mut command = Command::new(PROGRAM);
    command.args(line.split_whitespace()).args(["--port", "0"]);
    let running = Running::of(command);
    assert_eq!(running.weigh_in(22).0, 201);
    assert!(home.path().join(".local/share/bodega").join(FILE_NAME).exists());
}
