//! The published process tables, parsed from `data/process_times.csv` and `data/pressure_times.csv`.

use serde::Deserialize;

use crate::jars::size::JarSize;
use crate::kitchen::altitude::Altitude;
use crate::measures::moment::Minutes;
use crate::published::reader::{TableError, rows};
use crate::published::source::Source;
use crate::tables::process::{Medium, Method, Pack, Product};

const WATER_FILE: &str = "process_times.csv";
const PRESSURE_FILE: &str = "pressure_times.csv";

/// Both tables.
#[derive(Debug)]
pub struct Tables {
    /// Boiling-water times.
    pub water: Vec<WaterRow>,
    /// Pressure times.
    pub pressure: Vec<PressureRow>,
}

/// One row of the boiling-water table.
#[derive(Debug, Clone, PartialEq)]
pub struct WaterRow {
    /// What is in the jar.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// The jar the row was tested in.
    pub jar: JarSize,
    /// Minutes in the four altitude bands, lowest first.
    pub minutes: [Minutes; 4],
    /// Where the row comes from.
    pub source: Source,
}

/// Kind of pressure gauge.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Gauge {
    /// Dial: any pressure can be read.
    Dial,
    /// Weighted: 5, 10 or 15 psi.
    Weighted,
}

impl Gauge {
    /// The gauge a method uses; `None` without pressure.
    #[must_use]
    pub const fn of(method: Method) -> Option<Self> {
        match method {
            Method::PressureDial => Some(Self::Dial),
            Method::PressureWeighted => Some(Self::Weighted),
            Method::BoilingWater | Method::AtmosphericSteam => None,
        }
    }

    /// Upper edges of the columns in feet, lowest first, and whether the last is followed by one that is open.
    #[must_use]
    pub const fn edges(self) -> (&'static [f64], bool) {
        match self {
            Self::Dial => (&[2000.0, 4000.0, 6000.0, 8000.0], false),
            Self::Weighted => (&[1000.0], true),
        }
    }

    /// Column of the pressure table at an altitude; `None` where the table ends.
    ///
    /// Dial: to 2,000, 4,000, 6,000 and 8,000 ft. Weighted: to 1,000 ft and above. Source: USDA Guide 3, from memory.
    #[must_use]
    pub fn column(self, altitude: Altitude) -> Option<usize> {
        if !altitude.is_tested() {
            return None;
        }
        let (edges, is_open) = self.edges();
        edges.iter().position(|edge| altitude.is_at_most(*edge)).or(is_open.then_some(edges.len()))
    }
}

/// One row of the pressure table; pints and quarts alike.
#[derive(Debug, Clone, PartialEq)]
pub struct PressureRow {
    /// Which gauge.
    pub gauge: Gauge,
    /// Products the row covers.
    pub products: Vec<Product>,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Packs the row covers.
    pub packs: Vec<Pack>,
    /// Minutes at pressure.
    pub minutes: Minutes,
    /// Pressure by altitude column; `None` where it is not recommended.
    pub psi: [Option<u32>; 4],
}

#[derive(Debug, Deserialize)]
struct RawWater {
    method: Method,
    product: Product,
    medium: Option<Medium>,
    pack: Pack,
    jar: JarSize,
    min_0_1000: u32,
    min_1001_3000: u32,
    min_3001_6000: u32,
    min_over_6000: u32,
    source: String,
}

#[derive(Debug, Deserialize)]
struct RawPressure {
    gauge: Gauge,
    product: String,
    medium: Option<Medium>,
    pack: String,
    minutes: u32,
    psi_a: Option<u32>,
    psi_b: Option<u32>,
    psi_c: Option<u32>,
    psi_d: Option<u32>,
}

impl WaterRow {
    /// Whether the row is for this product, medium and pack.
    #[must_use]
    pub fn matches(&self, product: Product, medium: Option<Medium>, pack: Pack) -> bool {
        self.product == product && self.medium == medium && self.pack == pack
    }

    fn parse(raw: RawWater) -> Result<Self, TableError> {
        let minutes = [raw.min_0_1000, raw.min_1001_3000, raw.min_3001_6000, raw.min_over_6000].map(Minutes);
        let broken = |reason: &str| {
            TableError::new(WATER_FILE, format!("{} {} {}: {reason}", raw.product, raw.pack, raw.jar))
        };
        if raw.method != Method::BoilingWater {
            return Err(broken("only boiling-water rows belong here"));
        }
        if !minutes.is_sorted() || minutes[0] < Minutes(30) || minutes[3] > Minutes(120) {
            return Err(broken("minutes must rise with altitude, within 30 to 120"));
        }
        super::check_medium(raw.product, raw.medium).map_err(|error| broken(&error.to_string()))?;
        let source = match raw.source.split_whitespace().next() {
            Some("USDA") => Source::usda_guide_3(),
            Some("NCHFP") => Source::nchfp(),
            _ => return Err(broken("it names no known source")),
        };
        Ok(Self { product: raw.product, medium: raw.medium, pack: raw.pack, jar: raw.jar, minutes, source })
    }
}

impl PressureRow {
    /// Whether the row covers this product, medium and pack.
    #[must_use]
    pub fn matches(&self, product: Product, medium: Option<Medium>, pack: Pack) -> bool {
        self.products.contains(&product) && self.medium == medium && self.packs.contains(&pack)
    }

    fn parse(raw: RawPressure) -> Result<Self, TableError> {
        let broken = |reason: String| TableError::new(PRESSURE_FILE, reason);
        let products = words(&raw.product)
            .map_err(|error: crate::measures::vocabulary::UnknownWord| broken(error.to_string()))?;
        let packs = words(&raw.pack)
            .map_err(|error: crate::measures::vocabulary::UnknownWord| broken(error.to_string()))?;
        let psi = [raw.psi_a, raw.psi_b, raw.psi_c, raw.psi_d];
        if !psi.iter().flatten().is_sorted() || psi.iter().flatten().any(|psi| !(5..=15).contains(psi)) {
            return Err(broken(format!(
                "{}: pressures must rise with altitude, within 5 to 15 psi",
                raw.product
            )));
        }
        for product in &products {
            super::check_medium(*product, raw.medium).map_err(|error| broken(error.to_string()))?;
        }
        Ok(Self { gauge: raw.gauge, products, medium: raw.medium, packs, minutes: Minutes(raw.minutes), psi })
    }
}

fn words<T: std::str::FromStr>(list: &str) -> Result<Vec<T>, T::Err> {
    list.split(';').map(str::parse).collect()
}

impl Tables {
    /// Parses and checks both tables.
    ///
    /// # Errors
    /// Names the table and what is wrong with it.
    pub fn parse() -> Result<Self, TableError> {
        let water = rows::<RawWater>(WATER_FILE, include_str!("../../../data/process_times.csv"))?
            .into_iter()
            .map(WaterRow::parse)
            .collect::<Result<Vec<_>, _>>()?;
        let pressure = rows::<RawPressure>(PRESSURE_FILE, include_str!("../../../data/pressure_times.csv"))?
            .into_iter()
            .map(PressureRow::parse)
            .collect::<Result<Vec<_>, _>>()?;
        for (index, row) in water.iter().enumerate() {
            let twin =
                |other: &WaterRow| other.matches(row.product, row.medium, row.pack) && other.jar == row.jar;
            if water.iter().skip(index + 1).any(twin) {
                return Err(TableError::new(WATER_FILE, format!("{} {} stands twice", row.product, row.jar)));
            }
        }
        Ok(Self { water, pressure })
    }

    /// Whether anything was tested for this product, medium, pack and method, in whatever jar.
    #[must_use]
    pub fn covers_pack(&self, product: Product, medium: Option<Medium>, pack: Pack, method: Method) -> bool {
        match Gauge::of(method) {
            None => self.water.iter().any(|row| row.matches(product, medium, pack)),
            Some(gauge) => {
                self.pressure.iter().any(|row| row.gauge == gauge && row.matches(product, medium, pack))
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::PressureRow;
    use super::{Gauge, RawPressure, RawWater, WaterRow};
    use crate::jars::size::JarSize;
    use crate::tables::process::{Medium, Method, Pack, Product};

    fn water(minutes: [u32; 4]) -> RawWater {
        let [min_0_1000, min_1001_3000, min_3001_6000, min_over_6000] = minutes;
        RawWater {
            method: Method::BoilingWater,
            product: Product::Whole,
            medium: Some(Medium::Water),
            pack: Pack::Raw,
            jar: JarSize::Quart,
            min_0_1000,
            min_1001_3000,
            min_3001_6000,
            min_over_6000,
            source: "USDA Guide 3".to_owned(),
        }
    }

    fn wrong(row: RawWater) -> String {
        WaterRow::parse(row).unwrap_err().to_string()
    }

    #[test]
    fn a_row_of_minutes_rises_with_altitude_between_half_an_hour_and_two() {
        for good in [[30, 30, 30, 30], [45, 50, 55, 60], [85, 90, 95, 120]] {
            assert!(WaterRow::parse(water(good)).is_ok(), "{good:?}");
        }
        for bad in
            [[29, 50, 55, 60], [45, 50, 55, 121], [45, 40, 55, 60], [45, 50, 55, 54], [10, 20, 30, 130]]
        {
            assert!(
                wrong(water(bad)).contains("minutes must rise with altitude, within 30 to 120"),
                "{bad:?}"
            );
        }
    }

    #[test]
    fn a_row_belongs_to_boiling_water_and_to_a_known_source() {
        let good = || water([45, 50, 55, 60]);
        let text = wrong(RawWater { method: Method::PressureDial, ..good() });
        assert!(text.contains("only boiling-water rows belong here"), "{text}");
        let text = wrong(RawWater { source: "a cousin".to_owned(), ..good() });
        assert!(text.contains("names no known source"), "{text}");
        assert!(wrong(RawWater { source: String::new(), ..good() }).contains("no known source"));
        let text = wrong(RawWater { medium: None, ..good() });
        assert!(text.contains("whole raw pack quart") || text.contains("medium"), "{text}");
        assert!(WaterRow::parse(RawWater { source: "NCHFP 2020".to_owned(), ..good() }).is_ok());
    }

    #[test]
    fn a_row_of_pressures_rises_between_five_and_fifteen() {
        let row = |psi: [Option<u32>; 4], product: &str| {
            let [psi_a, psi_b, psi_c, psi_d] = psi;
            PressureRow::parse(RawPressure {
                gauge: Gauge::Dial,
                product: product.to_owned(),
                medium: None,
                pack: "hot".to_owned(),
                minutes: 20,
                psi_a,
                psi_b,
                psi_c,
                psi_d,
            })
        };
        let some = |psi: [u32; 4]| psi.map(Some);
        assert!(row(some([5, 7, 8, 15]), "crushed;juice").is_ok());
        assert!(row([Some(6), None, None, None], "crushed").is_ok());
        for bad in [[4, 7, 8, 9], [6, 7, 8, 16], [7, 6, 8, 9]] {
            assert!(
                row(some(bad), "crushed").unwrap_err().to_string().contains("within 5 to 15 psi"),
                "{bad:?}"
            );
        }
        assert!(row(some([6, 7, 8, 9]), "jam").unwrap_err().to_string().contains("jam"));
        assert!(row(some([6, 7, 8, 9]), "whole").unwrap_err().to_string().contains("medium"));
    }
}
