//! How many jars a canner has room for: by the household's own count, and, where its inside was measured, by where jars
//! can stand and by its height.
//!
//! By count a load fits when its jars' shares (count over capacity) add up to at most one. In a measured canner the jars
//! have to find places side by side, with an inch of water over the tallest.

use super::standing::{holds, most_of};
use bodega_model::canner::cover::LEAST_COVER_IN;
use bodega_model::canner::outline::{Outsides, Pot};
use bodega_model::jars::size::JarSize;
use bodega_model::measures::units::{Length, inches};
use bodega_model::records::canner::{Canner, PotSize};
use bodega_model::tables::process::Method;
use uom::si::area::square_millimeter;

/// How many jars of one size a canner holds when it holds nothing else.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Capacity {
    /// Size of jar.
    pub jar: JarSize,
    /// Jars of it that fit, at least one.
    pub count: u32,
}

/// A canner that holds no jar of a size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NoRoom {
    /// Nobody said how many.
    #[error("the canner's capacity for {} is not given; say how many fit", .0.plural())]
    NotCounted(JarSize),
    /// They stand out of it, or of the water.
    #[error("{} are too tall for this canner with water over them: take smaller jars or another canner", .0.plural())]
    TooTall(JarSize),
    /// Not one stands in it.
    #[error("{} are too wide for this canner: take smaller jars or another canner", .0.plural())]
    TooWide(JarSize),
}

/// What each size takes of a canner at the least.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Shares {
    /// The whole canner.
    pub whole: u64,
    /// One jar of each size that was asked about.
    pub each: Vec<u64>,
}

/// Something that jars stand in.
pub trait Room: std::fmt::Debug {
    /// Most jars of a size when it holds nothing else, at least one.
    ///
    /// # Errors
    /// [`NoRoom`] when it holds none, or nobody knows.
    fn most_of(&self, jar: JarSize) -> Result<u32, NoRoom>;

    /// Whether these jars go in together.
    fn holds(&self, jars: &[(JarSize, u32)]) -> bool;

    /// What jars take of it at the least: no jars that go in together have shares of more than the whole.
    ///
    /// # Errors
    /// [`NoRoom`] for a size that it does not hold.
    fn shares(&self, sizes: &[JarSize]) -> Result<Shares, NoRoom>;
}

/// Slack for a sum of shares that is exactly one.
const SHARE_SLACK: f64 = 1e-9;

/// A canner that is known by what it holds of each size.
impl<Counts: AsRef<[Capacity]> + std::fmt::Debug> Room for Counts {
    fn most_of(&self, jar: JarSize) -> Result<u32, NoRoom> {
        let line = self.as_ref().iter().find(|line| line.jar == jar && line.count > 0);
        line.map(|line| line.count).ok_or(NoRoom::NotCounted(jar))
    }

    fn holds(&self, jars: &[(JarSize, u32)]) -> bool {
        let share = |(size, count): &(JarSize, u32)| {
            self.most_of(*size).map_or(f64::INFINITY, |most| f64::from(*count) / f64::from(most))
        };
        jars.iter().filter(|(_, count)| *count > 0).map(share).sum::<f64>() <= 1.0 + SHARE_SLACK
    }

    fn shares(&self, sizes: &[JarSize]) -> Result<Shares, NoRoom> {
        let counts: Vec<u64> =
            sizes.iter().map(|jar| self.most_of(*jar).map(u64::from)).collect::<Result<_, _>>()?;
        let whole = counts.iter().copied().fold(1, least_common_multiple);
        Ok(Shares { whole, each: counts.into_iter().map(|count| whole / count).collect() })
    }
}

fn least_common_multiple(a: u64, b: u64) -> u64 {
    let (mut x, mut y) = (a, b);
    while y != 0 {
        (x, y) = (y, x % y);
    }
    a / x * b
}

/// A household's canner: what it counted, and its inside when somebody measured it.
#[derive(Debug, Clone, PartialEq)]
pub struct CannerRoom {
    /// `None` where nobody counted.
    counts: Option<Vec<Capacity>>,
    pot: Option<Pot>,
    over_lids: Length,
    outsides: Outsides,
}

/// What a household's canner has room for.
#[must_use]
pub fn room_of(canner: &Canner, outsides: &Outsides) -> CannerRoom {
    let counted = canner.capacity.iter().map(|(jar, count)| Capacity { jar: *jar, count: *count });
    CannerRoom {
        counts: Some(counted.collect()),
        pot: canner.pot.map(PotSize::inside),
        over_lids: over_lids(canner.method),
        outsides: outsides.clone(),
    }
}

/// Water that has to stand over the lids for the pot to be high enough.
fn over_lids(method: Method) -> Length {
    if method == Method::BoilingWater { inches(LEAST_COVER_IN) } else { Length::default() }
}

impl CannerRoom {
    /// A pot that nobody counted jars in, for usual jars.
    #[must_use]
    pub fn of_pot(pot: PotSize, method: Method) -> Self {
        let pot = Some(pot.inside());
        Self { counts: None, pot, over_lids: over_lids(method), outsides: Outsides::default() }
    }

    fn counted(&self, jar: JarSize) -> Result<u32, NoRoom> {
        self.counts.as_ref().map_or(Ok(u32::MAX), |counts| counts.most_of(jar))
    }

    fn is_too_tall(&self, jar: JarSize) -> bool {
        self.pot.is_some_and(|pot| {
            pot.rack_height + self.outsides.of(jar).height + self.over_lids > pot.inner_height
        })
    }
}

impl Room for CannerRoom {
    fn most_of(&self, jar: JarSize) -> Result<u32, NoRoom> {
        let counted = self.counted(jar)?;
        let Some(pot) = self.pot else { return Ok(counted) };
        if self.is_too_tall(jar) {
            return Err(NoRoom::TooTall(jar));
        }
        let stand = most_of(pot.outline, jar, &self.outsides);
        if stand == 0 { Err(NoRoom::TooWide(jar)) } else { Ok(counted.min(stand)) }
    }

    fn holds(&self, jars: &[(JarSize, u32)]) -> bool {
        let Some(pot) = self.pot else { return self.counts.as_ref().is_none_or(|counts| counts.holds(jars)) };
        let alone = |(jar, count): &(JarSize, u32)| self.most_of(*jar).is_ok_and(|most| *count <= most);
        jars.iter().filter(|(_, count)| *count > 0).all(alone) && holds(pot.outline, jars, &self.outsides)
    }

    fn shares(&self, sizes: &[JarSize]) -> Result<Shares, NoRoom> {
        let Some(pot) = self.pot else {
            return self.counts.iter().flatten().copied().collect::<Vec<_>>().shares(sizes);
        };
        #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
        // square millimetres of a kitchen pot
        let whole_mm = |area: f64| area as u64;
        let each = sizes.iter().map(|jar| {
            self.most_of(*jar)?;
            let wide = self.outsides.of(*jar).diameter;
            let covered = (wide * wide * (std::f64::consts::PI / 4.0)).get::<square_millimeter>();
            Ok(whole_mm(covered.floor()).max(1))
        });
        Ok(Shares {
            each: each.collect::<Result<_, _>>()?,
            whole: whole_mm(pot.outline.floor().get::<square_millimeter>().ceil()),
        })
    }
}
