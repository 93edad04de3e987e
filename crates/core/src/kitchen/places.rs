//! How high a place lies, from airfields nearby: a first answer where nobody knows the altitude.
//!
//! An airfield is flat ground near a town, not the kitchen on the hill above it; the answer says how far away it is and
//! whether its neighbours fall into another band.

use std::io::Read;
use std::sync::LazyLock;

use bodega_model::kitchen::altitude::Altitude;
use bodega_model::published::reader::{TableError, rows};
use flate2::read::GzDecoder;
use serde::Deserialize;
use uom::si::angle::degree;
use uom::si::f64::{Angle, Length};
use uom::si::length::kilometer;

/// Mean radius of the earth in kilometres (IUGG).
const EARTH_KM: f64 = 6371.0088;

#[derive(Debug, Deserialize)]
struct Row {
    town: String,
    region: String,
    country: String,
    name: String,
    elevation_ft: f64,
    lat: f64,
    lon: f64,
}

/// A point on the map.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Position {
    /// Degrees north.
    pub lat: Angle,
    /// Degrees east.
    pub lon: Angle,
}

impl Position {
    /// From degrees north and east.
    #[must_use]
    pub fn degrees(lat: f64, lon: f64) -> Self {
        Self { lat: Angle::new::<degree>(lat), lon: Angle::new::<degree>(lon) }
    }

    /// Great-circle distance, by the haversine formula.
    #[must_use]
    pub fn distance(self, other: Self) -> Length {
        let half = |a: Angle, b: Angle| ((b - a) / 2.0).sin().value.powi(2);
        let chord = half(self.lat, other.lat)
            + self.lat.cos().value * other.lat.cos().value * half(self.lon, other.lon);
        Length::new::<kilometer>(2.0 * EARTH_KM * chord.sqrt().min(1.0).asin())
    }
}

/// An airfield with the town it belongs to.
#[derive(Debug, Clone, PartialEq)]
pub struct Airfield {
    /// Town.
    pub town: String,
    /// State or province.
    pub region: String,
    /// Country, two letters.
    pub country: String,
    /// Name of the airfield.
    pub name: String,
    /// Its elevation.
    pub altitude: Altitude,
    /// Where it lies.
    pub position: Position,
    /// Town in plain small letters, for finding it.
    key: String,
}

impl Airfield {
    /// The town as a person writes it: `Town, Region, CC`.
    #[must_use]
    pub fn place(&self) -> String {
        [&self.town, &self.region, &self.country]
            .into_iter()
            .filter(|part| !part.is_empty())
            .map(String::as_str)
            .collect::<Vec<_>>()
            .join(", ")
    }
}

/// `data/airfields.csv`, packed when the program is built.
const PACKED: &[u8] = include_bytes!(concat!(env!("OUT_DIR"), "/airfields.csv.gz"));

/// The one large table: it takes several megabytes, so it is read when a place is first looked for.
static AIRFIELDS: LazyLock<Vec<Airfield>> =
    LazyLock::new(|| parse_airfields().expect("a test parses the table, which is part of the program"));

fn parse_airfields() -> Result<Vec<Airfield>, TableError> {
    const FILE: &str = "airfields.csv";
    let mut text = String::new();
    GzDecoder::new(PACKED).read_to_string(&mut text).map_err(|error| TableError::new(FILE, error))?;
    rows::<Row>(FILE, &text)?
        .into_iter()
        .map(|row| {
            let altitude = Altitude::from_feet(row.elevation_ft)
                .map_err(|error| TableError::new(FILE, format!("{}: {error}", row.name)))?;
            Ok(Airfield {
                key: plain(&row.town),
                town: row.town,
                region: row.region,
                country: row.country,
                name: row.name,
                altitude,
                position: Position::degrees(row.lat, row.lon),
            })
        })
        .collect()
}

/// Small letters without accents, so that a phone's keyboard finds every town.
fn plain(text: &str) -> String {
    deunicode::deunicode(text).to_lowercase()
}

/// Towns whose name begins with, or holds, what was typed; one airfield for each, best match first.
#[must_use]
pub fn towns(typed: &str, most: usize) -> Vec<&'static Airfield> {
    let wanted = plain(typed.trim());
    // "Town, Region" narrows the search.
    let (town, rest) =
        wanted.split_once(',').map_or((wanted.as_str(), ""), |(town, rest)| (town.trim(), rest.trim()));
    if town.is_empty() {
        return Vec::new();
    }
    let mut found: Vec<(u8, &Airfield)> = AIRFIELDS
        .iter()
        .filter(|field| plain(&field.region).starts_with(rest) || field.country.eq_ignore_ascii_case(rest))
        .filter_map(|field| {
            let rank = if field.key == town {
                0
            } else if field.key.starts_with(town) {
                1
            } else if field.key.contains(town) {
                2
            } else {
                return None;
            };
            Some((rank, field))
        })
        .collect();
    found.sort_by(|a, b| {
        (a.0, &a.1.key, &a.1.country, &a.1.region).cmp(&(b.0, &b.1.key, &b.1.country, &b.1.region))
    });
    found.dedup_by(|a, b| a.1.place() == b.1.place());
    found.into_iter().map(|(_, field)| field).take(most).collect()
}

/// The nearest airfields with their distance, nearest first.
#[must_use]
pub fn nearest(from: Position, most: usize) -> Vec<(Length, &'static Airfield)> {
    let mut found: Vec<(Length, &Airfield)> =
        AIRFIELDS.iter().map(|field| (from.distance(field.position), field)).collect();
    found.sort_by(|a, b| a.0.value.total_cmp(&b.0.value));
    found.truncate(most);
    found
}

#[cfg(test)]
mod tests {
    use uom::si::length::kilometer;

    use super::{Position, nearest, towns};

    #[test]
    fn distance_follows_the_great_circle() {
        // One minute of arc is a nautical mile, 1.852 km (its definition, rounded).
        let minute = Position::degrees(0.0, 0.0).distance(Position::degrees(0.0, 1.0 / 60.0));
        assert!((minute.get::<kilometer>() - 1.852).abs() < 0.003);
        let pole = Position::degrees(90.0, 12.0).distance(Position::degrees(-90.0, 100.0));
        assert!((pole.get::<kilometer>() - 20_015.0).abs() < 1.0, "half way round");
    }

    #[test]
    fn high_towns_are_found_high() {
        // Elevations of the towns, common knowledge: Leadville, Colorado 10,150 ft; Denver 5,280 ft; La Paz 12,000 ft.
        for (typed, low, high) in [
            ("leadville, colorado", 9_500.0, 10_500.0),
            ("Denver, Colorado", 5_000.0, 5_900.0),
            ("la paz, BO", 10_000.0, 13_500.0),
        ] {
            let town = towns(typed, 1)[0];
            assert!((low..high).contains(&town.altitude.feet()), "{typed} at {} ft", town.altitude.feet());
            assert!(nearest(town.position, 3)[0].0.get::<kilometer>() < 1.0, "it is nearest to itself");
        }
    }

    #[test]
    fn accents_do_not_hide_a_town_and_nonsense_finds_nothing() {
        assert_eq!(towns("zurich", 1)[0].country, "CH");
        assert!(towns("  ", 5).is_empty());
        assert!(towns("qqqxyz", 5).is_empty());
    }
}
