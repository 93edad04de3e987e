//! A kettle from inside: how deep a volume stands in it.

use bodega_model::measures::units::{Area, Length, Volume};
use uom::si::length::meter;
use uom::si::ratio::ratio;
use uom::si::volume::cubic_meter;

/// A round kettle: straight, wider at the rim than at the floor, or calibrated by pouring known measures into it.
#[derive(Debug, Clone, PartialEq)]
pub struct Vessel {
    /// Inner width, at the floor when the walls lean.
    pub inner_diameter: Length,
    /// Inner width at the rim, when it is another.
    pub top_diameter: Option<Length>,
    /// Inner depth.
    pub depth: Length,
    /// Depth and volume after each poured measure, rising; they outweigh the widths.
    pub poured: Vec<(Length, Volume)>,
}

/// Area of a circle.
fn circle(across: Length) -> Area {
    across * across * std::f64::consts::FRAC_PI_4
}

impl Vessel {
    /// A kettle with straight walls.
    #[must_use]
    pub const fn straight(inner_diameter: Length, depth: Length) -> Self {
        Self { inner_diameter, top_diameter: None, depth, poured: Vec::new() }
    }

    /// How much wider it gets for each length of height; none for straight walls.
    fn lean(&self) -> Option<f64> {
        let top = self.top_diameter?;
        let lean = ((top - self.inner_diameter) / self.depth).get::<ratio>();
        (lean.abs() > 1e-6).then_some(lean)
    }

    /// Inner width at the rim.
    fn rim(&self) -> Length {
        self.top_diameter.unwrap_or(self.inner_diameter)
    }

    /// Surface of a volume in it.
    #[must_use]
    pub fn surface_at(&self, volume: Volume) -> Area {
        if !self.poured.is_empty() {
            let ((low_depth, low), (high_depth, high)) = self.span(|(_, mark)| *mark < volume);
            return (high - low) / (high_depth - low_depth);
        }
        let depth = self.depth_of(volume).min(self.depth);
        circle(self.inner_diameter + depth * self.lean().unwrap_or_default())
    }

    /// The two poured marks around a place, and the wall above the last of them, taken as straight.
    fn span(&self, below: impl Fn(&(Length, Volume)) -> bool) -> ((Length, Volume), (Length, Volume)) {
        let empty = (Length::default(), Volume::default());
        let place = self.poured.iter().position(|mark| !below(mark));
        match place {
            Some(0) => (empty, self.poured[0]),
            Some(place) => (self.poured[place - 1], self.poured[place]),
            None => {
                let last = self.poured.last().copied().unwrap_or(empty);
                (last, (last.0 + self.depth, last.1 + circle(self.rim()) * self.depth))
            }
        }
    }

    /// How deep a volume stands in it. Above the rim the walls are taken to go straight up.
    #[must_use]
    pub fn depth_of(&self, volume: Volume) -> Length {
        if self.poured.is_empty()
            && let Some(lean) = self.lean()
        {
            let full = self.volume_to(self.depth);
            if volume > full {
                return self.depth + (volume - full) / circle(self.rim());
            }
            // V = π / 12k (D³ - d³) for a width D = d + k h over a floor of width d.
            let floor = self.inner_diameter.get::<meter>();
            let cube = floor.powi(3) + 12.0 * lean * volume.get::<cubic_meter>() / std::f64::consts::PI;
            return Length::new::<meter>((cube.cbrt() - floor) / lean);
        }
        let ((low_depth, low), (high_depth, high)) = self.span(|(_, mark)| *mark < volume);
        low_depth + (high_depth - low_depth) * ((volume - low) / (high - low)).get::<ratio>()
    }

    /// The volume up to a depth.
    #[must_use]
    pub fn volume_to(&self, depth: Length) -> Volume {
        if self.poured.is_empty()
            && let Some(lean) = self.lean()
        {
            let within = depth.min(self.depth);
            let (floor, level) = (self.inner_diameter, self.inner_diameter + within * lean);
            let cone = within * (floor * floor + floor * level + level * level);
            let above = circle(self.rim()) * (depth - within);
            return cone * (std::f64::consts::PI / 12.0) + above;
        }
        let ((low_depth, low), (high_depth, high)) = self.span(|(mark, _)| *mark < depth);
        low + (high - low) * ((depth - low_depth) / (high_depth - low_depth)).get::<ratio>()
    }

    /// What it holds to the brim.
    #[must_use]
    pub fn brim(&self) -> Volume {
        self.volume_to(self.depth)
    }

    /// Surface in the middle of its height.
    #[must_use]
    pub fn surface(&self) -> Area {
        self.surface_at(self.brim() * 0.5)
    }
}
