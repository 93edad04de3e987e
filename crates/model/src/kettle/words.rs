//! Words for a kettle: where it stands, how it is heated, what its target means, what is written down of it.

use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// Where a kettle stands while it cooks down.
    "heat", KettleHeat {
        /// On a burner: its power limits.
        Burner = "burner", "on a burner";
        /// A pan or roaster in the oven: its surface limits.
        Oven = "oven", "in the oven";
    }
}

vocabulary! {
    /// How far the heat under a kettle is turned up.
    "setting", HeatSetting {
        /// It barely simmers.
        Low = "low", "low";
        /// It boils gently.
        Medium = "medium", "middle";
        /// It boils as hard as it will.
        High = "high", "full";
    }
}

impl HeatSetting {
    /// Share of the full rate to expect until this kettle has shown its own. Common practice, no source.
    #[must_use]
    pub const fn share(self) -> f64 {
        match self {
            Self::Low => 0.4,
            Self::Medium => 0.7,
            Self::High => 1.0,
        }
    }
}

vocabulary! {
    /// Where what goes into a kettle comes from, which says how warm it is.
    "start", Warmth {
        /// Out of the freezer.
        Frozen = "frozen", "frozen";
        /// Out of the refrigerator.
        Chilled = "chilled", "from the refrigerator";
        /// As warm as the kitchen.
        Room = "room", "as warm as the kitchen";
        /// Simmered soft and milled hot.
        Mill = "mill", "hot from the mill";
        /// It boils already.
        Boiling = "boiling", "boiling already";
    }
}

impl Warmth {
    /// How warm that is, in degrees Celsius. Common practice, no source.
    #[must_use]
    pub const fn celsius(self) -> f64 {
        match self {
            Self::Frozen => -18.0,
            Self::Chilled => 5.0,
            Self::Room => ROOM_C,
            Self::Mill => 75.0,
            Self::Boiling => 100.0,
        }
    }
}

vocabulary! {
    /// What a target's number means.
    "target", TargetKind {
        /// Share of the start volume.
        FractionLeft = "fraction_left", "share left";
        /// °Brix.
        Brix = "brix", "°Brix";
        /// Litres.
        VolumeL = "volume_l", "litres";
        /// Minutes of simmering, from the boil on.
        BoilMinutes = "boil_minutes", "minutes of simmering";
        /// Minutes held hot without boiling.
        HoldMinutes = "hold_minutes", "minutes held hot";
        /// Brought to the boil and not boiled down; the value says nothing.
        ToBoil = "to_boil", "brought to the boil";
    }
}

vocabulary! {
    /// What is written down of a kettle.
    "entry", CookWhat {
        /// Litres in it.
        VolumeL = "volume_l", "litres";
        /// Depth on the stick.
        DepthMm = "depth_mm", "depth";
        /// Net kilograms.
        MassKg = "mass_kg", "weight";
        /// °Brix.
        Brix = "brix", "°Brix";
        /// Litres taken off, well mixed.
        DrainL = "drain_l", "taken off";
        /// Litres of thin juice ladled off; the pulp stays.
        LadleL = "ladle_l", "ladled off";
        /// Litres that went in while it cooked.
        AddL = "add_l", "more went in";
        /// Temperature in degrees Celsius.
        TempC = "temp_c", "temperature";
        /// It boils now; the value says nothing.
        Boils = "boils", "it boils";
        /// It does not boil yet; the value says nothing.
        NotYet = "not_yet", "not yet boiling";
        /// It is as hot as it is to be held; the value says nothing.
        HotEnough = "hot_enough", "hot enough";
        /// The lid went on; the value says nothing.
        LidOn = "lid_on", "lid on";
        /// The lid came off; the value says nothing.
        LidOff = "lid_off", "lid off";
        /// The heat was turned to low; the value is the litres an hour to expect there.
        HeatLow = "heat_low", "heat low";
        /// The heat was turned to the middle; the value is the litres an hour to expect there.
        HeatMedium = "heat_medium", "heat middle";
        /// The heat was turned up full; the value is the litres an hour to expect there.
        HeatHigh = "heat_high", "heat full";
    }
}

impl CookWhat {
    /// The entry that says the heat was turned.
    #[must_use]
    pub const fn turned(setting: HeatSetting) -> Self {
        match setting {
            HeatSetting::Low => Self::HeatLow,
            HeatSetting::Medium => Self::HeatMedium,
            HeatSetting::High => Self::HeatHigh,
        }
    }

    /// Whether it took food off the kettle.
    #[must_use]
    pub const fn takes_off(self) -> bool {
        matches!(self, Self::DrainL | Self::LadleL)
    }

    /// The setting that this entry turned the heat to, if it did.
    #[must_use]
    pub const fn setting(self) -> Option<HeatSetting> {
        match self {
            Self::HeatLow => Some(HeatSetting::Low),
            Self::HeatMedium => Some(HeatSetting::Medium),
            Self::HeatHigh => Some(HeatSetting::High),
            _ => None,
        }
    }
}

/// Temperature of a kitchen in °C. Common practice, no source.
pub const ROOM_C: f64 = 20.0;

impl TargetKind {
    /// What somebody says that starts the clock of a goal which has one.
    #[must_use]
    pub const fn starts_with(self) -> Option<CookWhat> {
        match self {
            Self::BoilMinutes | Self::ToBoil => Some(CookWhat::Boils),
            Self::HoldMinutes => Some(CookWhat::HotEnough),
            Self::FractionLeft | Self::Brix | Self::VolumeL => None,
        }
    }
}
