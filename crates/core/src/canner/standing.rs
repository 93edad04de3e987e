//! Where jars stand in a round canner, for its picture from above.

use super::pot::Outsides;
use crate::jars::size::JarSize;
use crate::measures::units::Length;

/// A jar as it stands in the canner, seen from above: middle and radius in units of the canner's inner radius.
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

/// Where jars stand in a canner. Like jars start in the rings of the best known packings; unlike ones are then pushed
/// apart until none overlaps, as far as they fit at all.
#[must_use]
pub fn standing(inner_diameter: Length, jars: &[JarSize], outsides: &Outsides) -> Vec<Place> {
    let radius = |jar: &JarSize| (outsides.of(*jar).diameter / inner_diameter).get::<uom::si::ratio::ratio>();
    let rings = rings(jars.len());
    let mut places = Vec::with_capacity(jars.len());
    let mut left = jars;
    for (count, reach) in rings {
        let (ring, rest) = left.split_at(count.min(left.len()));
        left = rest;
        for (jar, place) in ring.iter().zip(0_u32..) {
            #[allow(clippy::cast_precision_loss)] // at most a few dozen jars
            let turn = std::f64::consts::TAU * f64::from(place) / count as f64 - std::f64::consts::FRAC_PI_2;
            let r = radius(jar);
            let from_middle = if reach {
                1.0 - r
            } else if count == 1 {
                0.0
            } else {
                ring_radius(count, r)
            };
            places.push(Place { x: from_middle * turn.cos(), y: from_middle * turn.sin(), r });
        }
    }
    push_apart(&mut places);
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

/// Moves overlapping jars apart and back inside the wall, a little at a time.
fn push_apart(places: &mut [Place]) {
    const ROUNDS: u32 = 400;
    for _ in 0..ROUNDS {
        for a in 0..places.len() {
            for b in a + 1..places.len() {
                let (dx, dy) = (places[b].x - places[a].x, places[b].y - places[a].y);
                let apart = dx.hypot(dy).max(1e-9);
                let overlap = places[a].r + places[b].r - apart;
                if overlap > 0.0 {
                    let (ux, uy) = (dx / apart * overlap / 2.0, dy / apart * overlap / 2.0);
                    (places[a].x, places[a].y) = (places[a].x - ux, places[a].y - uy);
                    (places[b].x, places[b].y) = (places[b].x + ux, places[b].y + uy);
                }
            }
        }
        for place in places.iter_mut() {
            let out = place.x.hypot(place.y);
            if out > 1.0 - place.r {
                let back = (1.0 - place.r) / out;
                (place.x, place.y) = (place.x * back, place.y * back);
            }
        }
    }
}
