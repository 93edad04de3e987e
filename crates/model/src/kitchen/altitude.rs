//! How high the kitchen is, and what that does to boiling water and to the column of the table.

use uom::si::f64::TemperatureInterval;
use uom::si::length::{foot, meter};
use uom::si::pressure::{megapascal, pascal};
use uom::si::thermodynamic_temperature::{degree_celsius, kelvin};

use crate::kitchen::ways::HeightIn;
use crate::measures::limits::{ALTITUDE, OutOfRange};
use crate::measures::units::{Length, Pressure, Temperature};

/// Height above sea level, checked against [`ALTITUDE`]; feet as they were given, because the tables' edges are in feet and
/// 900 must come back as 900.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Altitude(f64);

/// Lowest altitude with an answer: 1,500 ft below sea level. Our limit; nothing is published for lower kitchens.
pub const LOWEST_TESTED_FT: f64 = -1500.0;
/// Highest altitude with an answer: 10,000 ft. Our limit; above it the local extension office has to say.
pub const HIGHEST_TESTED_FT: f64 = 10_000.0;

/// Column of the boiling-water table. Edges belong to the lower band: 1,000 ft is sea-level time.
/// Source: USDA Guide 3, from memory.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum WaterBand {
    /// Up to 1,000 ft.
    To1000,
    /// 1,001 to 3,000 ft.
    To3000,
    /// 3,001 to 6,000 ft.
    To6000,
    /// Above 6,000 ft.
    Above6000,
}

impl WaterBand {
    /// All bands with their upper edge in feet.
    pub const EDGES_FT: [(Self, f64); 4] = [
        (Self::To1000, 1000.0),
        (Self::To3000, 3000.0),
        (Self::To6000, 6000.0),
        (Self::Above6000, HIGHEST_TESTED_FT),
    ];

    /// Place of the band's column in the table, from 0.
    #[must_use]
    pub const fn column(self) -> usize {
        match self {
            Self::To1000 => 0,
            Self::To3000 => 1,
            Self::To6000 => 2,
            Self::Above6000 => 3,
        }
    }

    /// Every band in words, lowest first.
    #[must_use]
    pub fn labels(height: HeightIn) -> Vec<String> {
        // The last is open: its edge is where the tables end.
        let [edges @ .., _] = Self::EDGES_FT.map(|(_, edge)| edge);
        height.bands(&edges, true)
    }
}

impl Altitude {
    /// Where most tables begin.
    pub const SEA_LEVEL: Self = Self(0.0);
    /// A foot typed as a whole number must not fall over an edge by the last bit of its conversion to metres.
    const EDGE_SLACK_FT: f64 = 1e-6;

    /// An altitude in feet.
    ///
    /// # Errors
    /// [`OutOfRange`] outside dry land; kitchens on dry land but outside the tested range are refused by the lookup.
    pub fn from_feet(feet: f64) -> Result<Self, OutOfRange> {
        ALTITUDE.check(feet).map(Self)
    }

    /// The altitude in feet.
    #[must_use]
    pub const fn feet(self) -> f64 {
        self.0
    }

    /// Whether any tested process covers this altitude.
    #[must_use]
    pub fn is_tested(self) -> bool {
        self.feet() >= LOWEST_TESTED_FT - Self::EDGE_SLACK_FT && self.is_at_most(HIGHEST_TESTED_FT)
    }

    /// Whether it lies on or below the upper edge of a band, in feet.
    #[must_use]
    pub fn is_at_most(self, edge_ft: f64) -> bool {
        self.feet() <= edge_ft + Self::EDGE_SLACK_FT
    }

    /// The column of the boiling-water table, or `None` outside the tested range.
    #[must_use]
    pub fn water_band(self) -> Option<WaterBand> {
        self.is_tested()
            .then(|| WaterBand::EDGES_FT.into_iter().find(|(_, edge)| self.is_at_most(*edge)))
            .flatten()
            .map(|(band, _)| band)
    }

    /// Air pressure on a standard day.
    ///
    /// Source: US Standard Atmosphere 1976, troposphere: p = p0 (1 - L h / T0)^(g M / R L) with the 1976 constants, where
    /// h is the geopotential height of the altitude.
    #[must_use]
    pub fn pressure(self) -> Pressure {
        let geometric = Length::new::<foot>(self.0).get::<meter>();
        let geopotential = geometric * EARTH_RADIUS_M / (EARTH_RADIUS_M + geometric);
        Pressure::new::<pascal>(
            SEA_LEVEL_PA * (1.0 - LAPSE_K_PER_M * geopotential / SEA_LEVEL_K).powf(EXPONENT),
        )
    }

    /// What the boiling point means for the time, in words. The first band has the time of the sea.
    #[must_use]
    pub fn beside_the_sea(self) -> &'static str {
        match self.water_band() {
            None => "No tested time reaches this altitude.",
            Some(WaterBand::To1000) => "Near enough to the sea: the shortest column holds.",
            Some(_) => "Cooler than at the sea, so every jar boils longer.",
        }
    }

    /// Boiling point of water at this altitude on a standard day.
    #[must_use]
    pub fn boiling_point(self) -> Temperature {
        saturation_temperature(self.pressure())
    }
}

/// What the temperature of boiling water says about the altitude.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BoilTest {
    /// If the thermometer reads too low by its error.
    pub low: Altitude,
    /// If it reads right.
    pub expected: Altitude,
    /// If it reads too high by its error; the safe one to use.
    pub high: Altitude,
}

/// A boiling temperature that no kitchen on dry land reads.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
#[error(
    "water does not boil at {0:.1} °C in any kitchen; read it again in the rolling boil, off the bottom of the pot"
)]
pub struct NotBoiling(pub f64);

/// Altitude from the reading of a thermometer in boiling water, with the thermometer's error either way.
///
/// What is found is the altitude of the standard day with today's air pressure: bad weather makes it higher, and the
/// water does boil cooler then, so the higher band is the right one to use that day.
///
/// # Errors
/// [`NotBoiling`] when the reading, or the reading with its error, lies outside dry land.
pub fn from_boil_test(reading: Temperature, error: TemperatureInterval) -> Result<BoilTest, NotBoiling> {
    let boils_at = |temperature: Temperature| {
        let not_boiling = NotBoiling(reading.get::<degree_celsius>());
        let feet = pressure_altitude(saturation_pressure(temperature)).get::<foot>();
        Altitude::from_feet(feet).map_err(|_| not_boiling)
    };
    Ok(BoilTest {
        low: boils_at(reading + error)?,
        expected: boils_at(reading)?,
        high: boils_at(reading - error)?,
    })
}

/// Height at which a standard day has this air pressure; the inverse of [`Altitude::pressure`].
fn pressure_altitude(pressure: Pressure) -> Length {
    let ratio = pressure.get::<pascal>() / SEA_LEVEL_PA;
    let geopotential = SEA_LEVEL_K / LAPSE_K_PER_M * (1.0 - ratio.powf(1.0 / EXPONENT));
    Length::new::<meter>(geopotential * EARTH_RADIUS_M / (EARTH_RADIUS_M - geopotential))
}

/// Sea-level pressure of the 1976 atmosphere.
const SEA_LEVEL_PA: f64 = 101_325.0;
/// Effective earth radius of the 1976 atmosphere.
const EARTH_RADIUS_M: f64 = 6_356_766.0;
/// Temperature lapse of the 1976 troposphere.
const LAPSE_K_PER_M: f64 = 0.0065;
/// Sea-level temperature of the 1976 atmosphere.
const SEA_LEVEL_K: f64 = 288.15;
/// g0 M / (R L) = 9.80665 * 0.0289644 / (8.31432 * 0.0065).
const EXPONENT: f64 = 9.806_65 * 0.028_964_4 / (8.314_32 * LAPSE_K_PER_M);

/// Coefficients of the saturation line, IAPWS-IF97 region 4; from memory, held by a test against an independently
/// computed table.
const N: [f64; 10] = [
    0.116_705_214_527_67e4,
    -0.724_213_167_032_06e6,
    -0.170_738_469_400_92e2,
    0.120_208_247_024_70e5,
    -0.323_255_503_223_33e7,
    0.149_151_086_135_30e2,
    -0.482_326_573_615_91e4,
    0.405_113_405_420_57e6,
    -0.238_555_575_678_49,
    0.650_175_348_447_98e3,
];

/// Temperature at which water boils under a pressure. Source: IAPWS-IF97, region 4, backward equation (eq. 31).
#[must_use]
pub fn saturation_temperature(pressure: Pressure) -> Temperature {
    let beta = pressure.get::<megapascal>().powf(0.25);
    let e = beta * beta + N[2] * beta + N[5];
    let f = N[0] * beta * beta + N[3] * beta + N[6];
    let g = N[1] * beta * beta + N[4] * beta + N[7];
    let d = 2.0 * g / (-f - (f * f - 4.0 * e * g).sqrt());
    let sum = N[9] + d;
    Temperature::new::<kelvin>(0.5 * (sum - (sum * sum - 4.0 * (N[8] + N[9] * d)).sqrt()))
}

/// Pressure under which water boils at a temperature. Source: IAPWS-IF97, region 4, basic equation (eq. 30).
#[must_use]
pub fn saturation_pressure(temperature: Temperature) -> Pressure {
    let t = temperature.get::<kelvin>();
    let theta = t + N[8] / (t - N[9]);
    let a = theta * theta + N[0] * theta + N[1];
    let b = N[2] * theta * theta + N[3] * theta + N[4];
    let c = N[5] * theta * theta + N[6] * theta + N[7];
    Pressure::new::<megapascal>((2.0 * c / (-b + (b * b - 4.0 * a * c).sqrt())).powi(4))
}

#[cfg(test)]
mod tests {
    use uom::si::f64::TemperatureInterval;
    use uom::si::temperature_interval::degree_fahrenheit as fahrenheit_apart;
    use uom::si::thermodynamic_temperature::{degree_celsius, degree_fahrenheit};

    use super::{Altitude, NotBoiling, Temperature, WaterBand, from_boil_test};

    #[test]
    fn boil_test_turns_the_boiling_point_round() {
        for feet in [-1000.0, 0.0, 2640.0, 6000.0, 9900.0] {
            let boils = Altitude::from_feet(feet).unwrap().boiling_point();
            let found = from_boil_test(boils, TemperatureInterval::new::<fahrenheit_apart>(0.0)).unwrap();
            assert!(
                (found.expected.feet() - feet).abs() < 0.5,
                "{feet} ft came back as {:?}",
                found.expected
            );
        }
    }

    #[test]
    fn a_degree_fahrenheit_is_worth_about_five_hundred_feet() {
        // Common practice, no source: water boils 1 °F lower for about every 500 ft.
        let reading = Temperature::new::<degree_fahrenheit>(208.0);
        let found = from_boil_test(reading, TemperatureInterval::new::<fahrenheit_apart>(1.0)).unwrap();
        for span in [found.high.feet() - found.expected.feet(), found.expected.feet() - found.low.feet()] {
            assert!((480.0..580.0).contains(&span), "{span} ft for a degree");
        }
        assert_eq!(found.high.water_band(), Some(WaterBand::To3000));
    }

    #[test]
    fn lukewarm_water_is_not_a_boil_test() {
        let error = TemperatureInterval::new::<fahrenheit_apart>(1.0);
        for reading in [20.0, 60.0, 115.0, f64::NAN] {
            let refused = from_boil_test(Temperature::new::<degree_celsius>(reading), error);
            assert!(matches!(refused, Err(NotBoiling(_))), "{reading} °C");
        }
    }
}
