//! An independent kettle: a lumped energy balance integrated by Heun's method every five seconds.
//!
//! Nothing here is shared with the program. Water leaves by the difference of vapour pressures (Chilton and Colburn's
//! analogy) below the boil and by surplus heat at it; heat leaves through the walls, by convection and by radiation (Stefan
//! and Boltzmann); vapour pressure is Antoine's equation, the density of water Kell's (1975), that of its solids one of
//! 1.55 kg/L; the boiling point rises by the molality of the sugars. All constants from memory.

/// A kettle, its burner and its kitchen, as they really are.
#[derive(Debug, Clone)]
pub struct Truth {
    /// Inner width at the floor, m.
    pub bottom_m: f64,
    /// Inner width at the rim, m.
    pub top_m: f64,
    /// Inner depth, m.
    pub depth_m: f64,
    /// Mass of the empty kettle, kg of steel.
    pub steel_kg: f64,
    /// Air pressure, Pa.
    pub air_pa: f64,
    /// Temperature of the kitchen, °C.
    pub room_c: f64,
    /// Heat that goes into the kettle at full, W.
    pub watts: f64,
    /// Heat transfer of the walls, W/m²K.
    pub wall: f64,
    /// Heat transfer of the surface by convection, W/m²K.
    pub still_air: f64,
    /// How thick sauce keeps the heat out.
    pub thickens: Thickens,
}

/// Ways in which sauce that thickens boils more slowly.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Thickens {
    /// Not at all.
    No,
    /// The film at the floor passes less heat as viscosity grows, by a power law of the concentration.
    Film(f64),
    /// The cook turns it down bit by bit, in proportion to what has boiled away.
    Careful(f64),
    /// From a °Brix on it spits, and is held at a share.
    Spits(f64, f64),
}

/// What is in the kettle.
#[derive(Debug, Clone, Copy)]
pub struct Filled {
    /// °C.
    pub at_c: f64,
    /// Water, kg.
    pub water_kg: f64,
    /// Soluble solids, kg.
    pub solids_kg: f64,
}

/// Water's density by Kell (1975), kg/L.
pub fn water_density(at_c: f64) -> f64 {
    let t = at_c;
    let over = 999.839_52 + t * (16.945_176 - t * (7.987_040_1e-3 + t * (46.170_461e-6 - t * 105.563_02e-9)));
    over / (1.0 + 16.879_85e-3 * t) / 1000.0
}

/// Vapour pressure by Antoine, Pa.
fn vapour_pa(at_c: f64) -> f64 {
    133.322 * 10_f64.powf(8.071_31 - 1730.63 / (233.426 + at_c))
}

/// Where water boils at a pressure, °C.
fn boils_c(air_pa: f64) -> f64 {
    1730.63 / (8.071_31 - (air_pa / 133.322).log10()) - 233.426
}

impl Filled {
    /// Litres at a temperature: water and solids side by side.
    pub fn litres_at(&self, at_c: f64) -> f64 {
        self.water_kg / water_density(at_c) + self.solids_kg / 1.55 * (1.0 + 3e-4 * (at_c - 20.0))
    }

    pub fn brix(&self) -> f64 {
        100.0 * self.solids_kg / (self.water_kg + self.solids_kg)
    }

    pub fn mass_kg(&self) -> f64 {
        self.water_kg + self.solids_kg
    }

    /// From litres at 20 °C.
    pub fn of(litres: f64, brix: f64, at_c: f64) -> Self {
        let share = brix / 100.0;
        let mass = litres / ((1.0 - share) / water_density(20.0) + share / 1.55);
        Self { at_c, water_kg: mass * (1.0 - share), solids_kg: mass * share }
    }

    pub fn take(&mut self, litres: f64) {
        let part = (litres / self.litres_at(self.at_c)).min(0.95);
        self.water_kg *= 1.0 - part;
        self.solids_kg *= 1.0 - part;
    }

    pub fn add(&mut self, more: &Self) {
        let (here, there) = (self.mass_kg(), more.mass_kg());
        self.at_c = (self.at_c * here + more.at_c * there) / (here + there);
        self.water_kg += more.water_kg;
        self.solids_kg += more.solids_kg;
    }
}

impl Truth {
    /// Litres up to a depth in metres.
    pub fn litres_to(&self, depth_m: f64) -> f64 {
        let d = |h: f64| self.bottom_m + (self.top_m - self.bottom_m) * h / self.depth_m;
        let (low, high) = (self.bottom_m, d(depth_m));
        std::f64::consts::PI * depth_m / 12.0 * (low * low + low * high + high * high) * 1000.0
    }

    /// Depth of litres, in metres, by halving.
    pub fn depth_of(&self, litres: f64) -> f64 {
        let (mut low, mut high) = (0.0, self.depth_m * 1.5);
        for _ in 0..50 {
            let middle = 0.5 * (low + high);
            if self.litres_to(middle) < litres { low = middle } else { high = middle }
        }
        low
    }

    /// Where this content boils, °C.
    pub fn boils_at(&self, filled: &Filled) -> f64 {
        // 0.51 K for a mole to the kilogram of water; fruit sugars of 180 g a mole.
        boils_c(self.air_pa) + 0.51 * (filled.solids_kg / 0.180) / filled.water_kg.max(0.05)
    }

    /// Share of the burner's heat that thick sauce still takes up.
    fn share(&self, filled: &Filled, started: &Filled) -> f64 {
        let thicker = filled.brix() / started.brix();
        match self.thickens {
            Thickens::No => 1.0,
            Thickens::Film(power) => thicker.max(1.0).powf(-power),
            Thickens::Careful(at_half) => {
                let gone = 1.0 - filled.mass_kg() / started.mass_kg();
                (1.0 - at_half * (gone / 0.5)).max(0.25)
            }
            Thickens::Spits(from, share) => {
                1.0 - (1.0 - share) / (1.0 + (-(filled.brix() - from) / 0.6).exp())
            }
        }
    }

    /// Degrees and kilograms of water a second.
    fn change(&self, filled: &Filled, started: &Filled, burner: f64, lid: bool) -> (f64, f64) {
        let depth = self.depth_of(filled.litres_at(filled.at_c));
        let wide = self.bottom_m + (self.top_m - self.bottom_m) * depth / self.depth_m;
        let surface = std::f64::consts::FRAC_PI_4 * wide * wide;
        let walls = std::f64::consts::PI * wide * depth;
        let (t, room) = (filled.at_c, self.room_c);
        let cover = if lid { 0.12 } else { 1.0 };
        // Lewis: mass transfer by heat transfer over ρ c Le^(2/3), here 1,150 J/m³K; vapour as an ideal gas of 461.5 J/kgK.
        let transfer = self.still_air / 1150.0;
        let vapour =
            vapour_pa(t) / (461.5 * (t + 273.15)) - 0.5 * vapour_pa(room) / (461.5 * (room + 273.15));
        let moist = filled.water_kg / (filled.water_kg + 0.1 * filled.solids_kg);
        let drying = (transfer * surface * vapour * moist).max(0.0) * cover;
        let radiation = 0.95 * 5.67e-8 * ((t + 273.15).powi(4) - (room + 273.15).powi(4));
        let lost =
            self.wall * walls * (t - room) + surface * (self.still_air * (t - room) + radiation) * cover;
        let latent = 2_500_800.0 - 2364.0 * t;
        let into = self.watts * burner * self.share(filled, started);
        let left = into - lost - drying * latent;
        // Half a step ahead it boils a hair higher.
        if t >= self.boils_at(filled) - 0.01 && left > 0.0 {
            return (0.0, drying + left / latent * cover);
        }
        let holds = filled.water_kg * 4186.0 + filled.solids_kg * 1500.0 + self.steel_kg * 500.0;
        (left / holds, drying)
    }

    /// Moves on by seconds.
    pub fn step(&self, filled: &mut Filled, started: &Filled, seconds: f64, burner: f64, lid: bool) {
        let moved = |from: &Filled, (warmer, away): (f64, f64)| {
            let mut to = *from;
            to.at_c = from.at_c + warmer * seconds;
            to.water_kg = (from.water_kg - away * seconds).max(0.05);
            to
        };
        let first = self.change(filled, started, burner, lid);
        let ahead = moved(filled, first);
        let second = self.change(&ahead, started, burner, lid);
        *filled = moved(filled, (0.5 * (first.0 + second.0), 0.5 * (first.1 + second.1)));
        filled.at_c = filled.at_c.min(self.boils_at(filled));
    }
}
