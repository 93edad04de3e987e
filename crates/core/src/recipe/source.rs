//! Who printed a recipe: only a guide, an extension, a publisher or a maker tests what it prints.
//!
//! A web page, a video, a friend or family is no tested source, however good it is. Source: extension guidance on recipes for
//! canning, from memory.

use bodega_model::recipe::part::plain;
use bodega_model::recipe::source::SourceKind;
use bodega_model::recipe::words::Words;

/// The first year of books whose times were tested by today's rules: the guides were revised then. From memory.
const FIRST_YEAR: i32 = 1994;

/// Words that name a person and not a source.
const PEOPLE: [&str; 25] = [
    "mine",
    "my",
    "own",
    "ours",
    "grandmother",
    "grandmothers",
    "grandma",
    "grandmas",
    "granny",
    "grannys",
    "nana",
    "nanas",
    "mother",
    "mothers",
    "mum",
    "mums",
    "mom",
    "moms",
    "aunt",
    "aunts",
    "neighbour",
    "neighbours",
    "neighbor",
    "friend",
    "friends",
];
/// Words that name a post, a video or somebody's page.
const POSTS: [&str; 16] = [
    "post",
    "posts",
    "posted",
    "video",
    "videos",
    "channel",
    "blog",
    "blogs",
    "blogger",
    "vlog",
    "forum",
    "podcast",
    "thread",
    "screenshot",
    "self published",
    "influencer",
];
/// Words and marks that name a place on the net.
const SITES: [&str; 9] = ["site", "website", "web", "webpage", "online", "internet", "www", "http", "https"];

/// What a title gives itself away as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Gives {
    Person,
    Post,
    Site,
}

fn gives(title: &str) -> Option<Gives> {
    // "grandmother's" is one word.
    let words = Words::of(&plain(title).replace(['\'', '’'], ""));
    let is_address = plain(title).split_whitespace().any(|word| {
        let word = word.trim_end_matches(['.', ',', ';', ')']);
        word.split_once('.').is_some_and(|(before, after)| {
            before.len() > 1 && after.len() > 1 && after.starts_with(char::is_alphabetic)
        })
    });
    if words.has_any(&POSTS) {
        Some(Gives::Post)
    } else if words.has_any(&PEOPLE) {
        Some(Gives::Person)
    } else if is_address || words.has_any(&SITES) {
        Some(Gives::Site)
    } else {
        None
    }
}

/// The year that an edition speaks of; none when it speaks of none.
fn year(edition: &str) -> Option<i32> {
    let years = edition.split(|sign: char| !sign.is_ascii_digit()).filter(|digits| digits.len() == 4);
    years.filter_map(|digits| digits.parse().ok()).filter(|year| (1800..2200).contains(year)).max()
}

/// Whether it may become a recipe for jars at all, by who printed it.
#[must_use]
pub fn is_tested(kind: SourceKind, edition: &str) -> bool {
    match kind {
        SourceKind::Guide => true,
        SourceKind::Maker => year(edition).is_none_or(|year| year >= FIRST_YEAR),
        SourceKind::Other => false,
    }
}

/// What is still to be said of a source before it can be trusted, in the order of the page.
#[must_use]
pub fn open_questions(kind: Option<SourceKind>, (title, edition, page): (&str, &str, &str)) -> Vec<String> {
    let mut open = Vec::new();
    if kind.is_none() {
        open.push("Say who printed it.".to_owned());
    }
    let named = title.trim();
    match (kind, gives(title)) {
        _ if named.is_empty() => open.push("Say the title of the book or page it is printed in.".to_owned()),
        (_, Some(Gives::Person)) => {
            open.push(format!("\"{named}\" is a name, not a source: say where it is printed."));
        }
        (_, Some(Gives::Post)) => {
            open.push(format!(
                "\"{named}\" is a post or a video, not a printed source: say where it was printed first."
            ));
        }
        (Some(SourceKind::Maker), Some(Gives::Site)) => {
            open.push(format!(
                "\"{named}\" is a page on the net: say which book, packet or leaflet it is printed in."
            ));
        }
        _ => {}
    }
    if edition.trim().is_empty() {
        open.push("Say its edition or year.".to_owned());
    } else if kind == Some(SourceKind::Maker) && year(edition).is_none() {
        open.push(format!(
            "Say the year of \"{}\": books before {FIRST_YEAR} were not tested by today's rules.",
            edition.trim()
        ));
    }
    if page.trim().is_empty() {
        open.push("Say the page, or where it stands on the packet.".to_owned());
    }
    open
}
