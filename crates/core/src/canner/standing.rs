//! Where jars stand in a canner, seen from above: whether they stand at all, and its picture.
//!
//! Jars of one size in a round pot are counted by the best known packings. Any other mix is searched for: from many starts
//! the jars are pushed apart until none overlaps. A place that is found is kept to; one that is not found is called no
//! place, so that the answer errs towards fewer jars.

use std::collections::HashMap;
use std::sync::{LazyLock, Mutex, PoisonError};

use bodega_model::canner::outline::{Outline, Outsides};
use bodega_model::jars::size::JarSize;
use bodega_model::measures::units::Length;
use bodega_model::published::reader::{TableError, rows};
use serde::Deserialize;
use uom::si::length::millimeter;

#[derive(Debug, Clone, Copy, Deserialize)]
pub(crate) struct PackingRow {
    n: u32,
    ratio: f64,
}

static PACKING: LazyLock<Vec<PackingRow>> =
    LazyLock::new(|| parse_packing().expect("check_tables() is called at start and a test parses the table"));

pub(crate) fn parse_packing() -> Result<Vec<PackingRow>, TableError> {
    const FILE: &str = "circle_packing.csv";
    let table: Vec<PackingRow> = rows(FILE, include_str!("../../data/circle_packing.csv"))?;
    if !table.iter().map(|row| row.n).eq(1..=u32::try_from(table.len()).unwrap_or(u32::MAX)) {
        return Err(TableError::new(FILE, "counts must run 1, 2, 3 and on"));
    }
    if !table.is_sorted_by(|a, b| a.ratio <= b.ratio) {
        return Err(TableError::new(FILE, "more discs cannot need a smaller circle"));
    }
    Ok(table)
}

/// How many like jars stand side by side.
///
/// In a round pot by the best known packings of equal circles in a circle (from memory of the published tables); in an
/// oblong one as many as a place is found for. Never more than the table's last count, so very wide pots are answered
/// low.
#[must_use]
pub fn most_of(outline: Outline, jar: JarSize, outsides: &Outsides) -> u32 {
    // Packing ratios are published to three decimals; half of the last one is the table's own error.
    const RATIO_ERROR: f64 = 0.0005;
    if outline.is_round() {
        let ratio = (outline.width / outsides.of(jar).diameter).get::<uom::si::ratio::ratio>() + RATIO_ERROR;
        return PACKING.iter().take_while(|row| row.ratio <= ratio).last().map_or(0, |row| row.n);
    }
    let stands = |count: &u32| standing(outline, &vec![jar; *count as usize], outsides).is_some();
    (1..=PACKING.iter().map(|row| row.n).max().unwrap_or_default()).take_while(stands).last().unwrap_or(0)
}

/// Whether these jars stand side by side.
#[must_use]
pub fn holds(outline: Outline, jars: &[(JarSize, u32)], outsides: &Outsides) -> bool {
    let in_use: Vec<(JarSize, u32)> = jars.iter().copied().filter(|(_, count)| *count > 0).collect();
    match in_use[..] {
        [(jar, count)] if outline.is_round() => count <= most_of(outline, jar, outsides),
        _ => holds_mix(outline, &in_use, outsides),
    }
}

/// A place is looked for once for each mix, as long as the program runs: whoever groups jars asks for the same ones
/// again and again.
fn holds_mix(outline: Outline, jars: &[(JarSize, u32)], outsides: &Outsides) -> bool {
    let bits = |length: Length| length.value.to_bits();
    let wide = jars.iter().map(|(jar, count)| (bits(outsides.of(*jar).diameter), *count));
    let mix = Mix { pot: [bits(outline.width), bits(outline.length)], jars: wide.collect() };
    if let Some(known) = KNOWN.lock().unwrap_or_else(PoisonError::into_inner).get(&mix) {
        return *known;
    }
    let all: Vec<JarSize> = jars.iter().flat_map(|(jar, count)| vec![*jar; *count as usize]).collect();
    let held = standing(outline, &all, outsides).is_some();
    let mut known = KNOWN.lock().unwrap_or_else(PoisonError::into_inner);
    if known.len() >= MOST_KNOWN {
        known.clear();
    }
    known.insert(mix, held);
    held
}

/// A pot and jars in it, by their sizes.
#[derive(Debug, PartialEq, Eq, Hash)]
struct Mix {
    pot: [u64; 2],
    jars: Vec<(u64, u32)>,
}

/// Mixes that are remembered; each takes about a hundred bytes.
const MOST_KNOWN: usize = 20_000;
/// Whether jars of a mix stand in a pot. What was looked for once is the same ever after.
static KNOWN: LazyLock<Mutex<HashMap<Mix, bool>>> = LazyLock::new(Mutex::default);

/// A jar as it stands in the canner, seen from above: middle and radius in units of half the canner's inner width.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Place {
    /// To the right of the middle.
    pub x: f64,
    /// Below the middle.
    pub y: f64,
    /// Radius of the jar.
    pub r: f64,
}

/// Most jars that are looked for a place: more than any household canner takes, so that an answer comes at once.
const MOST_JARS: usize = 40;
/// Arrangements that are tried.
const STARTS: u32 = 16;
/// Rounds of pushing apart for each.
const ROUNDS: u32 = 250;
/// How far jars may be pressed into one another or the wall, in millimetres: less than a jar's size is known by.
const SLACK_MM: f64 = 0.3;
/// No mix of discs covers more of a round or oblong floor.
const MOST_COVERED: f64 = 0.95;

/// Where jars stand side by side; `None` when no place was found for all of them.
#[must_use]
pub fn standing(outline: Outline, jars: &[JarSize], outsides: &Outsides) -> Option<Vec<Place>> {
    let half_width = outline.width.get::<millimeter>() / 2.0;
    let radii: Vec<f64> =
        jars.iter().map(|jar| outsides.of(*jar).diameter.get::<millimeter>() / 2.0 / half_width).collect();
    // From the middle to where the rounded ends begin.
    let reach = (outline.length.get::<millimeter>() / 2.0 / half_width - 1.0).max(0.0);
    let floor = std::f64::consts::PI + 4.0 * reach;
    let covered: f64 = radii.iter().map(|r| std::f64::consts::PI * r * r).sum();
    let is_crowded = jars.len() > MOST_JARS || jars.len() > 1 && covered > floor * MOST_COVERED;
    if is_crowded || radii.iter().any(|r| *r > 1.0) {
        return None;
    }
    let slack = SLACK_MM / half_width;
    let mut chance = Chance(0x9E37_79B9_7F4A_7C15);
    (0..STARTS).find_map(|start| {
        let mut places = match start {
            0 if reach <= 0.0 => in_rings(&radii),
            0 => in_rows(&radii),
            _ => anywhere(&radii, reach, &mut chance),
        };
        (push_apart(&mut places, reach, slack) <= slack).then_some(places)
    })
}

/// Chance, the same one every time, so that an answer is the same every time (xorshift, Marsaglia 2003).
struct Chance(u64);

impl Chance {
    /// From -1 to 1.
    fn next(&mut self) -> f64 {
        self.0 ^= self.0 << 13;
        self.0 ^= self.0 >> 7;
        self.0 ^= self.0 << 17;
        #[allow(clippy::cast_precision_loss)] // 53 bits are what a double holds
        let share = (self.0 >> 11) as f64 / (1_u64 << 53) as f64;
        share * 2.0 - 1.0
    }
}

fn anywhere(radii: &[f64], reach: f64, chance: &mut Chance) -> Vec<Place> {
    radii.iter().map(|r| Place { x: chance.next() * (1.0 + reach), y: chance.next(), r: *r }).collect()
}

/// Jars in rows along an oblong pot.
fn in_rows(radii: &[f64]) -> Vec<Place> {
    let widest = radii.iter().copied().fold(f64::MIN_POSITIVE, f64::max);
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // a few rows
    let rows = ((1.0 / widest) as usize).clamp(1, radii.len().max(1));
    let columns = radii.len().div_ceil(rows);
    #[allow(clippy::cast_precision_loss)] // at most a few dozen jars
    let from_middle = |place: usize, of: usize| (2.0 * place as f64 + 1.0 - of as f64) * widest;
    let place = |(number, r): (usize, &f64)| Place {
        x: from_middle(number % columns, columns),
        y: from_middle(number / columns, rows),
        r: *r,
    };
    radii.iter().enumerate().map(place).collect()
}

/// Like jars in the rings of the best known packings.
fn in_rings(radii: &[f64]) -> Vec<Place> {
    let mut places = Vec::with_capacity(radii.len());
    let mut left = radii;
    for (count, reach) in rings(radii.len()) {
        let (ring, rest) = left.split_at(count.min(left.len()));
        left = rest;
        for (r, place) in ring.iter().zip(0_u32..) {
            #[allow(clippy::cast_precision_loss)] // at most a few dozen jars
            let turn = std::f64::consts::TAU * f64::from(place) / count as f64 - std::f64::consts::FRAC_PI_2;
            let from_middle = if reach {
                1.0 - r
            } else if count == 1 {
                0.0
            } else {
                ring_radius(count, *r)
            };
            places.push(Place { x: from_middle * turn.cos(), y: from_middle * turn.sin(), r: *r });
        }
    }
    places
}

/// Radius of the smallest ring on which so many like discs do not overlap.
fn ring_radius(count: usize, r: f64) -> f64 {
    #[allow(clippy::cast_precision_loss)] // at most a few dozen jars
    let half_turn = std::f64::consts::PI / count as f64;
    r / half_turn.sin()
}

/// Jars on each ring, outermost first, and whether it lies at the wall: the arrangement of the best known packings for
/// up to 19 discs, from memory of the published drawings.
fn rings(count: usize) -> Vec<(usize, bool)> {
    let inner: &[usize] = match count {
        0..=6 => &[],
        7..=9 => &[1],
        10 => &[2],
        11 | 12 => &[3],
        13 | 14 => &[4],
        15 | 16 => &[5],
        17..=19 => &[5, 1],
        _ => &[7, 2],
    };
    let outer = count - inner.iter().sum::<usize>();
    std::iter::once((outer, count > 1)).chain(inner.iter().map(|ring| (*ring, false))).collect()
}

/// Moves overlapping jars apart and back inside the wall, a little at a time, until none is further in another or in the
/// wall than `slack`; returns how far one still is.
fn push_apart(places: &mut [Place], reach: f64, slack: f64) -> f64 {
    let mut worst = f64::INFINITY;
    for _ in 0..ROUNDS {
        worst = 0.0;
        for a in 0..places.len() {
            for b in a + 1..places.len() {
                let (dx, dy) = (places[b].x - places[a].x, places[b].y - places[a].y);
                let apart = dx.hypot(dy).max(1e-9);
                let overlap = places[a].r + places[b].r - apart;
                if overlap > 0.0 {
                    worst = overlap.max(worst);
                    let (ux, uy) = (dx / apart * overlap / 2.0, dy / apart * overlap / 2.0);
                    (places[a].x, places[a].y) = (places[a].x - ux, places[a].y - uy);
                    (places[b].x, places[b].y) = (places[b].x + ux, places[b].y + uy);
                }
            }
        }
        for place in places.iter_mut() {
            // The nearest point of the line between the middles of the rounded ends.
            let near = place.x.clamp(-reach, reach);
            let out = (place.x - near).hypot(place.y);
            let most = 1.0 - place.r;
            if out > most {
                worst = (out - most).max(worst);
                let back = most / out;
                (place.x, place.y) = (near + (place.x - near) * back, place.y * back);
            }
        }
        if worst <= slack {
            break;
        }
    }
    worst
}
