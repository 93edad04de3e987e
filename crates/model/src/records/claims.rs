//! What somebody saw of a load's jars, said once: one card that one touch confirms, changed where it differs.

use serde::{Deserialize, Serialize};

use crate::jars::acid::Agent;
use crate::jars::kinds::{AcidSource, JarKind, LidState};
use crate::measures::words::short;
use crate::records::jar::Jar;
use crate::tables::process::{Medium, Pack, Product};

/// The card of a load. Nothing of it is preset: a load has none until somebody looked.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Claims {
    /// What kind of jars they are; of several kinds the one that is least made for it.
    pub kind: JarKind,
    /// The lids; one that was used before makes them used.
    pub lid: LidState,
    /// Whether a rim is nicked.
    pub nicked: bool,
    /// Of whole tomatoes in water or juice: whether the liquid covers them. `false`: none went in.
    pub covered: bool,
    /// Of food that is to be packed boiling hot: whether it went in raw after all.
    #[serde(default)]
    pub packed_raw: bool,
    /// Of whole and crushed tomatoes: whether the skins were left on.
    #[serde(default)]
    pub skins_on: bool,
    /// Where the acid came from; bottled, or vinegar of 5 %, until somebody says otherwise.
    #[serde(default = "usual_source")]
    pub acid_source: AcidSource,
    /// Headspace that was measured, in inches, 0 to 6; `null` when it is as asked.
    #[serde(default)]
    pub headspace_in: Option<f64>,
    /// Temperature of the canner's water when the jars go in, in degrees Celsius, -30 to 200; `null` while nobody looked.
    #[serde(default)]
    pub water_c: Option<f64>,
}

impl Claims {
    /// What one touch confirms: all as it should be.
    pub const USUAL: Self = Self {
        kind: JarKind::Mason,
        lid: LidState::New,
        nicked: false,
        covered: true,
        packed_raw: false,
        skins_on: false,
        acid_source: usual_source(),
        headspace_in: None,
        water_c: None,
    };

    /// What a jar lies in, after what was seen: without its liquid it is a jar of no liquid, with the time of one.
    #[must_use]
    pub fn medium_of(&self, jar: &Jar) -> Option<Medium> {
        match jar.medium {
            Some(Medium::Water | Medium::Juice) if !self.covered => Some(Medium::None),
            other => other,
        }
    }

    /// How a jar was packed, after what was seen.
    #[must_use]
    pub fn pack_of(&self, jar: &Jar) -> Pack {
        if self.packed_raw { Pack::Raw } else { jar.pack }
    }

    /// The claims in words: "canning jars, new lids, no nicked rim, covered with liquid, headspace as asked".
    #[must_use]
    pub fn words(&self, jars: &[Jar]) -> String {
        let mut words = vec![
            format!("{}s", self.kind.label().replace("jar or bottle", "jar")),
            match self.lid {
                LidState::New => "new lids".to_owned(),
                LidState::Reused => "used lids".to_owned(),
                LidState::OnePiece => "lids in one piece".to_owned(),
                LidState::Reusable => "reusable lids".to_owned(),
            },
            if self.nicked { "a nicked rim" } else { "no nicked rim" }.to_owned(),
        ];
        if asks_liquid(jars) {
            words.push(if self.covered { "covered with liquid" } else { "no liquid" }.to_owned());
        }
        if asks_hot(jars) {
            words.push(if self.packed_raw { "packed raw" } else { "packed boiling hot" }.to_owned());
        }
        if self.skins_on {
            words.push("skins left on".to_owned());
        }
        if self.acid_source != usual_source() {
            words.push(format!("acid: {}", self.acid_source.label()));
        }
        words.push(match self.headspace_in {
            None => "headspace as asked".to_owned(),
            Some(inches) => format!("{} in of headspace", short(inches)),
        });
        words.join(", ")
    }
}

/// Where the acid comes from as a rule.
const fn usual_source() -> AcidSource {
    AcidSource::Bottled
}

/// Whether any of the jars is of tomatoes that are peeled.
#[must_use]
pub fn asks_skins(jars: &[Jar]) -> bool {
    jars.iter().any(|jar| matches!(jar.product, Product::Whole | Product::Crushed))
}

/// The acids that the card asks the strength of: a recipe's is its own, and crystals are what they are.
#[must_use]
pub fn asks_acid(jars: &[Jar]) -> Option<Agent> {
    let plain = jars.iter().find(|jar| !jar.product.brings_its_acid())?;
    (plain.agent != Agent::CitricAcid).then_some(plain.agent)
}

/// Whether any of the jars is to be packed boiling hot.
#[must_use]
pub fn asks_hot(jars: &[Jar]) -> bool {
    jars.iter().any(|jar| jar.pack == Pack::Hot)
}

/// Whether any of the jars is to be covered with a liquid.
#[must_use]
pub fn asks_liquid(jars: &[Jar]) -> bool {
    jars.iter().any(|jar| matches!(jar.medium, Some(Medium::Water | Medium::Juice)))
}
