//! How high the kitchen is, and what that does to boiling water and to the column of the table.

use uom::si::length::{foot, meter};
use uom::si::pressure::{megapascal, pascal};
use uom::si::thermodynamic_temperature::kelvin;

use crate::limits::{ALTITUDE, OutOfRange};
use crate::units::{Length, Pressure, Temperature};

/// Height above sea level, checked against [`ALTITUDE`].
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Altitude(Length);

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

    /// The band in words.
    #[must_use]
    pub const fn label(self) -> &'static str {
        match self {
            Self::To1000 => "0 to 1,000 ft",
            Self::To3000 => "1,001 to 3,000 ft",
            Self::To6000 => "3,001 to 6,000 ft",
            Self::Above6000 => "above 6,000 ft",
        }
    }
}

impl Altitude {
    /// A foot typed as a whole number must not fall over an edge by the last bit of its conversion to metres.
    const EDGE_SLACK_FT: f64 = 1e-6;

    /// An altitude in feet.
    ///
    /// # Errors
    /// [`OutOfRange`] outside dry land; kitchens on dry land but outside the tested range are refused by the lookup.
    pub fn from_feet(feet: f64) -> Result<Self, OutOfRange> {
        ALTITUDE.check(feet).map(|feet| Self(Length::new::<foot>(feet)))
    }

    /// The altitude in feet.
    #[must_use]
    pub fn feet(self) -> f64 {
        self.0.get::<foot>()
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
        let geometric = self.0.get::<meter>();
        let geopotential = geometric * EARTH_RADIUS_M / (EARTH_RADIUS_M + geometric);
        Pressure::new::<pascal>(
            SEA_LEVEL_PA * (1.0 - LAPSE_K_PER_M * geopotential / SEA_LEVEL_K).powf(EXPONENT),
        )
    }

    /// Boiling point of water at this altitude on a standard day.
    #[must_use]
    pub fn boiling_point(self) -> Temperature {
        saturation_temperature(self.pressure())
    }
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

/// Temperature at which water boils under a pressure.
///
/// Source: IAPWS-IF97, region 4, backward equation (eq. 31); coefficients from memory, held by a test against an
/// independently computed table.
#[must_use]
pub fn saturation_temperature(pressure: Pressure) -> Temperature {
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
    let beta = pressure.get::<megapascal>().powf(0.25);
    let e = beta * beta + N[2] * beta + N[5];
    let f = N[0] * beta * beta + N[3] * beta + N[6];
    let g = N[1] * beta * beta + N[4] * beta + N[7];
    let d = 2.0 * g / (-f - (f * f - 4.0 * e * g).sqrt());
    let sum = N[9] + d;
    Temperature::new::<kelvin>(0.5 * (sum - (sum * sum - 4.0 * (N[8] + N[9] * d)).sqrt()))
}
